import type { EntityManager } from "@mikro-orm/postgresql";
import { topicsOf } from "../cases/topics";
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
    topicsOf(em),
  ]);
  return { people, topics };
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
