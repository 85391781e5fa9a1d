import type { EntityManager } from "@mikro-orm/postgresql";
import type { Inquiry } from "#core/ranking/inquiry";
import { prepared } from "../db/sql";
import { BOOKING_STATUS, marksOf, type Known } from "./read";

/** So much of a message is ranked by, in characters; what is asked stands before that. */
const READ = 8000;

interface Row extends Known {
  number: number;
  channel: string;
  subject: string | null;
  body: string | null;
  earlier: string | null;
  language: string | null;
  customer_language: string | null;
}

/**
 * What cases ask, by their numbers: the latest message of each, what the customer wrote before that and nobody answered,
 * and what is known beside the words. Cases without a message from the customer are left out.
 */
export async function inquiriesOf(em: EntityManager, numbers: number[]): Promise<Map<number, Inquiry>> {
  const rows = await prepared<Row>(
    em,
    `select c.number, c.channel, m.subject, left(m.text, ${READ}) as body, m.language, cu.language as customer_language, c.topic, c.booking_reference is not null as booking, ${BOOKING_STATUS} as status,
            exists (select 1 from attachments a where a.message_id = m.id) as attached,
            (select left(string_agg(left(e.text, ${READ}), E'\\n' order by e.at), ${READ}) from messages e
              where e.case_id = c.id and e.direction = 'in' and e.id <> m.id and e.at <= m.at
                and e.at > coalesce((select max(o.at) from messages o where o.case_id = c.id and o.direction = 'out' and o.state <> 'called back'), '-infinity')) as earlier
       from cases c join customers cu on cu.id = c.customer_id
       join lateral (select * from messages m where m.case_id = c.id and m.direction = 'in' order by m.at desc, m.id desc limit 1) m on true
      where c.number = any(?)`,
    [numbers],
  );
  return new Map(
    rows.map((row) => {
      const reads = [...new Set([row.customer_language, row.language].filter((one) => one !== null))];
      const inquiry: Inquiry = {
        channel: row.channel,
        subject: row.subject ?? "",
        body: row.body ?? "",
        marks: marksOf(row),
        ...(row.earlier === null ? {} : { earlier: row.earlier }),
        ...(reads.length === 0 ? {} : { reads }),
      };
      return [row.number, inquiry];
    }),
  );
}
