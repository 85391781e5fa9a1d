import type { EntityManager } from "@mikro-orm/postgresql";
import { named, preparedOne } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { accessParameters } from "./replies";
import { USABLE_SHELF } from "../db/access-rule";

/** Out of season a reply is not offered; searched for, it is found and says so. */
export const IN_SEASON = `(r.season_from is null or r.season_from <= current_date) and (r.season_until is null or r.season_until >= current_date)`;

/** The replies that a viewer may use on a channel. */
export interface Usable {
  /** The answers among them, by key. */
  answers: Set<string>;
  /** How many there are with openings and closings. */
  total: number;
}

/** What a viewer may use on a channel now. */
export async function usableReplies(em: EntityManager, viewer: Viewer, channel: string): Promise<Usable> {
  // As one text: a row for each would take much longer to read in a large library.
  const { answers, total } = await preparedOne<{ answers: string[]; total: number }>(
    em,
    ...named(
      `select coalesce(json_agg(r.key) filter (where r.part = 'answer'), '[]') as answers, count(*)::int as total
         from replies r join shelves s on s.id = r.shelf_id
        where r.state = 'shelved' and :channel = any(r.channels) and ${IN_SEASON} and ${USABLE_SHELF}`,
      { ...accessParameters(viewer), channel },
    ),
  );
  return { answers: new Set(answers), total };
}
