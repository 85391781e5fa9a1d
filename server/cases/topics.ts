import type { EntityManager } from "@mikro-orm/postgresql";
import { prepared } from "../db/sql";

/** All topics that cases have, in their order. */
export async function topicsOf(em: EntityManager): Promise<string[]> {
  // From one topic to the next by the index: however many cases there are, topics are few.
  const rows = await prepared<{ topic: string }>(
    em,
    `with recursive known as (
       (select topic from cases where topic is not null order by topic limit 1)
       union all
       select (select topic from cases where topic > known.topic order by topic limit 1) from known where known.topic is not null)
     select topic from known where topic is not null`,
  );
  return rows.map((row) => row.topic);
}

/** Most that are offered at once. */
const MOST_FOUND = 20;

/** Topics that have in them what is typed. */
export async function findTopics(em: EntityManager, text: string): Promise<string[]> {
  const wanted = text.trim().toLowerCase();
  const topics = await topicsOf(em);
  return topics.filter((topic) => topic.toLowerCase().includes(wanted)).slice(0, MOST_FOUND);
}
