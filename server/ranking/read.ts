import type pg from "pg";
import type { Inquiry, Outcome, PastInquiry, RankedText } from "#core/ranking/inquiry";
import { latestOfEach } from "#core/ranking/learning/latest";
import { MOST_READ } from "#core/ranking/ranker";

/** So many of the latest answers are learned from at the start. */
const MOST_ANSWERS = 200_000;
/** So many texts are asked for at once. */
const AT_ONCE = 10_000;
/** Letters may be committed in another order than they were numbered: so many are looked at again. */
export const OVERLAP = 200;

/** A reply, and what tells apart its states. */
interface ReplyRow extends RankedText {
  state: string;
}

/** Every answer of the library that was ever published, with what its passages' conditions name: who may use which is asked with each inquiry. */
export async function readReplies(client: pg.Client, but: ReadonlyMap<string, string>): Promise<ReplyRow[]> {
  const states = await client.query<{ id: string; state: string }>(
    `select key as id, concat_ws(' ', current_version_id, updated_at) as state from replies where part = 'answer' and current_version_id is not null order by id`,
  );
  const changed = states.rows.filter(({ id, state }) => but.get(id) !== state).map(({ id }) => id);
  if (changed.length === 0) return [];
  const { rows } = await client.query<ReplyRow>(
    `select r.key as id, r.title, r.tags, r.channels, concat_ws(' ', r.current_version_id, r.updated_at) as state,
            array(select 'topic ' || topic from unnest(r.topics) topic) || case when r.with_booking then array['with a booking'] else '{}' end as marks,
            concat_ws(E'\\n', string_agg(concat_ws(E'\\n', t.title, t.words), E'\\n' order by t.fallback desc, t.language),
              (select string_agg(distinct asked #>> '{}', ' ') from jsonb_path_query(v.passages, '$.**.to[*] ? (@.type() == "string")') asked)) as body,
            coalesce(array_agg(t.language), '{}') as languages
       from replies r join reply_versions v on v.id = r.current_version_id left join reply_variants t on t.version_id = v.id
      where r.key = any($1) group by r.id, v.id order by r.id`,
    [changed],
  );
  return rows;
}

/** A reply that a letter was made of, or one row without a reply where it was written by hand. */
interface AnswerRow {
  letter: number;
  person: number | null;
  team: number;
  reply: string | null;
  rewritten: number | null;
}

interface TextRow extends Known {
  letter: number;
  id: string;
  channel: string;
  subject: string;
  body: string;
}

/** What was sent, as ranking learns it. */
export interface History {
  letters: number[];
  /** The oldest first. */
  past: (PastInquiry & { letter: number })[];
  /** Earlier answers than those, without what was asked. */
  older: Outcome[];
}

/** What a case has beside its words. */
export interface Known {
  topic: string | null;
  booking: boolean;
  /** Its booking's, where the booking system told it. */
  status: string | null;
  attached: boolean;
}

/** The status of the booking of a case `c`. */
export const BOOKING_STATUS = `(select k.data ->> 'status' from case_lookups k where k.case_id = c.id and k.source = 'bookings')`;

/** What is known of a case beside its words, as ranking reads it. */
export function marksOf(known: Known): string[] {
  const marks = known.topic === null ? [] : [`topic ${known.topic}`];
  if (known.booking) marks.push("with a booking");
  if (known.status !== null) marks.push(`booking ${known.status}`);
  if (known.attached) marks.push("with an attachment");
  return marks;
}

/**
 * Letters that were sent and not called back: what was asked last before each, and by which replies it was answered, or
 * that it was by hand.
 * @param since the last letter that is known; a few before it are looked at again
 * @param known letters among those that are not wanted again
 */
export async function readLetters(
  client: pg.Client,
  since: number,
  known: ReadonlySet<number>,
): Promise<History> {
  const from = Math.max(0, since - OVERLAP);
  const { rows } = await client.query<AnswerRow>(
    `select l.id as letter, l.person_id as person, c.team_id as team, u.key as reply, u.rewritten
       from (select id, message_id, case_id, person_id from sent_letters where id > $1 order by id desc limit ${MOST_ANSWERS}) l
       join messages sent on sent.id = l.message_id and sent.state <> 'called back' and sent.kind not in ('notice', 'automatic') join cases c on c.id = l.case_id
       left join (select u.letter_id, u.position, u.rewritten, r.key from letter_replies u join replies r on r.id = u.reply_id and r.part = 'answer') u on u.letter_id = l.id
      order by l.id, u.position`,
    [from],
  );
  const swapped = await readSwapped(client, from);
  const fresh = rows.filter(({ letter }) => !known.has(letter));
  const answers = fresh.map(({ letter, person, rewritten, ...row }, index) => {
    const swaps = fresh[index - 1]?.letter === letter ? undefined : swapped.get(letter);
    return {
      letter,
      outcome: {
        ...row,
        ...(person === null ? {} : { person }),
        ...(rewritten === null ? {} : { rewritten }),
        ...(swaps ? { swapped: swaps } : {}),
      },
      reply: row.reply,
    };
  });
  const wanted = latestOfEach(answers, MOST_READ);
  const texts = await readTexts(client, [...new Set(wanted.map(({ letter }) => letter))]);
  const past = wanted.flatMap(({ letter, outcome }) => {
    const text = texts.get(letter);
    return text ? [{ letter, ...text, ...outcome }] : [];
  });
  const read = new Set(wanted);
  return {
    letters: fresh.map(({ letter }) => letter),
    past,
    older: answers.filter((one) => !read.has(one)).map(({ outcome }) => outcome),
  };
}

/** Those of some letters that were called back. */
export async function readCalledBack(client: pg.Client, letters: number[]): Promise<number[]> {
  if (letters.length === 0) return [];
  const { rows } = await client.query<{ id: number }>(
    `select l.id from sent_letters l join messages m on m.id = l.message_id where l.id = any($1) and m.state = 'called back'`,
    [letters],
  );
  return rows.map(({ id }) => id);
}

/** Replies that were taken first and then swapped for another, by letter. */
async function readSwapped(client: pg.Client, from: number): Promise<Map<number, string[]>> {
  const { rows } = await client.query<{ letter: number; keys: string[] }>(
    `select o.letter_id as letter, array_agg(r.key order by o.id) as keys
       from letter_offers o join replies r on r.id = o.reply_id where o.letter_id > $1 and o.swapped group by o.letter_id`,
    [from],
  );
  return new Map(rows.map(({ letter, keys }) => [letter, keys]));
}

/** What was asked last before each letter, in turns, so that neither side holds too much at once. */
async function readTexts(
  client: pg.Client,
  letters: number[],
): Promise<Map<number, Inquiry & { id: string }>> {
  const texts = new Map<number, Inquiry & { id: string }>();
  for (let at = 0; at < letters.length; at += AT_ONCE) {
    const { rows } = await client.query<TextRow>(
      `select l.id as letter, concat((select case_prefix from house limit 1), '-', c.number) as id, asked.channel, asked.subject, left(asked.text, 8000) as body,
              c.topic, c.booking_reference is not null as booking, ${BOOKING_STATUS} as status, exists (select 1 from attachments a where a.message_id = asked.id) as attached
         from sent_letters l join messages sent on sent.id = l.message_id join cases c on c.id = l.case_id
         join lateral (select m.id, m.channel, m.subject, m.text from messages m
            where m.case_id = l.case_id and m.direction = 'in' and m.at <= sent.at order by m.at desc, m.id desc limit 1) asked on true
        where l.id = any($1)`,
      [letters.slice(at, at + AT_ONCE)],
    );
    for (const { letter, topic, booking, status, attached, ...text } of rows)
      texts.set(letter, { ...text, marks: marksOf({ topic, booking, status, attached }) });
  }
  return texts;
}
