import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { SendCheck } from "#core/checks/check";
import type { SubjectChoice } from "#core/compose/compose";
import type { TraceEntry } from "#core/compose/letter";
import type { ProofRun } from "#core/compose/proof";
import type { Copies } from "#core/mail/copies";
import type { Doc } from "#core/document/types";
import type { BlankValues } from "#core/tokens/blanks";
import { Case } from "./cases";
import { StoredFile } from "./files";
import { Message } from "./messages";
import { Reply, ReplyVersion } from "./library";
import { Person, Team } from "./people";

/** A reply that the shelf offered, as the screen keeps it until the letter is sent. */
export interface Offer {
  reply: string;
  versionId: number;
  /** Place in the shelf's order, from 0. */
  position: number;
  fit: number | null;
  looked: boolean;
  taken: boolean;
}

/** Words that were changed in a reply before it was sent, in the order of the letter. */
export interface WordEdit {
  kind: "same" | "added" | "removed";
  text: string;
}

/** An answer under way: one a case and person. */
export const Draft = defineEntity({
  name: "Draft",
  tableName: "drafts",
  uniques: [{ properties: ["case", "person"] }],
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade"),
    person: () => p.manyToOne(Person).deleteRule("cascade").index(),
    language: p.text(),
    subject: p.json<SubjectChoice>(),
    /** Counts the saves; a save that was made on an older one is refused. */
    version: p.integer().default(1),
    updatedAt: p.datetime().defaultRaw("now()"),
    /** What the shelf offered for it, and what came of that. */
    offers: p.json<Offer[]>().nullable(),
    /** The address that was chosen for it; null for the customer’s usual one. */
    toAddress: p.text().nullable(),
    /** Whether the agent saw what is new about that address and wants it all the same. */
    toConfirmed: p.boolean().default(false),
    /** Whom it goes to besides; null for nobody. */
    copies: p.json<Copies>().nullable(),
    /** Which window wrote it last, and its how manieth save that was: of one window’s saves the later holds, whichever comes first. */
    writer: p.text().nullable(),
    sequence: p.integer().default(0),
  },
});
export type Draft = InferEntity<typeof Draft>;

/** One reply taken into a draft, with its edits; without a version, the agent's own words. */
export const Slip = defineEntity({
  name: "Slip",
  tableName: "slips",
  uniques: [{ properties: ["draft", "uid"] }],
  properties: {
    id: p.integer().primary(),
    draft: () => p.manyToOne(Draft).deleteRule("cascade"),
    /** Id within the draft, given by the screen. */
    uid: p.text(),
    position: p.integer(),
    version: () => p.manyToOne(ReplyVersion).nullable(),
    language: p.text(),
    document: p.json<Doc>(),
    values: p.json<BlankValues>(),
  },
});
export type Slip = InferEntity<typeof Slip>;

/** A slip as it went into a letter. */
export interface SentSlip {
  uid: string;
  versionId: number | null;
  reply: string | null;
  language: string;
  document: Doc;
  values: BlankValues;
}

/** A letter as it was sent, with where its words came from. */
export const SentLetter = defineEntity({
  name: "SentLetter",
  tableName: "sent_letters",
  indexes: [{ properties: ["person", "createdAt"] }],
  properties: {
    id: p.integer().primary(),
    message: () => p.oneToOne(Message).owner().deleteRule("cascade"),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    person: () => p.manyToOne(Person).nullable(),
    language: p.text(),
    subject: p.json<SubjectChoice>(),
    slips: p.json<SentSlip[]>(),
    trace: p.json<TraceEntry[]>(),
    checks: p.json<SendCheck[]>(),
    /** Where each word of its text came from; null for letters from before that was kept. */
    proof: p.json<ProofRun[]>().nullable(),
    /** Answered by hand where nothing on the shelf fitted. */
    gap: p.boolean().default(false),
    createdAt: p.datetime().defaultRaw("now()").index(),
  },
});
export type SentLetter = InferEntity<typeof SentLetter>;

/** Which replies a letter was made of: for use, recency and “sent before”. */
export const LetterReply = defineEntity({
  name: "LetterReply",
  tableName: "letter_replies",
  indexes: [{ properties: ["reply", "at"] }, { properties: ["version", "at"] }],
  properties: {
    id: p.integer().primary(),
    letter: () => p.manyToOne(SentLetter).deleteRule("cascade").index(),
    reply: () => p.manyToOne(Reply).deleteRule("cascade"),
    position: p.integer(),
    at: p.datetime(),
    version: () => p.manyToOne(ReplyVersion).nullable().deleteRule("set null"),
    /** Share of its words that were written anew, from 0 to 1; null for letters from before that was kept. */
    rewritten: p.double().nullable(),
    edits: p.json<WordEdit[]>().nullable(),
  },
});

/** What a letter said a house fact was. */
export const LetterFact = defineEntity({
  name: "LetterFact",
  tableName: "letter_facts",
  indexes: [{ properties: ["name", "at"] }],
  properties: {
    id: p.integer().primary(),
    letter: () => p.manyToOne(SentLetter).deleteRule("cascade").index(),
    /** The token’s, as in `house.fee`. */
    name: p.text(),
    /** As it was printed. */
    value: p.text(),
    at: p.datetime(),
  },
});

/** A reply that the shelf offered for a letter, and what came of it. */
export const LetterOffer = defineEntity({
  name: "LetterOffer",
  tableName: "letter_offers",
  properties: {
    id: p.integer().primary(),
    letter: () => p.manyToOne(SentLetter).deleteRule("cascade").index(),
    reply: () => p.manyToOne(Reply).deleteRule("cascade"),
    version: () => p.manyToOne(ReplyVersion).nullable().deleteRule("set null"),
    position: p.integer(),
    fit: p.double().nullable(),
    looked: p.boolean(),
    /** Taken into the answer; swapped when it was taken and is not in what was sent. */
    taken: p.boolean(),
    swapped: p.boolean(),
    sent: p.boolean(),
  },
});

/** An answer that somebody waited for: since when, and by when it was due. */
export const Wait = defineEntity({
  name: "Wait",
  tableName: "waits",
  properties: {
    id: p.integer().primary(),
    message: () => p.oneToOne(Message).owner().deleteRule("cascade"),
    team: () => p.manyToOne(Team),
    channel: p.enum(["email", "chat", "sms"]),
    /** Whether it was the first answer of its case. */
    isFirst: p.boolean(),
    since: p.datetime(),
    /** Null where nobody would be there for so long. */
    due: p.datetime().nullable(),
    at: p.datetime().index(),
  },
});

/** A file of a message, or one that an agent added to a draft. */
export const Attachment = defineEntity({
  name: "Attachment",
  tableName: "attachments",
  checks: [{ name: "attachments_of_one", expression: `("message_id" is null) <> ("draft_id" is null)` }],
  properties: {
    id: p.integer().primary(),
    message: () => p.manyToOne(Message).nullable().deleteRule("cascade").index(),
    draft: () => p.manyToOne(Draft).nullable().deleteRule("cascade").index(),
    file: () => p.manyToOne(StoredFile).index(),
    name: p.text(),
    contentType: p.text(),
    /** For a picture that stands inside the HTML: its Content-ID, without angle brackets. */
    contentId: p.text().nullable(),
    position: p.integer().default(0),
  },
});
export type Attachment = InferEntity<typeof Attachment>;
