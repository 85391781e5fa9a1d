import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import { fieldOwners } from "#core/tokens/fields";
import { asideKinds, caseStates } from "#core/words/case-states";
import { tokenTypes } from "#core/tokens/catalogue";
import type { Detail } from "#core/tokens/context";
import type { ForwardedDetails } from "#core/mail/forwarded";
import { Forwarder, Mailbox } from "./mailboxes";
import { Customer } from "./customers";
import { Person, Team } from "./people";

export const Case = defineEntity({
  name: "Case",
  tableName: "cases",
  indexes: [
    { properties: ["status", "answerBy"] },
    { properties: ["team", "status"] },
    { properties: ["customer", "openedAt"] },
    {
      name: "cases_ours",
      expression: `create index "cases_ours" on "cases" ("answer_by") where "status" in ('new', 'open', 'waiting on a colleague')`,
    },
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
    status: p.enum([...caseStates]),
    /** What it is set aside as; null where it is not. */
    asideAs: p.enum([...asideKinds]).nullable(),
    /** Why somebody set its state, in their words. */
    stateReason: p.text().nullable(),
    customer: () => p.manyToOne(Customer).index(),
    team: () => p.manyToOne(Team),
    assignee: () => p.manyToOne(Person).nullable().index(),
    bookingReference: p.text().nullable(),
    /** Words by which it is found among others. */
    tags: p.array().default([]),
    /** What was done on it, as its customer may read it; null where nobody said. */
    done: p.text().nullable(),
    /** Values of the house's own case fields. */
    details: p.json<Record<string, Detail>>().defaultRaw("'{}'"),
    openedAt: p.datetime(),
    /** When the oldest unanswered message came; null when nothing waits for us. */
    waitingSince: p.datetime().nullable(),
    answerBy: p.datetime().nullable(),
    /** The mailbox that it came to; null for the team's own. */
    mailbox: () => p.manyToOne(Mailbox).nullable().deleteRule("set null"),
    /** The case that this one was joined to; null where it stands by itself. */
    joinedTo: () => p.manyToOne(Case).nullable().deleteRule("set null"),
    /** The settled case that it goes on from: the customer wrote too long after that. */
    follows: () => p.manyToOne(Case).nullable().deleteRule("set null"),
    /** Who forwarded it, and what of their form was read; null for what came by itself. */
    forwarder: () => p.manyToOne(Forwarder).nullable().deleteRule("set null"),
    forwarded: p.json<ForwardedDetails>().nullable(),
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
      "state",
      "assigned",
      "topic",
      "tags",
      "field",
      "promise",
      "notice",
      "time",
    ]),
    data: p.json<Record<string, unknown>>().defaultRaw("'{}'"),
    at: p.datetime().defaultRaw("now()"),
  },
});
export type CaseEvent = InferEntity<typeof CaseEvent>;

/** A state that a case came into; kept by the database, whoever sets it. */
export const CaseInState = defineEntity({
  name: "CaseInState",
  tableName: "case_states",
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    status: p.enum([...caseStates]),
    at: p.datetime(),
  },
});

/** An address whose mail is set aside as junk when it comes. */
export const JunkSender = defineEntity({
  name: "JunkSender",
  tableName: "junk_senders",
  properties: {
    id: p.integer().primary(),
    /** In lower case. */
    address: p.text().unique(),
    person: () => p.manyToOne(Person).nullable().deleteRule("set null"),
    /** The case by which it became known. */
    case: () => p.manyToOne(Case).nullable().deleteRule("set null").index(),
    at: p.datetime(),
  },
});

/** A header of a request; its value is sealed (see `details/secrets.ts`). */
export interface SealedHeader {
  name: string;
  sealed: string;
}

/** An outside system that is asked by a reference. */
export const DetailSource = defineEntity({
  name: "DetailSource",
  tableName: "detail_sources",
  properties: {
    id: p.integer().primary(),
    /** Stands in the names of its tokens. */
    key: p.text().unique(),
    name: p.text(),
    /** With `{reference}` in it. */
    address: p.text(),
    headers: p.json<SealedHeader[]>().defaultRaw("'[]'"),
    /** By which a reference is found in messages (RE2); null for none. */
    pattern: p.text().nullable(),
    timeoutSeconds: p.integer().default(4),
    /** What it said is asked anew after so long. */
    cacheMinutes: p.integer().default(60),
    position: p.integer().default(0),
  },
});
export type DetailSource = InferEntity<typeof DetailSource>;

/** A detail of an outside system, as the house defined it; read as `booking.KEY`, or `detail.SOURCE_KEY`. */
export const DetailField = defineEntity({
  name: "DetailField",
  tableName: "detail_fields",
  uniques: [{ properties: ["source", "key"] }],
  properties: {
    id: p.integer().primary(),
    source: () => p.manyToOne(DetailSource).deleteRule("cascade"),
    key: p.text(),
    /** Where it stands in an answer (JSONPath, RFC 9535). */
    path: p.text(),
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

/** A field that the house defined for its cases, customers, organisations or colleagues; read as `case.KEY` and the like. */
export const Field = defineEntity({
  name: "Field",
  tableName: "fields",
  uniques: [{ properties: ["of", "key"] }],
  properties: {
    id: p.integer().primary(),
    of: p.enum([...fieldOwners]).default("case"),
    key: p.text(),
    label: p.text(),
    type: p.enum([...tokenTypes, "choice"]),
    /** What it is chosen from, where it is a choice. */
    options: p.array().default([]),
    example: p.json<Detail>(),
    /** Cases of which topics have it; empty for all. */
    topics: p.array().default([]),
    /** Whether the second look says that it is not filled in. */
    required: p.boolean().default(false),
    /** Since when it is not filled in any more; replies that read it still do. */
    retiredAt: p.datetime().nullable(),
    position: p.integer().default(0),
  },
});
export type Field = InferEntity<typeof Field>;

/** A value that a letter would have needed and that stopped it. */
export const LackingValue = defineEntity({
  name: "LackingValue",
  tableName: "lacking_values",
  uniques: [{ properties: ["case", "person", "name"] }],
  indexes: [{ properties: ["name", "at"] }],
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade"),
    /** Who wrote the letter. */
    person: () => p.manyToOne(Person).deleteRule("cascade"),
    /** The token’s. */
    name: p.text(),
    at: p.datetime(),
  },
});

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
    /** When it was asked last; null where it is to be asked. */
    fetchedAt: p.datetime().nullable(),
    /** When it said what is kept. */
    readAt: p.datetime().nullable(),
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
