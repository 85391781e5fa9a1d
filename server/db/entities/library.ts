import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { Passages } from "#core/conditions/condition";
import type { FilingChange } from "#core/forms/library";
import type { PaperTexts } from "#core/compose/stationery";
import type { Doc, TextChannel } from "#core/document/types";
import type { Blanks } from "#core/tokens/blanks";
import type { Detail } from "#core/tokens/context";
import { readableReply, readableShelf } from "../access-rule";
import { StoredFile } from "./files";
import { Person, Team } from "./people";

export const Shelf = defineEntity({
  name: "Shelf",
  tableName: "shelves",
  properties: {
    id: p.integer().primary(),
    key: p.text().unique(),
    name: p.text(),
    /** A letter or two. */
    mark: p.string().length(2),
    audience: p.enum(["everyone", "teams", "owner"]),
    owner: () => p.manyToOne(Person).nullable(),
    position: p.integer().default(0),
    teams: () => p.manyToMany(Team).pivotTable("shelf_teams"),
  },
  filters: { readableShelf: { name: "readableShelf", cond: readableShelf, default: false } },
});
export type Shelf = InferEntity<typeof Shelf>;

export const Reply = defineEntity({
  name: "Reply",
  tableName: "replies",
  indexes: [
    { name: "replies_tags", expression: `create index "replies_tags" on "replies" using gin ("tags")` },
  ],
  properties: {
    id: p.integer().primary(),
    /** The id of the open formats. */
    key: p.text().unique(),
    shelf: () => p.manyToOne(Shelf).index(),
    title: p.text(),
    note: p.text().nullable(),
    part: p.enum(["opening", "answer", "closing"]),
    state: p.enum(["draft", "ready to check", "shelved", "retired"]),
    tags: p.array().default([]),
    channels: p.array().default([]),
    /** What it is about: cases of these topics, or of any; with a booking, or any. */
    topics: p.array().default([]),
    withBooking: p.boolean().default(false),
    owner: () => p.manyToOne(Person).nullable().index(),
    reviewBy: p.date().nullable(),
    seasonFrom: p.date().nullable(),
    seasonUntil: p.date().nullable(),
    /** Id of the reply that it was started from. */
    copiedFromId: p.integer().nullable(),
    /** The published version, or the newest where none ever was: the one that lists and searches show. */
    currentVersionId: p.integer().nullable().index(),
    createdAt: p.datetime().defaultRaw("now()"),
    updatedAt: p.datetime().defaultRaw("now()"),
  },
  filters: { readableReply: { name: "readableReply", cond: readableReply, default: false } },
});
export type Reply = InferEntity<typeof Reply>;

/**
 * A reply's words. A draft is one person's working copy and is saved as they type; once published or proposed,
 * a version is never changed again.
 */
export const ReplyVersion = defineEntity({
  name: "ReplyVersion",
  tableName: "reply_versions",
  uniques: [{ properties: ["reply", "number"] }],
  indexes: [
    {
      name: "reply_versions_published",
      expression: `create unique index "reply_versions_published" on "reply_versions" ("reply_id") where "state" = 'published'`,
    },
    {
      name: "reply_versions_working",
      expression: `create unique index "reply_versions_working" on "reply_versions" ("reply_id", "author_id") where "state" = 'draft'`,
    },
    {
      name: "reply_versions_proposed",
      expression: `create index "reply_versions_proposed" on "reply_versions" ("reply_id") where "state" = 'proposed'`,
    },
    {
      name: "reply_versions_decided",
      expression: `create index "reply_versions_decided" on "reply_versions" ("author_id") where "decided_by_id" <> "author_id"`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    reply: () => p.manyToOne(Reply).deleteRule("cascade"),
    /** Counts what was proposed or published; null for working copies. */
    number: p.integer().nullable(),
    title: p.text(),
    /** At most one version of a reply is published; older ones are superseded. */
    state: p.enum(["draft", "proposed", "published", "superseded", "sent back"]),
    blanks: p.json<Blanks>(),
    passages: p.json<Passages>(),
    useTemplateSubject: p.boolean().default(false),
    author: () => p.manyToOne(Person).nullable(),
    remark: p.text().nullable(),
    /** Id of the version that it was written from. */
    baseId: p.integer().nullable(),
    /** Counts the saves of a working copy; a save that rests on an older one is refused. */
    revision: p.integer().default(0),
    /** Who published it or sent it back, when, and what they said. */
    decidedBy: () => p.manyToOne(Person).nullable(),
    decidedAt: p.datetime().nullable(),
    decision: p.text().nullable(),
    /** How the reply is to be filed otherwise once this is published. */
    filing: p.json<FilingChange>().nullable(),
    createdAt: p.datetime().defaultRaw("now()"),
    updatedAt: p.datetime().defaultRaw("now()"),
  },
});
export type ReplyVersion = InferEntity<typeof ReplyVersion>;

/** What became of a reply beside its words: moved, retired, restored, filed. */
export const ReplyEvent = defineEntity({
  name: "ReplyEvent",
  tableName: "reply_events",
  properties: {
    id: p.integer().primary(),
    reply: () => p.manyToOne(Reply).deleteRule("cascade").index(),
    person: () => p.manyToOne(Person).nullable().deleteRule("set null"),
    at: p.datetime().defaultRaw("now()"),
    words: p.text(),
  },
});

/** The words that a translation follows. */
export interface OriginalWords {
  subject: string | null;
  document: Doc;
}

export const ReplyVariant = defineEntity({
  name: "ReplyVariant",
  tableName: "reply_variants",
  uniques: [{ properties: ["version", "language"] }],
  indexes: [
    {
      name: "reply_variants_terms",
      expression: `create index "reply_variants_terms" on "reply_variants" using gin ("terms")`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    version: () => p.manyToOne(ReplyVersion).deleteRule("cascade"),
    language: p.text().index(),
    fallback: p.boolean(),
    title: p.text().nullable(),
    /** In text form. */
    subject: p.text().nullable(),
    document: p.json<Doc>(),
    /** Of channels that have a text of their own. */
    texts: p.json<Partial<Record<TextChannel, Doc>>>().defaultRaw("'{}'"),
    /** For a translation: the fallback's words that it follows. It is stale when they are others now. */
    original: p.json<OriginalWords>().nullable(),
    /** Title, subject and text without placeholders, for searching. */
    words: p.text(),
    /** Terms of title, tags, shelf, text and blanks in the variant's language; a trigger keeps them. */
    terms: p.string().columnType("tsvector").nullable().lazy().defaultRaw("null"),
  },
});
export type ReplyVariant = InferEntity<typeof ReplyVariant>;

/** A file that travels with every letter of a reply. */
export const ReplyAttachment = defineEntity({
  name: "ReplyAttachment",
  tableName: "reply_attachments",
  properties: {
    id: p.integer().primary(),
    version: () => p.manyToOne(ReplyVersion).deleteRule("cascade").index(),
    file: () => p.manyToOne(StoredFile).index(),
    name: p.text(),
    contentType: p.text(),
    position: p.integer(),
  },
});

export const HouseFact = defineEntity({
  name: "HouseFact",
  tableName: "house_facts",
  properties: {
    id: p.integer().primary(),
    key: p.text().unique(),
    label: p.text(),
    type: p.enum(["text", "long_text", "money", "date", "link", "number"]),
    /** The least role that may change it. */
    changedBy: p.enum(["agent", "curator", "lead"]).default("curator"),
    /** Of its values; null where they read the same in every language. */
    language: p.text().nullable(),
  },
});

/** A value of a house fact, from a date on. The latest that has begun holds. */
export type HouseFact = InferEntity<typeof HouseFact>;

export const HouseFactValue = defineEntity({
  name: "HouseFactValue",
  tableName: "house_fact_values",
  uniques: [{ properties: ["fact", "validFrom"] }],
  properties: {
    id: p.integer().primary(),
    fact: () => p.manyToOne(HouseFact).deleteRule("cascade"),
    value: p.json<Detail>(),
    /** The same in other languages, by their tags. */
    texts: p.json<Record<string, string>>().defaultRaw("'{}'"),
    validFrom: p.datetime(),
    person: () => p.manyToOne(Person).nullable(),
    createdAt: p.datetime().defaultRaw("now()"),
  },
});

/** A sign-off block: a person's own, or one that the house imposes on a team. */
export const Signature = defineEntity({
  name: "Signature",
  tableName: "signatures",
  checks: [{ name: "signatures_of_one", expression: `("person_id" is null) <> ("team_id" is null)` }],
  properties: {
    id: p.integer().primary(),
    person: () => p.manyToOne(Person).nullable().unique().deleteRule("cascade"),
    team: () => p.manyToOne(Team).nullable().unique().deleteRule("cascade"),
    /** Of the document. */
    language: p.text().default("en"),
    document: p.json<Doc>(),
    /** The same in other languages, by their tags. */
    texts: p.json<Record<string, Doc>>().defaultRaw("'{}'"),
  },
});

export type Signature = InferEntity<typeof Signature>;

export const Stationery = defineEntity({
  name: "Stationery",
  tableName: "stationery",
  properties: {
    id: p.integer().primary(),
    team: () => p.manyToOne(Team).unique().deleteRule("cascade"),
    name: p.text(),
    header: p.json<Doc>().nullable(),
    footer: p.json<Doc>().nullable(),
    /** #rrggbb */
    accent: p.string().length(7),
    textColour: p.string().length(7).default("#17211d"),
    background: p.string().length(7).default("#ffffff"),
    logo: () => p.manyToOne(StoredFile).nullable(),
    logoType: p.text().nullable(),
    logoAlt: p.text().default(""),
    /** Of header and footer. */
    language: p.text().default("en"),
    /** Header and footer in other languages, by their tags. */
    texts: p.json<Record<string, PaperTexts>>().defaultRaw("'{}'"),
  },
});

export type Stationery = InferEntity<typeof Stationery>;

/** The opening or closing that a team's first answers by a channel take. */
export const UsualReply = defineEntity({
  name: "UsualReply",
  tableName: "usual_replies",
  uniques: [{ properties: ["team", "channel", "part"] }],
  properties: {
    id: p.integer().primary(),
    team: () => p.manyToOne(Team).deleteRule("cascade"),
    channel: p.enum(["email", "chat", "sms"]),
    part: p.enum(["opening", "closing"]),
    reply: () => p.manyToOne(Reply).deleteRule("cascade"),
  },
});

/** A reply that a person keeps within reach. */
export const ReplyPin = defineEntity({
  name: "ReplyPin",
  tableName: "reply_pins",
  properties: {
    person: () => p.manyToOne(Person).primary().deleteRule("cascade"),
    reply: () => p.manyToOne(Reply).primary().deleteRule("cascade"),
    position: p.integer(),
  },
});

/** A file that a person brought for writing; only they may put it into a reply that does not have it yet. */
export const FileUpload = defineEntity({
  name: "FileUpload",
  tableName: "file_uploads",
  uniques: [{ properties: ["person", "file"] }],
  properties: {
    id: p.integer().primary(),
    person: () => p.manyToOne(Person).deleteRule("cascade"),
    file: () => p.manyToOne(StoredFile).deleteRule("cascade"),
    name: p.text(),
    contentType: p.text(),
    createdAt: p.datetime().defaultRaw("now()"),
  },
});

/** What a change in bulk set, for undoing it: by reply, the values before and after. */
export interface BulkStep {
  reply: number;
  before: Record<string, unknown>;
  after: Record<string, unknown>;
}

export const BulkChange = defineEntity({
  name: "BulkChange",
  tableName: "bulk_changes",
  properties: {
    id: p.integer().primary(),
    person: () => p.manyToOne(Person).deleteRule("cascade").index(),
    at: p.datetime().defaultRaw("now()"),
    words: p.text(),
    changes: p.json<BulkStep[]>(),
    undoneAt: p.datetime().nullable(),
  },
});
