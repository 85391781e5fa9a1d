import type { EntityManager } from "@mikro-orm/postgresql";
import { named, prepared } from "../db/sql";
import { caseNumber } from "../house/house";
import type { Settings } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { accessParameters } from "../access/replies";
import { USABLE_SHELF } from "../db/access-rule";
import { bestReplies } from "./best";

/** How a colleague answered what is much the same. Times are ISO 8601 instants. */
export interface RecentAnswer {
  number: number;
  label: string;
  person: string;
  at: string;
  /** What was sent there. */
  reply: { key: string; title: string };
  sameCustomer: boolean;
}

interface RecentLetter {
  number: number;
  person: string;
  at: string;
  key: string;
  title: string;
  same_customer: boolean;
}

/** So many recent letters are compared with, and so many of the latest looked at for them. */
const MOST = 40;
const LOOKED_AT = 80;

/** The latest letters of colleagues on the cases that are meant. */
function latestLetters(which: string): string {
  return `select l.id, c.number, l.person_id, l.message_id, l.created_at as at, c.customer_id = :customer as same_customer
       from sent_letters l join cases c on c.id = l.case_id
      where l.created_at between :now::timestamptz - interval '7 days' and :now::timestamptz and c.id <> :case and l.person_id <> :person
        and ${which}
      order by l.created_at desc limit ${LOOKED_AT}`;
}

/**
 * The latest letters of colleagues within a week, on this customer’s cases, or on others of the same topic (or both of none).
 * @returns those to this customer first, then the latest
 */
export async function recentLetters(
  em: EntityManager,
  viewer: Viewer,
  subject: { id: number; customerId: number; topic: string | null },
  now: Date,
): Promise<RecentLetter[]> {
  return prepared<RecentLetter>(
    em,
    // What stands on a shelf that the viewer may not use is not told, not even by its title.
    ...named(
      // Each half stops at its latest letters: a busy week is not read to its end.
      `with latest as materialized (
         (${latestLetters("c.customer_id = :customer")}) union (${latestLetters("c.topic is not distinct from :topic")})
       )
       select latest.number, p.name as person, latest.at, used.key, used.title, latest.same_customer
         from latest join people p on p.id = latest.person_id join messages m on m.id = latest.message_id and m.state not in ('called back', 'refused')
         join lateral (select r.key, r.title from letter_replies u join replies r on r.id = u.reply_id join shelves s on s.id = r.shelf_id
            where u.letter_id = latest.id and r.part = 'answer' and ${USABLE_SHELF} order by u.position limit 1) used on true
        order by same_customer desc, at desc limit ${MOST}`,
      {
        ...accessParameters(viewer),
        customer: subject.customerId,
        case: subject.id,
        topic: subject.topic,
        now: now.toISOString(),
      },
    ),
  );
}

/**
 * How a colleague answered what is much the same: where the same reply fits both inquiries best. One who answered with
 * another reply than that goes first. Two customers should not hear two things.
 * @param letters as `recentLetters` has them
 * @param channel on which the case is answered
 * @param best the reply that fits it best
 */
export async function recentAnswer(
  em: EntityManager,
  viewer: Viewer,
  letters: RecentLetter[],
  channel: string,
  best: string,
  house: Settings["house"],
): Promise<RecentAnswer | null> {
  if (letters.length === 0) return null;
  // Asked here and now, wherever it came in.
  const fitting = await bestReplies(
    em,
    viewer,
    letters.map(({ number }) => ({ number, channel })),
  );
  const close = letters.filter(({ number }) => {
    const reply = fitting[number]?.reply;
    return reply?.key === best && reply.fit >= ALIKE;
  });
  const found = close.find((letter) => letter.key !== best) ?? close[0];
  if (!found) return null;
  return {
    number: found.number,
    label: caseNumber(house, found.number),
    person: found.person,
    at: new Date(found.at).toISOString(),
    reply: { key: found.key, title: found.title },
    sameCustomer: found.same_customer,
  };
}

/** An inquiry asks the same where the same reply is at least likely for it. */
const ALIKE = 0.35;
