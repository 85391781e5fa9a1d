import { readFile } from "node:fs/promises";
import { resolve } from "node:path";
import type { EntityManager } from "@mikro-orm/postgresql";
import { Ranker, type PastInquiry, type RankedText } from "#core/ranking/ranker";
import { WordVectors } from "#core/ranking/vectors";
import { query } from "../db/sql";
import { caseNumber, findHouse } from "../house";
import { log } from "../log";

/** The word vectors that ship with the program; the processes run in its folder. */
const VECTORS = resolve("core/ranking/english.vec");
/** So many of the latest answers are learned from at the start. */
const MOST_ANSWERS = 200_000;

interface Known {
  ranker: Ranker;
  /** What the library was like when the ranker read it. */
  library: string;
  /** The last answer that was learned. */
  answer: number;
}

/** What each database's ranker knows; one a process, but for tests. */
const rankers = new WeakMap<object, { known: Known | null; reading: Promise<Known> | null }>();
let vectors: Promise<WordVectors> | null = null;

/**
 * The ranker over the house's answers on the shelves, with everything learned that any process has sent until now.
 * The first call reads the database; after a change of the library, what was known serves until it is read again.
 */
export async function houseRanker(em: EntityManager): Promise<Ranker> {
  const connection = em.getDriver();
  const state = rankers.get(connection) ?? { known: null, reading: null };
  rankers.set(connection, state);
  const library = await libraryNow(em);
  if (state.known?.library !== library && !state.reading) {
    state.reading = readAll(em.fork({ useContext: false }), library).finally(() => {
      state.reading = null;
    });
    state.reading.then(
      (known) => (state.known = known),
      (error: unknown) =>
        log.error({
          event: "ranking could not be read",
          error: error instanceof Error ? error.message : String(error),
        }),
    );
  }
  const known = state.known ?? (await state.reading);
  if (!known) throw new Error("There is neither a ranker nor one being read");
  await learnNew(em, known);
  return known.ranker;
}

/** Tells apart states of the library: anything published, filed, retired or added makes another. */
async function libraryNow(em: EntityManager): Promise<string> {
  const [row] = await query<{ state: string }>(
    em,
    `select concat_ws(' ', count(*), count(*) filter (where state = 'shelved'), sum(current_version_id), max(updated_at)) as state from replies`,
  );
  return row?.state ?? "";
}

async function readAll(em: EntityManager, library: string): Promise<Known> {
  vectors ??= readFile(VECTORS).then((bytes) => new WordVectors(bytes));
  const replies = await query<RankedText>(
    em,
    `select r.key as id, r.title, r.tags, r.channels,
            (select string_agg(t.words, E'\\n') from reply_variants t where t.version_id = r.current_version_id) as body
       from replies r where r.state = 'shelved' and r.part = 'answer' order by r.id`,
  );
  const answers = await answersAfter(em, 0);
  const past = answers.map(({ answer: _answer, ...one }) => one);
  return {
    ranker: new Ranker(
      replies.map((reply) => ({ ...reply, body: reply.body ?? "" })),
      past,
      await vectors,
    ),
    library,
    answer: answers.at(-1)?.answer ?? 0,
  };
}

async function learnNew(em: EntityManager, known: Known): Promise<void> {
  const since = known.answer;
  for (const { answer, ...past } of await answersAfter(em, since)) {
    // Another request may have learned it while this one read.
    if (answer <= known.answer) continue;
    known.answer = answer;
    known.ranker.learn(past);
  }
}

/** Answers after one, the oldest first: what was asked last before each, and the reply that was sent. */
async function answersAfter(
  em: EntityManager,
  answer: number,
): Promise<(PastInquiry & { answer: number })[]> {
  const rows = await query<{
    answer: number;
    number: number;
    reply: string;
    channel: string;
    subject: string | null;
    body: string | null;
  }>(
    em,
    `select u.id as answer, c.number, r.key as reply, asked.channel, asked.subject, asked.text as body
       from (select * from letter_replies where id > ? order by id desc limit ${MOST_ANSWERS}) u
       join replies r on r.id = u.reply_id and r.part = 'answer' join sent_letters l on l.id = u.letter_id
       join messages sent on sent.id = l.message_id join cases c on c.id = l.case_id
       join lateral (select m.channel, m.subject, m.text from messages m
          where m.case_id = l.case_id and m.direction = 'in' and m.at <= sent.at order by m.at desc, m.id desc limit 1) asked on true
      order by u.id`,
    [answer],
  );
  // Mostly there is nothing new.
  if (rows.length === 0) return [];
  const house = await findHouse(em);
  return rows.map(({ number, subject, body, ...row }) => ({
    ...row,
    id: caseNumber(house, number),
    subject: subject ?? "",
    body: body ?? "",
  }));
}
