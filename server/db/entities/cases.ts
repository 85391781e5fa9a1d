import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import { tokenTypes } from "#core/tokens/catalogue";
import type { Detail } from "#core/tokens/context";
import { Customer } from "./customers";
import { Person, Team } from "./people";

export const Case = defineEntity({
  name: "Case",
  tableName: "cases",
  indexes: [
    { properties: ["status", "answerBy"] },
    { properties: ["team", "status"] },
    {
      name: "cases_subject_trgm",
      expression: `create index "cases_subject_trgm" on "cases" using gin ("subject" gin_trgm_ops)`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    number: p.integer().unique(),
    channel: p.enum(["email", "chat", "sms"]),
    subject: p.text(),
    topic: p.text().nullable().index(),
    language: p.text().nullable(),
    status: p.enum(["waiting for us", "waiting for the customer", "set aside", "closed"]),
    customer: () => p.manyToOne(Customer).index(),
    team: () => p.manyToOne(Team),
    assignee: () => p.manyToOne(Person).nullable().index(),
    bookingReference: p.text().nullable(),
    /** Values of the house's own case fields. */
    details: p.json<Record<string, Detail>>().defaultRaw("'{}'"),
    openedAt: p.datetime(),
    /** When the oldest unanswered message came; null when nothing waits for us. */
    waitingSince: p.datetime().nullable(),
    answerBy: p.datetime().nullable(),
    updatedAt: p.datetime().defaultRaw("now()"),
  },
});
export type Case = InferEntity<typeof Case>;

/** What happened on a case, for its history. */
export const CaseEvent = defineEntity({
  name: "CaseEvent",
  tableName: "case_events",
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    person: () => p.manyToOne(Person).nullable(),
    kind: p.enum([
      "opened",
      "received",
      "queued",
      "called back",
      "sent",
      "refused",
      "tried again",
      "set aside",
      "reopened",
      "address kept",
      "handed over",
      "arrived",
      "begun",
      "forwarded",
      "joined",
      "split",
      "moved",
      "message moved",
      "undone",
      "pressed",
      "chat ended",
    ]),
    data: p.json<Record<string, unknown>>().defaultRaw("'{}'"),
    at: p.datetime().defaultRaw("now()"),
  },
});
export type CaseEvent = InferEntity<typeof CaseEvent>;

/** Bytes, kept once however often they are attached. */
export const StoredFile = defineEntity({
  name: "StoredFile",
  tableName: "files",
  properties: {
    id: p.integer().primary(),
    sha256: p.string().length(64).unique(),
    size: p.integer(),
    content: p.blob().lazy(),
    createdAt: p.datetime().defaultRaw("now()"),
  },
});
export type StoredFile = InferEntity<typeof StoredFile>;

/** One reason to doubt a message’s sender, in words. */
export interface Doubt {
  /** No usable From: the envelope’s sender stands for it; or what a receiver that is trusted found (RFC 8601). */
  kind: "envelope" | "authentication";
  words: string;
}

export type MessageState = "received" | "due" | "sending" | "sent" | "refused" | "called back";

export const Message = defineEntity({
  name: "Message",
  tableName: "messages",
  indexes: [
    { properties: ["case", "at"] },
    {
      name: "messages_words",
      expression: `create index "messages_words" on "messages" using gin (to_tsvector('simple', "subject" || ' ' || "text"))`,
    },
    {
      name: "messages_due",
      expression: `create index "messages_due" on "messages" ("due_at") where "state" in ('due', 'sending')`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade"),
    direction: p.enum(["in", "out"]),
    channel: p.enum(["email", "chat", "sms"]),
    state: p.enum(["received", "due", "sending", "sent", "refused", "called back"]),
    fromName: p.text().nullable(),
    fromAddress: p.text(),
    toAddress: p.text(),
    /** Where its sender asks answers to go, where that is another address. */
    replyTo: p.text().nullable(),
    /** What speaks against its being from whom it says; null where nothing does. */
    doubts: p.json<Doubt[]>().nullable(),
    /** Only the beginning of its words is here: the raw message has all. */
    cut: p.boolean().default(false),
    subject: p.text(),
    text: p.text(),
    /** As it came or went; cleaned only when it is shown. */
    html: p.text().nullable(),
    language: p.text().nullable(),
    /** With angle brackets (RFC 5322, 3.6.4). */
    messageId: p.text().index().nullable(),
    references: p.array().default([]),
    /** The raw message as it was received or delivered. */
    raw: () => p.manyToOne(StoredFile).nullable(),
    person: () => p.manyToOne(Person).nullable(),
    at: p.datetime(),
    dueAt: p.datetime().nullable(),
    sentAt: p.datetime().nullable(),
    /** When the other side said that it has arrived; null where nothing says so. */
    deliveredAt: p.datetime().nullable(),
    attempts: p.integer().default(0),
    /** The other server's words when it refused. */
    refusal: p.text().nullable(),
  },
});
export type Message = InferEntity<typeof Message>;

/** A detail of an outside system, as the house defined it; read as `booking.KEY`. */
export const DetailField = defineEntity({
  name: "DetailField",
  tableName: "detail_fields",
  properties: {
    id: p.integer().primary(),
    key: p.text().unique(),
    label: p.text(),
    type: p.enum([...tokenTypes]),
    example: p.json<Detail>(),
    /** Whether every booking says it. */
    always: p.boolean().default(false),
    /** Whether its values are ordinary words. */
    ordinary: p.boolean().default(false),
    /** What it is called beside a case; null where it is not shown there. */
    short: p.text().nullable(),
    /** The value that needs no look beside a case. */
    usual: p.text().nullable(),
    position: p.integer().default(0),
  },
});
export type DetailField = InferEntity<typeof DetailField>;

/** A field that the house defined for its cases; read as `case.KEY`. */
export const CaseField = defineEntity({
  name: "CaseField",
  tableName: "case_fields",
  properties: {
    id: p.integer().primary(),
    key: p.text().unique(),
    label: p.text(),
    type: p.enum([...tokenTypes]),
    example: p.json<Detail>(),
    position: p.integer().default(0),
  },
});
export type CaseField = InferEntity<typeof CaseField>;

/** What an outside system said about a case, as it was last asked. */
export const CaseLookup = defineEntity({
  name: "CaseLookup",
  tableName: "case_lookups",
  uniques: [{ properties: ["case", "source"] }],
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade"),
    source: p.text(),
    reference: p.text(),
    /** Null when nothing was found or the system did not answer. */
    data: p.json<Record<string, Detail>>().nullable(),
    problem: p.text().nullable(),
    fetchedAt: p.datetime(),
  },
});
export type CaseLookup = InferEntity<typeof CaseLookup>;

/** Who has a case open just now. */
export const Presence = defineEntity({
  name: "Presence",
  tableName: "case_presence",
  primaryKeys: ["case", "person"],
  properties: {
    case: () => p.manyToOne(Case).primary().deleteRule("cascade"),
    person: () => p.manyToOne(Person).primary().deleteRule("cascade"),
    seenAt: p.datetime(),
  },
});
