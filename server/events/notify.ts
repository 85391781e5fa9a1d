import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { query } from "../db/sql";

/** Channel of PostgreSQL's LISTEN/NOTIFY. */
export const CHANNEL = "plain_shelf";

/** Something that open screens want to know at once. */
export const eventSchema = z.object({
  /** Number of the case, or null for what concerns the whole queue. */
  case: z.number().int().nullable(),
  kind: z.enum(["message", "presence", "details", "queue", "shelf", "session", "chat", "note"]),
  /** The case that changed in the queue; without it, any may have. */
  changed: z.number().int().optional(),
  /** What happened in a chat, where it is about one. */
  chat: z
    .object({
      id: z.number().int(),
      what: z.enum(["pieces", "typing", "read", "state"]),
      by: z.enum(["us", "them"]),
    })
    .optional(),
  /** The session that has ended, where it is about one. */
  session: z.number().int().optional(),
  /** The person whom it is for, where it is for one. */
  person: z.number().int().optional(),
});
export type LiveEvent = z.infer<typeof eventSchema>;

/** Tells every process about an event, when the transaction commits (at once outside of one). */
export async function notify(em: EntityManager, event: LiveEvent): Promise<void> {
  await query(em, "select pg_notify(?, ?)", [CHANNEL, JSON.stringify(event)]);
}

/** Tells of a change on a case whoever has it open, and the lists that show it. @param kind what changed: its messages and where it stands, or who is on it */
export async function notifyCase(
  em: EntityManager,
  number: number,
  kind: "message" | "presence",
): Promise<void> {
  const events: LiveEvent[] = [
    { case: number, kind },
    { case: null, kind: "queue", changed: number },
  ];
  await query(em, "select pg_notify(?, one) from unnest(?::text[]) one", [
    CHANNEL,
    events.map((event) => JSON.stringify(event)),
  ]);
}
