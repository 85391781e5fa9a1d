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

interface Row {
  number: number;
  person: string;
  at: string;
  key: string;
  title: string;
  same_customer: boolean;
}

/** So many recent letters are compared with. */
const MOST = 40;

/**
 * How a colleague answered this customer, or another on the same topic (or both on none), within a week, where the same reply fits both
 * inquiries best; one who answered with another reply than that goes first. Two customers should not hear two things.
 * @param best the reply that fits this case best
 */
export async function recentAnswer(
  em: EntityManager,
  viewer: Viewer,
  subject: { id: number; customerId: number; topic: string | null; channel: string },
  best: string,
  house: Settings["house"],
  now: Date,
): Promise<RecentAnswer | null> {
  const letters = await prepared<Row>(
    em,
    // What stands on a shelf that the viewer may not use is not told, not even by its title.
    ...named(
      `select c.number, p.name as person, l.created_at as at, used.key, used.title, c.customer_id = :customer as same_customer
         from sent_letters l join cases c on c.id = l.case_id join people p on p.id = l.person_id
         join messages m on m.id = l.message_id and m.state not in ('called back', 'refused')
         join lateral (select r.key, r.title from letter_replies u join replies r on r.id = u.reply_id join shelves s on s.id = r.shelf_id
            where u.letter_id = l.id and r.part = 'answer' and ${USABLE_SHELF} order by u.position limit 1) used on true
        where l.created_at between :now::timestamptz - interval '7 days' and :now::timestamptz and c.id <> :case and l.person_id <> :person
          and (c.customer_id = :customer or c.topic is not distinct from :topic)
        order by same_customer desc, l.created_at desc limit ${MOST}`,
      {
        ...accessParameters(viewer),
        customer: subject.customerId,
        case: subject.id,
        topic: subject.topic,
        now: now.toISOString(),
      },
    ),
  );
  if (letters.length === 0) return null;
  // Asked here and now, wherever it came in.
  const fitting = await bestReplies(
    em,
    viewer,
    letters.map(({ number }) => ({ number, channel: subject.channel })),
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
