import type { EntityManager } from "@mikro-orm/postgresql";
import { ARRIVAL, type Trigger } from "#core/standing/occasion";
import { named, query } from "../db/sql";
import { INCOMING, INCOMING_FROM, type IncomingRow } from "./incoming";

/** What happened in the past that a rule would have been asked of. Times are as the driver has them. */
export interface PastOccasion {
  message: number;
  /** When it happened; of a silence, when it began. */
  at: string;
  /** The state or topic that the case came into; null for none. */
  into: string | null;
}

/** Of a message of ours that a person wrote, by mail or as a short message. */
const OUR_LETTER = (name: string) =>
  `${name}.direction = 'out' and ${name}.kind = 'message' and ${name}.state <> 'called back' and ${name}.channel <> 'chat'`;
/** The message by which a case is read at an instant. */
const LATEST = (caseId: string, at: string) =>
  `join lateral (select h.id from messages h where h.case_id = ${caseId} and h.at <= ${at} and h.kind <> 'pressed' and h.state <> 'called back'
      order by h.direction = 'in' desc, h.at desc, h.id desc limit 1) h on true`;

/** What a rule is asked of, in SQL: the latest first. */
function occasionsIn(trigger: Trigger): string {
  switch (trigger.on) {
    case "arrival":
      return `select m.id as message, m.at, null as "into" from messages m where m.direction = 'in' and m.kind <> 'pressed' order by m.at desc, m.id desc`;
    case "silence":
      return trigger.of === "customer"
        ? `select h.id as message, o.at, null as "into" from messages o ${LATEST("o.case_id", "o.at")}
            where ${OUR_LETTER("o")} and o.at <= :now::timestamptz - :long::interval
              and not exists (select 1 from messages n where n.case_id = o.case_id and n.at > o.at and n.at <= o.at + :long::interval
                and (n.direction = 'in' or ${OUR_LETTER("n")}))
            order by o.at desc, o.id desc`
        : `select m.id as message, m.at, null as "into" from messages m
            where m.direction = 'in' and m.kind = 'message' and m.channel <> 'chat' and m.at <= :now::timestamptz - :long::interval
              and not exists (select 1 from messages o where o.case_id = m.case_id and ${OUR_LETTER("o")} and o.at > m.at and o.at <= m.at + :long::interval)
              and not exists (select 1 from messages e where e.case_id = m.case_id and e.direction = 'in' and e.kind = 'message' and e.at < m.at
                and not exists (select 1 from messages o where o.case_id = m.case_id and ${OUR_LETTER("o")} and o.at > e.at and o.at < m.at))
            order by m.at desc, m.id desc`;
    case "state":
      return `select h.id as message, s.at, s.status as "into" from case_states s ${LATEST("s.case_id", "s.at")}
          where (cardinality(:into::text[]) = 0 or s.status = any(:into::text[]))
            and exists (select 1 from case_states e where e.case_id = s.case_id and e.id < s.id)
          order by s.at desc, s.id desc`;
    case "topic":
    case "owner":
      return `select h.id as message, k.at, a.after ->> 'topic' as "into" from case_changes k
            join lateral (select a as after from jsonb_array_elements(k.data -> 'after') a where (a ->> 'case')::int = k.case_id limit 1) a on true
            ${LATEST("k.case_id", "k.at")}
          where k.kind = :kind and k.undone_at is null and (:kind = 'topic' or jsonb_typeof(a.after -> 'assignee') = 'number')
            and (cardinality(:into::text[]) = 0 or a.after ->> 'topic' = any(:into::text[]))
          order by k.at desc, k.id desc`;
  }
}

/** The latest that a rule would have been asked of, the oldest first. @param most so many */
export function pastOccasions(
  em: EntityManager,
  trigger: Trigger | null,
  most: number,
  now: Date,
): Promise<PastOccasion[]> {
  const asked = trigger ?? ARRIVAL;
  const into = asked.on === "state" || asked.on === "topic" ? asked.into : [];
  return query<PastOccasion>(
    em,
    ...named(`select * from (${occasionsIn(asked)} limit :most) p order by p.at, p.message`, {
      most,
      now,
      long: asked.on === "silence" ? `${asked.hours} hours` : "0 hours",
      into,
      kind: asked.on === "topic" ? "topic" : "assigned",
    }),
  );
}

/** A message of the past as rules read it, and how a person answered after what happened. */
export interface PastRow extends IncomingRow {
  customer_name: string;
  answered_by: string | null;
  answer: string | null;
  keys: string[] | null;
  titles: string[] | null;
}

/** So much of an answer is shown, in characters. */
export const SHOWN = 600;

const REPLIES = (what: string) =>
  `(select array_agg(r.${what} order by lr.position) from letter_replies lr join replies r on r.id = lr.reply_id and r.part = 'answer' where lr.letter_id = s.id)`;

/**
 * Reads messages as rules would have, one for each of what happened, in its order.
 * @param isSilence whether only what a person wrote before the customer did is an answer to it
 */
export function readPast(
  em: EntityManager,
  occasions: readonly { message: number; at: string }[],
  isSilence: boolean,
): Promise<PastRow[]> {
  return query<PastRow>(
    em,
    ...named(
      `select ${INCOMING}, cu.display_name as customer_name, l.name as answered_by, l.text as answer, l.keys, l.titles
         from unnest(:messages::int[], :ats::timestamptz[]) with ordinality q (message, happened, place)
         join (${INCOMING_FROM}) on m.id = q.message
         left join lateral (
           select p.name, left(o.text, ${SHOWN}) as text, ${REPLIES("key")} as keys, ${REPLIES("title")} as titles
             from messages o left join sent_letters s on s.message_id = o.id left join people p on p.id = o.person_id
            where o.case_id = m.case_id and o.direction = 'out' and o.kind = 'message' and o.state <> 'called back' and o.at > q.happened
              and not (:strict and exists (select 1 from messages n where n.case_id = m.case_id and n.direction = 'in' and n.at > q.happened and n.at < o.at))
            order by o.at, o.id limit 1) l on true
        order by q.place`,
      {
        messages: occasions.map(({ message }) => message),
        ats: occasions.map(({ at }) => new Date(at).toISOString()),
        strict: isSilence,
      },
    ),
  );
}
