import type { EntityManager } from "@mikro-orm/postgresql";
import { ReplyEvent } from "../db/entities/library";
import { query } from "../db/sql";
import type { Viewer } from "../people/viewer";

/** What became of a reply beside its words. `at` is an ISO 8601 instant. */
export interface ReplyEventRow {
  id: number;
  /** As in `moved to On board`. */
  words: string;
  person: string | null;
  at: string;
}

/** Notes what a person did with some replies; part of the caller's transaction. */
export async function noteEvents(
  em: EntityManager,
  viewer: Viewer,
  replyIds: number[],
  words: string,
  now: Date,
): Promise<void> {
  await query(
    em,
    `insert into reply_events (reply_id, person_id, at, words) select id, ?, ?, ? from unnest(?::int[]) id`,
    [viewer.id, now, words, replyIds],
  );
}

const MOST = 200;

/** What became of a reply, the latest first. */
export async function eventsOf(em: EntityManager, replyId: number): Promise<ReplyEventRow[]> {
  const found = await em.find(
    ReplyEvent,
    { reply: replyId },
    { populate: ["person"], orderBy: { at: "desc", id: "desc" }, limit: MOST },
  );
  return found.map(({ id, words, person, at }) => ({
    id,
    words,
    person: person?.name ?? null,
    at: at.toISOString(),
  }));
}
