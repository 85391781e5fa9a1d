import { defineEntity, p, type InferEntity } from "@mikro-orm/core";

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
    language: p.text(),
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
  },
});
export type Team = InferEntity<typeof Team>;

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
    team: () => p.manyToOne(Team),
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
