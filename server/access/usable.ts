import type { EntityManager } from "@mikro-orm/postgresql";
import type { Part } from "#core/compose/slip";
import { named, prepared } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { accessParameters } from "./replies";
import { USABLE_SHELF } from "../db/access-rule";

/** Out of season a reply is not offered; searched for, it is found and says so. */
export const IN_SEASON = `(r.season_from is null or r.season_from <= current_date) and (r.season_until is null or r.season_until >= current_date)`;

/** A reply that may be used. */
export interface UsableReply {
  key: string;
  part: Part;
}

/** The replies that a viewer may use on a channel now. */
export async function usableReplies(
  em: EntityManager,
  viewer: Viewer,
  channel: string,
): Promise<UsableReply[]> {
  return prepared<UsableReply>(
    em,
    ...named(
      `select r.key, r.part from replies r join shelves s on s.id = r.shelf_id
        where r.state = 'shelved' and :channel = any(r.channels) and ${IN_SEASON} and ${USABLE_SHELF}`,
      { ...accessParameters(viewer), channel },
    ),
  );
}

/** The answers among them, by key. */
export function answersOf(usable: UsableReply[]): Set<string> {
  return new Set(usable.flatMap(({ key, part }) => (part === "answer" ? [key] : [])));
}
