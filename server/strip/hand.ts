import type { EntityManager } from "@mikro-orm/postgresql";
import { accessParameters } from "../access/replies";
import { USABLE_SHELF } from "../db/access-rule";
import { named, prepared } from "../db/sql";
import type { Viewer } from "../people/viewer";

/** Why a reply is at a person's hand: they keep it within reach, or sent it lately. */
export type AtHand = "within reach" | "used lately";

/** So many of the replies that were sent last are at hand. */
const LATELY = 4;
/** They are looked for among so many of the person’s latest letters. */
const LOOKED_AT = 100;

/**
 * The answers that a person has at hand for a channel: what they keep within reach, in their order, then what they sent in
 * the last sixty days, the latest first.
 * @returns why each is, by key, in that order
 */
export async function atHand(
  em: EntityManager,
  viewer: Viewer,
  channel: string,
): Promise<ReadonlyMap<string, AtHand>> {
  const usable = `r.part = 'answer' and r.state = 'shelved' and :channel = any(r.channels) and ${USABLE_SHELF}`;
  const rows = await prepared<{ key: string; pinned: boolean }>(
    em,
    ...named(
      `(select r.key, true as pinned, row_number() over (order by n.position) as at
          from reply_pins n join replies r on r.id = n.reply_id join shelves s on s.id = r.shelf_id
         where n.person_id = :person and ${usable})
       union all
       (select r.key, false, row_number() over (order by max(lr.at) desc)
          from (select id from sent_letters where person_id = :person and created_at > now() - interval '60 days'
                 order by created_at desc limit ${LOOKED_AT}) l
          join letter_replies lr on lr.letter_id = l.id
          join replies r on r.id = lr.reply_id join shelves s on s.id = r.shelf_id
         where ${usable}
         group by r.key order by max(lr.at) desc limit ${LATELY})
       order by pinned desc, at`,
      { ...accessParameters(viewer), channel },
    ),
  );
  const hand = new Map<string, AtHand>();
  for (const { key, pinned } of rows)
    if (!hand.has(key)) hand.set(key, pinned ? "within reach" : "used lately");
  return hand;
}
