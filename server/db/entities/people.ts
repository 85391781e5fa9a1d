import type { StateWords } from "#core/notices/state-words";
import { Calendar } from "./calendars";
import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { Detail } from "#core/tokens/context";

/** The house itself: one row. */
export const House = defineEntity({
  name: "House",
  tableName: "house",
  properties: {
    id: p.integer().primary(),
    name: p.text(),
    /** Letters before a case's number, as SF in SF-20417. */
    casePrefix: p.string().length(6),
    /** IANA zone. */
    timeZone: p.text(),
    /** What it writes in where nothing says otherwise. */
    language: p.text(),
    /** All that it writes in, the first one first. */
    languages: p.array().defaultRaw("'{en}'"),
    /** ISO 3166-1 alpha-2: how it writes dates and numbers; null for what its language does. */
    region: p.string().length(2).nullable(),
    /** Sites whose pages may hold our chat and contact form: origins as in https://www.example.com. */
    embedOrigins: p.array().defaultRaw("'{}'"),
    /** Business hours where no answer time says which; null for all hours of all days. */
    calendar: () => p.manyToOne(Calendar).nullable(),
    /** So many days after a case was settled, what its customer writes opens it again; later, it opens a new one. */
    reopenDays: p.integer().default(30),
    /** What states are called to customers, where the house says so. */
    stateWords: p.json<StateWords>().defaultRaw("'{}'"),
  },
});
export type House = InferEntity<typeof House>;

export const Team = defineEntity({
  name: "Team",
  tableName: "teams",
  properties: {
    id: p.integer().primary(),
    name: p.text().unique(),
    /** Address that the team's mail comes to and goes from. */
    mailbox: p.text().unique(),
    /** Minutes within which a message is to be answered. */
    answerWithin: p.integer(),
    /** Of its name. */
    language: p.text().default("en"),
    /** Its name in other languages, by their tags. */
    names: p.json<Record<string, string>>().defaultRaw("'{}'"),
  },
});
export type Team = InferEntity<typeof Team>;

/** A number of ours that short messages come to and go from. */
export const PhoneNumber = defineEntity({
  name: "PhoneNumber",
  tableName: "phone_numbers",
  properties: {
    id: p.integer().primary(),
    /** ITU-T E.164. */
    number: p.text().unique(),
    team: () => p.manyToOne(Team).deleteRule("cascade"),
  },
});

export type Role = "agent" | "curator" | "lead";

export const Person = defineEntity({
  name: "Person",
  tableName: "people",
  properties: {
    id: p.integer().primary(),
    /** Lower case; what one signs in with. */
    email: p.text().unique(),
    /** scrypt, in the form of `server/people/password.ts`; null for who cannot sign in. */
    passwordHash: p.text().nullable(),
    name: p.text(),
    firstName: p.text(),
    title: p.text().nullable(),
    department: p.text().nullable(),
    phone: p.text().nullable(),
    role: p.enum(["agent", "curator", "lead"]),
    timeZone: p.text(),
    active: p.boolean().default(true),
    /** Columns of the list of replies, as this person chose them. */
    listColumns: p.array().nullable(),
    /** The team they are of: its signature is theirs, and *my team's* cases are its. */
    team: () => p.manyToOne(Team),
    /** Teams whose cases and shelves they have besides. */
    furtherTeams: () => p.manyToMany(Team).pivotTable("person_teams").owner(),
    /** Whether the next thing they do is to choose a password of their own. */
    mustChangePassword: p.boolean().default(false),
    /** Values of the house's own fields. */
    details: p.json<Record<string, Detail>>().defaultRaw("'{}'"),
    /** When they were sent away; their name stays on what they wrote. */
    leftAt: p.datetime().nullable(),
    /** How many chats they take at once; 0 for none. */
    chatLimit: p.integer().default(0),
    /** When their Chats were open last. */
    chatSeenAt: p.datetime().nullable(),
    createdAt: p.datetime().defaultRaw("now()"),
  },
});
export type Person = InferEntity<typeof Person>;

export const Session = defineEntity({
  name: "Session",
  tableName: "sessions",
  properties: {
    id: p.integer().primary(),
    /** HMAC-SHA-256 of the token that the cookie carries; the token itself is stored nowhere. */
    tokenHash: p.string().length(64).unique(),
    /** The token before the last rotation, good for requests that were already under way. */
    previousHash: p.string().length(64).nullable().index(),
    rotatedAt: p.datetime(),
    expiresAt: p.datetime().index(),
    createdAt: p.datetime().defaultRaw("now()"),
    /** The browser as it names itself, and the network address: for its person to recognise it. */
    browser: p.text().nullable(),
    address: p.text().nullable(),
    seenAt: p.datetime().defaultRaw("now()"),
    person: () => p.manyToOne(Person).deleteRule("cascade").index(),
  },
});
export type Session = InferEntity<typeof Session>;

/** A step of setting up the house that somebody did or skipped. */
export const SetupStep = defineEntity({
  name: "SetupStep",
  tableName: "setup_steps",
  properties: {
    step: p.text().primary(),
    state: p.enum(["done", "skipped"]),
    person: () => p.manyToOne(Person).nullable(),
    at: p.datetime(),
  },
});
export type SetupStep = InferEntity<typeof SetupStep>;

/** A link by which a person chooses a password: the first one, or another after a lead took the old one away. */
export const PasswordLink = defineEntity({
  name: "PasswordLink",
  tableName: "password_links",
  properties: {
    id: p.integer().primary(),
    person: () => p.manyToOne(Person).deleteRule("cascade").index(),
    purpose: p.enum(["invited", "reset"]),
    /** What its token is made of beside the program's secret: the token itself is stored nowhere. */
    nonce: p.string().length(32),
    madeBy: () => p.manyToOne(Person).nullable(),
    createdAt: p.datetime(),
    expiresAt: p.datetime(),
    usedAt: p.datetime().nullable(),
  },
});
export type PasswordLink = InferEntity<typeof PasswordLink>;

/** A running process of the program that says now and then that it is alive. */
export const Heartbeat = defineEntity({
  name: "Heartbeat",
  tableName: "heartbeats",
  properties: {
    /** What it does, as “jobs” or “receiving”, and its process. */
    name: p.text().primary(),
    beatAt: p.datetime(),
  },
});
