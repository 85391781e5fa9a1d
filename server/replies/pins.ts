import type { EntityManager } from "@mikro-orm/postgresql";
import { ReplyPin } from "../db/entities/library";
import { named, preparedOne, query } from "../db/sql";
import { Conflict } from "../errors";
import type { Viewer } from "../people/viewer";
import { accessParameters, findReply } from "../access/replies";
import { USABLE_SHELF } from "../db/access-rule";
import { TO_CHECK } from "./history";
import { t } from "../words";

/** A reply as short lists name it. */
export interface NamedReply {
  key: string;
  title: string;
  mark: string;
  shelf: string;
}

/** The replies that a viewer keeps within reach, in their order; those that they may not use any more are left out. */
export async function withinReach(em: EntityManager, viewer: Viewer): Promise<NamedReply[]> {
  return query<NamedReply>(em, ...named(WITHIN_REACH, accessParameters(viewer)));
}

const WITHIN_REACH = `select r.key, r.title, s.mark, s.name as shelf from reply_pins n
         join replies r on r.id = n.reply_id join shelves s on s.id = r.shelf_id
        where n.person_id = :person and r.state <> 'retired' and ${USABLE_SHELF} order by n.position, r.title`;

/** How many of the replies that were sent last are told of. */
const LATELY = 8;

/** What stands beside the list of replies. */
export interface BesideList {
  /** What the viewer keeps within reach, in their order. */
  reach: NamedReply[];
  /** The replies that they sent last, the latest first. */
  recentlyUsed: NamedReply[];
  /** How many proposals wait for them; none wait for who may not publish. */
  proposals: number;
  /** Who may look after a reply, by name. */
  owners: { id: number; name: string }[];
}

/** Reads what stands beside the list of replies, in one. */
export async function besideList(em: EntityManager, viewer: Viewer): Promise<BesideList> {
  return preparedOne<BesideList>(
    em,
    ...named(
      `select (select coalesce(jsonb_agg(x), '[]') from (${WITHIN_REACH}) x) as reach,
              (select coalesce(jsonb_agg(x), '[]') from (
                 select r.key, r.title, s.mark, s.name as shelf from (
                   select lr.reply_id, max(lr.at) as at from sent_letters l join letter_replies lr on lr.letter_id = l.id
                    where l.person_id = :person and lr.at > now() - interval '60 days' group by lr.reply_id
                 ) used join replies r on r.id = used.reply_id join shelves s on s.id = r.shelf_id
                  where r.part = 'answer' and r.state = 'shelved' and ${USABLE_SHELF} order by used.at desc limit ${LATELY}) x) as "recentlyUsed",
              ${TO_CHECK} as proposals,
              (select coalesce(jsonb_agg(jsonb_build_object('id', id, 'name', name) order by name), '[]') from people where active) as owners`,
      accessParameters(viewer),
    ),
  );
}

/** Keeps a reply within reach, last in the order; or no longer. @throws NotFound */
export async function setPin(em: EntityManager, viewer: Viewer, key: string, pinned: boolean): Promise<void> {
  const reply = await findReply(em, viewer, key);
  const pin = { person: viewer.id, reply: reply.id };
  if (!pinned) {
    await em.nativeDelete(ReplyPin, pin);
    return;
  }
  const last = await em.findOne(ReplyPin, { person: viewer.id }, { orderBy: { position: "desc" } });
  await em.upsert(
    ReplyPin,
    { ...pin, position: (last?.position ?? 0) + 1 },
    { onConflictFields: ["person", "reply"], onConflictAction: "ignore" },
  );
}

/** Puts what is within reach into an order. @param keys all of it @throws Conflict when something came or went */
export async function orderPins(em: EntityManager, viewer: Viewer, keys: string[]): Promise<void> {
  await em.transactional(async (inner) => {
    const known = await withinReach(inner, viewer);
    if (known.length !== new Set(keys).size || known.some((one) => !keys.includes(one.key)))
      throw new Conflict(t("whatIsWithinReachWasChanged"));
    await query(
      inner,
      `update reply_pins n set position = o.position from replies r
         join unnest(?::text[]) with ordinality as o(key, position) on o.key = r.key
        where n.reply_id = r.id and n.person_id = ?`,
      [keys, viewer.id],
    );
  });
}
