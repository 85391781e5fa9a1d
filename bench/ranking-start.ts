import { setTimeout } from "node:timers/promises";
import type { EntityManager } from "@mikro-orm/postgresql";
import { query } from "#server/db/sql";
import { HouseRanker } from "#server/ranking/house-ranker";
import { onDemoDatabase } from "./database";
import { madeLibrary, type MadeLibrary } from "./made-library";
import { percentiles } from "./measure";

const REPLIES = 5000;
const PAST = 200_000;
const ASKED = 200;
const BATCH = 5000;
/** Between two questions that are asked while history is read. */
const EVERY_MS = 200;

/**
 * Starts the ranker of a process on a database with 5,000 replies and 200,000 letters: how long until it answers at all,
 * how long until it knows everything, and how long questions take meanwhile and afterwards.
 */
export async function benchRankingStart(): Promise<object> {
  return onDemoDatabase(async (em, url) => {
    const library = madeLibrary({ replies: REPLIES, past: PAST, asked: ASKED });
    await fill(em(), library);
    return measure(url, library);
  }, new Date());
}

/** Puts made replies and letters beside those of the demo. */
async function fill(em: EntityManager, { replies, past }: MadeLibrary): Promise<void> {
  const column = <Row>(rows: Row[], value: (row: Row) => unknown) => rows.map(value);
  await query(
    em,
    `with made as (select * from unnest(?::text[], ?::text[], ?::text[]) as t(key, title, words)),
     r as (insert into replies (key, shelf_id, title, part, state, channels)
       select key, (select min(id) from shelves), title, 'answer', 'shelved', '{email}' from made returning id, key, title),
     v as (insert into reply_versions (reply_id, title, number, state, blanks, passages)
       select id, title, 1, 'published', '{}', '[]' from r returning id, reply_id)
     insert into reply_variants (version_id, language, fallback, document, words)
       select v.id, 'en', true, '{"type":"doc","content":[]}', made.words from v join r on r.id = v.reply_id join made on made.key = r.key`,
    [
      column(replies, (one) => one.id),
      column(replies, (one) => one.title),
      column(replies, (one) => one.body),
    ],
  );
  await query(
    em,
    "update replies set current_version_id = v.id from reply_versions v where v.reply_id = replies.id and current_version_id is null",
  );
  const [start] = await query<{ number: number; message: number; letter: number }>(
    em,
    `select (select max(number) from cases) as number, (select max(id) from messages) as message, (select max(id) from sent_letters) as letter`,
  );
  if (!start) throw new Error("The demo has no cases");
  for (let begin = 0; begin < past.length; begin += BATCH) {
    const batch = past.slice(begin, begin + BATCH);
    await query(
      em,
      `with made as (select ${start.number} + ${begin} + n as number, body, key from unnest(?::text[], ?::text[]) with ordinality as t(body, key, n)),
       c as (insert into cases (number, channel, subject, status, customer_id, team_id, opened_at)
         select number, 'email', '', 'settled', (select min(id) from customers), (select min(id) from teams), now() from made returning id, number),
       asked as (insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, at)
         select c.id, 'in', 'email', 'received', 'a@example.org', 'b@example.org', '', made.body, now() - interval '1 hour' from made join c using (number)),
       sent as (insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, at)
         select c.id, 'out', 'email', 'sent', 'b@example.org', 'a@example.org', '', '', now() from c returning id, case_id),
       l as (insert into sent_letters (message_id, case_id, person_id, language, subject, slips, trace, checks)
         select sent.id, sent.case_id, (select min(id) from people), 'en', '{}', '[]', '[]', '[]' from sent returning id, case_id)
       insert into letter_replies (letter_id, reply_id, position, at)
         select l.id, r.id, 0, now() from l join c on c.id = l.case_id join made using (number) join replies r on r.key = made.key`,
      [column(batch, (one) => one.body), column(batch, (one) => one.reply)],
    );
  }
  await query(em, "analyze");
}

async function measure(url: string, { asked }: MadeLibrary): Promise<object> {
  const began = performance.now();
  const seconds = () => Math.round((performance.now() - began) / 100) / 10;
  const ranker = new HouseRanker(url);
  // A ranker's thread holds no process up; this one is to wait for it.
  const alive = setInterval(() => undefined, 1000);
  const during: number[] = [];
  const after: number[] = [];
  let withoutAnswer = 0;
  let right = 0;
  const ask = async (index: number, times: number[]) => {
    const one = asked[index % asked.length];
    if (!one) return;
    const start = performance.now();
    const rankings = await ranker.rank([{ inquiry: one, asking: { top: 60 } }]);
    times.push(performance.now() - start);
    if (rankings === null) withoutAnswer += 1;
    else if (rankings[0]?.fits[0]?.id === one.reply) right += 1;
  };
  let secondsToFirst = 0;
  let isReady = false;
  const ready = ranker.ready().then(() => (isReady = true));
  for (let index = 0; !isReady; index += 1) {
    await ask(index, during);
    if (secondsToFirst === 0 && during.length > withoutAnswer) secondsToFirst = seconds();
    await Promise.race([ready, setTimeout(EVERY_MS)]);
  }
  const secondsToReady = seconds();
  right = 0;
  for (let index = 0; index < asked.length; index += 1) await ask(index, after);
  await ranker.stop();
  clearInterval(alive);
  return {
    bench: "ranking-start",
    replies: REPLIES,
    letters: PAST,
    secondsToFirst,
    secondsToReady,
    asked: { meanwhile: during.length, withoutAnswer },
    milliseconds: { meanwhile: percentiles(during), afterwards: percentiles(after) },
    firstOf100: Math.round((100 * right) / ASKED),
  };
}
