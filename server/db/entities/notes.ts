import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import { Case } from "./cases";
import { Person } from "./people";

/** What colleagues tell each other on a case; it never leaves the house. */
export const Note = defineEntity({
  name: "Note",
  tableName: "notes",
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    person: () => p.manyToOne(Person),
    text: p.text(),
    at: p.datetime(),
  },
});
export type Note = InferEntity<typeof Note>;

/** Somebody whom a note is for. */
export const NoteMention = defineEntity({
  name: "NoteMention",
  tableName: "note_mentions",
  indexes: [
    {
      name: "note_mentions_unseen",
      expression: `create index "note_mentions_unseen" on "note_mentions" ("person_id") where "seen_at" is null`,
    },
  ],
  properties: {
    note: () => p.manyToOne(Note).primary().deleteRule("cascade"),
    person: () => p.manyToOne(Person).primary().deleteRule("cascade"),
    /** When they opened the case; null as long as they have not. */
    seenAt: p.datetime().nullable(),
  },
});
