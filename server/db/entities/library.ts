import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { Passages } from "#core/conditions/condition";
import type { Doc } from "#core/document/types";
import type { Blanks } from "#core/tokens/blanks";
import type { Detail } from "#core/tokens/context";
import { StoredFile } from "./cases";
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
});
export type Shelf = InferEntity<typeof Shelf>;

export const Reply = defineEntity({
  name: "Reply",
  tableName: "replies",
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
    topics: p.array().default([]),
    owner: () => p.manyToOne(Person).nullable(),
    reviewBy: p.date().nullable(),
    seasonFrom: p.date().nullable(),
    seasonUntil: p.date().nullable(),
    createdAt: p.datetime().defaultRaw("now()"),
  },
});
export type Reply = InferEntity<typeof Reply>;

/** A reply's words as they were published or proposed once; never changed afterwards. */
export const ReplyVersion = defineEntity({
  name: "ReplyVersion",
  tableName: "reply_versions",
  uniques: [{ properties: ["reply", "number"] }],
  indexes: [
    {
      name: "reply_versions_published",
      expression: `create unique index "reply_versions_published" on "reply_versions" ("reply_id") where "state" = 'published'`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    reply: () => p.manyToOne(Reply).deleteRule("cascade"),
    number: p.integer(),
    /** At most one version of a reply is published; older ones are superseded. */
    state: p.enum(["draft", "proposed", "published", "superseded", "sent back"]),
    blanks: p.json<Blanks>(),
    passages: p.json<Passages>(),
    useTemplateSubject: p.boolean().default(false),
    author: () => p.manyToOne(Person).nullable(),
    remark: p.text().nullable(),
    createdAt: p.datetime().defaultRaw("now()"),
  },
});
export type ReplyVersion = InferEntity<typeof ReplyVersion>;

export const ReplyVariant = defineEntity({
  name: "ReplyVariant",
  tableName: "reply_variants",
  uniques: [{ properties: ["version", "language"] }],
  indexes: [
    {
      name: "reply_variants_words",
      expression: `create index "reply_variants_words" on "reply_variants" using gin (to_tsvector('english', "words"))`,
    },
    {
      name: "reply_variants_trgm",
      expression: `create index "reply_variants_trgm" on "reply_variants" using gin ("words" gin_trgm_ops)`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    version: () => p.manyToOne(ReplyVersion).deleteRule("cascade"),
    language: p.text(),
    fallback: p.boolean(),
    title: p.text().nullable(),
    /** In text form. */
    subject: p.text().nullable(),
    document: p.json<Doc>(),
    /** Title, tags, subject and text without placeholders, for searching. */
    words: p.text(),
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
    file: () => p.manyToOne(StoredFile),
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
  },
});

/** A value of a house fact, from a date on. The latest that has begun holds. */
export const HouseFactValue = defineEntity({
  name: "HouseFactValue",
  tableName: "house_fact_values",
  uniques: [{ properties: ["fact", "validFrom"] }],
  properties: {
    id: p.integer().primary(),
    fact: () => p.manyToOne(HouseFact).deleteRule("cascade"),
    value: p.json<Detail>(),
    validFrom: p.datetime(),
    person: () => p.manyToOne(Person).nullable(),
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
    document: p.json<Doc>(),
  },
});

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
  },
});
