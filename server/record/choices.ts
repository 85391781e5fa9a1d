import type { EntityManager } from "@mikro-orm/postgresql";
import { accessParameters } from "../access/replies";
import { READABLE_REPLY } from "../db/access-rule";
import { holding, named, prepared, query } from "../db/sql";
import type { Viewer } from "../people/viewer";

/** What the record can be narrowed by. */
export interface RecordChoices {
  /** Whoever works or worked here. */
  people: { id: number; name: string }[];
  topics: string[];
}

/** All that the record can be narrowed by, in the order of names. */
export async function recordChoices(em: EntityManager): Promise<RecordChoices> {
  const [people, topics] = await Promise.all([
    prepared<{ id: number; name: string }>(em, "select id, name from people order by name, id"),
    // From one topic to the next by the index: however many cases there are, topics are few.
    prepared<{ topic: string }>(
      em,
      `with recursive known as (
         (select topic from cases where topic is not null order by topic limit 1)
         union all
         select (select topic from cases where topic > known.topic order by topic limit 1) from known where known.topic is not null)
       select topic from known where topic is not null`,
    ),
  ]);
  return { people, topics: topics.map((row) => row.topic) };
}

/** Replies that were sent, retired ones too, by what is typed of their titles. */
export async function findUsedReplies(
  em: EntityManager,
  viewer: Viewer,
  text: string,
): Promise<{ key: string; title: string }[]> {
  return query(
    em,
    ...named(
      `select r.key, r.title from replies r join shelves s on s.id = r.shelf_id
        where ${READABLE_REPLY} and r.title ilike :text and exists (select 1 from letter_replies l where l.reply_id = r.id)
        order by r.title limit 20`,
      { ...accessParameters(viewer), text: holding(text.trim()) },
    ),
  );
}
