import type { EntityManager } from "@mikro-orm/postgresql";
import { named, query } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { asks, USABLE_SHELF } from "./access";

/** Out of season a reply is not offered; searched for, it is found and says so. */
export const IN_SEASON = `(r.season_from is null or r.season_from <= current_date) and (r.season_until is null or r.season_until >= current_date)`;

/** How many replies a viewer may use on a channel now. */
export async function countUsable(em: EntityManager, viewer: Viewer, channel: string): Promise<number> {
  const [counted] = await query<{ total: number }>(
    em,
    ...named(
      `select count(*)::int as total from replies r join shelves s on s.id = r.shelf_id
        where r.state = 'shelved' and :channel = any(r.channels) and ${IN_SEASON} and ${USABLE_SHELF}`,
      { ...asks(viewer), channel },
    ),
  );
  return counted?.total ?? 0;
}

/** The answers that a viewer may use on a channel now, by key. */
export async function usableAnswers(
  em: EntityManager,
  viewer: Viewer,
  channel: string,
): Promise<Set<string>> {
  const usable = await query<{ key: string }>(
    em,
    ...named(
      `select r.key from replies r join shelves s on s.id = r.shelf_id
        where r.state = 'shelved' and r.part = 'answer' and :channel = any(r.channels) and ${IN_SEASON} and ${USABLE_SHELF}`,
      { ...asks(viewer), channel },
    ),
  );
  return new Set(usable.map((row) => row.key));
}
