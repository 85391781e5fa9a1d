import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import { Case } from "./cases";
import { Person } from "./people";

/** A talk in a customer's chat window. Its pieces are messages of its case. */
export const Chat = defineEntity({
  name: "Chat",
  tableName: "chats",
  indexes: [
    {
      name: "chats_going_on",
      expression: `create index "chats_going_on" on "chats" ("state") where "state" <> 'ended'`,
    },
  ],
  properties: {
    id: p.integer().primary(),
    case: () => p.manyToOne(Case).deleteRule("cascade").index(),
    /** SHA-256 of the token that the window shows; the token itself is stored nowhere. */
    tokenHash: p.string().length(64).unique(),
    state: p.enum(["waiting", "open", "ended"]),
    /** Who of us is there. */
    person: () => p.manyToOne(Person).nullable().deleteRule("set null").index(),
    /** What the customer says of themselves; nobody has looked whether it is so. */
    name: p.text().nullable(),
    email: p.text().nullable(),
    /** The page that the window stands on. */
    page: p.text().nullable(),
    /** How many pieces there are: the number of the latest. */
    pieces: p.integer().default(0),
    /** Up to which piece we have read. */
    readTo: p.integer().default(0),
    /** Up to which piece the window has all, and the customer has read. */
    gotTo: p.integer().default(0),
    seenTo: p.integer().default(0),
    openedAt: p.datetime(),
    /** Since when it waits at the door, or for an answer; null where it does not. */
    waitingSince: p.datetime().nullable(),
    takenAt: p.datetime().nullable(),
    /** When something was said last, by anybody. */
    saidAt: p.datetime(),
    /** When the window was heard of last. */
    seenAt: p.datetime(),
    endedAt: p.datetime().nullable(),
    endedBy: p.enum(["customer", "agent", "silence"]).nullable(),
    /** Where the whole talk went by mail. */
    mailedTo: p.text().nullable(),
  },
});
export type Chat = InferEntity<typeof Chat>;
