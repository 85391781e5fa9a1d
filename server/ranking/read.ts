import type pg from "pg";
import type { PastInquiry, RankedText } from "#core/ranking/inquiry";

/** So many of the latest answers are learned from at the start. */
const MOST_ANSWERS = 200_000;
/** Letters may be committed in another order than they were numbered: so many are looked at again. */
export const OVERLAP = 200;

/** A reply, and what tells apart its states. */
interface ReplyRow extends RankedText {
  state: string;
}

/** Every answer of the library that was ever published: who may use which is asked with each inquiry. */
export async function readReplies(client: pg.Client, but: ReadonlyMap<string, string>): Promise<ReplyRow[]> {
  const states = await client.query<{ id: string; state: string }>(
    `select key as id, concat_ws(' ', current_version_id, updated_at) as state from replies where part = 'answer' and current_version_id is not null order by id`,
  );
  const changed = states.rows.filter(({ id, state }) => but.get(id) !== state).map(({ id }) => id);
  if (changed.length === 0) return [];
  const { rows } = await client.query<ReplyRow>(
    `select r.key as id, r.title, r.tags, r.channels, concat_ws(' ', r.current_version_id, r.updated_at) as state,
            case when r.with_booking then array['with a booking'] else '{}' end as marks,
            coalesce(string_agg(concat_ws(E'\\n', t.title, t.words), E'\\n' order by t.fallback desc, t.language), '') as body,
            coalesce(array_agg(t.language), '{}') as languages
       from replies r left join reply_variants t on t.version_id = r.current_version_id
      where r.key = any($1) group by r.id order by r.id`,
    [changed],
  );
  return rows;
}

interface LetterRow {
  letter: number;
  id: string;
  person: number | null;
  team: number;
  channel: string;
  subject: string;
  body: string;
  topic: string | null;
  booking: boolean;
  attached: boolean;
  sent: { reply: string; rewritten: number | null }[];
  swapped: string[];
}

/** What is known of a case beside its words, as ranking reads it. */
export function marksOf(known: { topic: string | null; booking: boolean; attached: boolean }): string[] {
  const marks = known.topic === null ? [] : [`topic ${known.topic}`];
  if (known.booking) marks.push("with a booking");
  if (known.attached) marks.push("with an attachment");
  return marks;
}

/**
 * Letters that were sent and not called back, the oldest first: what was asked last before each, and by which replies it
 * was answered, or that it was by hand.
 * @param since the last letter that is known; a few before it are looked at again
 * @param known letters among those that are not wanted again
 */
export async function readLetters(
  client: pg.Client,
  since: number,
  known: ReadonlySet<number>,
): Promise<{ letter: number; answers: PastInquiry[] }[]> {
  const { rows } = await client.query<LetterRow>(
    `select l.id as letter, concat((select case_prefix from house limit 1), '-', c.number) as id, l.person_id as person, c.team_id as team,
            asked.channel, coalesce(asked.subject, '') as subject, coalesce(asked.text, '') as body, c.topic, c.booking_reference is not null as booking,
            exists (select 1 from attachments a where a.message_id = asked.id) as attached,
            coalesce((select json_agg(json_build_object('reply', r.key, 'rewritten', u.rewritten) order by u.position)
               from letter_replies u join replies r on r.id = u.reply_id and r.part = 'answer' where u.letter_id = l.id), '[]') as sent,
            array(select r.key from letter_offers o join replies r on r.id = o.reply_id where o.letter_id = l.id and o.swapped order by o.id) as swapped
       from (select * from sent_letters where id > $1 order by id desc limit ${MOST_ANSWERS}) l
       join messages sent on sent.id = l.message_id and sent.state <> 'called back' join cases c on c.id = l.case_id
       join lateral (select m.id, m.channel, m.subject, m.text from messages m
          where m.case_id = l.case_id and m.direction = 'in' and m.at <= sent.at order by m.at desc, m.id desc limit 1) asked on true
      order by l.id`,
    [Math.max(0, since - OVERLAP)],
  );
  return rows
    .filter(({ letter }) => !known.has(letter))
    .map(({ letter, id, person, team, channel, subject, body, sent, swapped, ...rest }) => {
      const inquiry = {
        id,
        channel,
        subject,
        body,
        marks: marksOf(rest),
        team,
        ...(person === null ? {} : { person }),
      };
      return {
        letter,
        answers:
          sent.length === 0
            ? [{ ...inquiry, reply: null, swapped }]
            : sent.map(({ reply, rewritten }, index) => ({
                ...inquiry,
                reply,
                swapped: index === 0 ? swapped : [],
                ...(rewritten === null ? {} : { rewritten }),
              })),
      };
    });
}
