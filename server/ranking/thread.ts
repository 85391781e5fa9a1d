import { setImmediate } from "node:timers/promises";
import { parentPort, workerData } from "node:worker_threads";
import pg from "pg";
import type { Ranking } from "#core/ranking/inquiry";
import type { Unlearn } from "#core/ranking/knowledge";
import { Ranker } from "#core/ranking/ranker";
import { InvertedIndex } from "#core/search/inverted-index";
import type { About, FindQuestion, Knowledge, Question, RankQuestion, Said, ThreadData } from "./protocol";
import { OVERLAP, readCalledBack, readLetters, readReplies } from "./read";
import { readTerms, WEIGHTS, type ReplyTerms } from "./read-terms";
import { wordVectors } from "./word-vectors";
import { loggable } from "../told";

/**
 * The thread in which finding and ranking live: it reads library and history from the database, answers from what it knows
 * so far while it reads, and learns whatever any process sends or keeps as soon as it is committed.
 */

/** While a ranker is built, questions are answered about this often; single steps may take some times as long. */
const TURN_MS = 10;
/** While somebody types, the same inquiry is asked about again and again: so many rankings are kept. */
const KEPT = 32;

const port = parentPort;
if (!port) throw new Error("Ranking runs in a thread");
const { url } = workerData as ThreadData;
const send = (said: Said) => port.postMessage(said);

const words = new InvertedIndex(WEIGHTS);
let ranker: Ranker | null = null;
const known = new Set<Knowledge>();
/** Questions that came before enough was known. */
const waiting: Question[] = [];
/** By reply: in which state its words were read, and in which it was. */
const termStates = new Map<string, string>();
const replyStates = new Map<string, string>();
let lastLetter = 0;
const recent = new Set<number>();
/** By letter: what takes back what was learned of it, for as long as it may be called back. */
const learned = new Map<number, Unlearn[]>();
/** Rankings as they are until something is learned, by what was asked. */
const kept = new Map<string, Ranking>();

port.on("message", onQuestion);

function onQuestion(question: Question): void {
  if (question.kind === "find" && known.has("words")) answer(question.id, () => find(question));
  else if (question.kind === "rank" && ranker) answer(question.id, () => rank(question));
  else waiting.push(question);
}

function answer(id: number, work: () => Said | Promise<Said>): void {
  void Promise.resolve()
    .then(work)
    .catch((error: unknown): Said => ({ kind: "refused", id, problem: problemOf(error) }))
    .then(send);
}

/** Answers for one inquiry after the other; where there are many, others' questions go between. */
async function rank({ id, asked }: RankQuestion): Promise<Said> {
  const rankings: Ranking[] = [];
  for (const about of asked) {
    if (rankings.length > 0) await setImmediate();
    if (ranker) rankings.push(ranker.rank(about.inquiry, about.asking));
  }
  return { kind: "ranked", id, answer: rankings };
}

/** Finds by words; of much that is found, what fits the inquiry comes along before the rest. */
function find({ id, asked, about }: FindQuestion): Said {
  const ranking = about && rankedBefore(about);
  const fits = new Map(ranking?.fits.map((one) => [one.id, one.fit]));
  return { kind: "found", id, answer: { found: words.find(asked, fits), ranking } };
}

function rankedBefore(about: About): Ranking | null {
  const key = JSON.stringify(about);
  const before = kept.get(key);
  if (before || !ranker) return before ?? null;
  const ranking = ranker.rank(about.inquiry, about.asking);
  const [oldest] = kept.keys();
  if (kept.size >= KEPT && oldest !== undefined) kept.delete(oldest);
  kept.set(key, ranking);
  return ranking;
}

function knows(what: Knowledge): void {
  known.add(what);
  kept.clear();
  for (const question of waiting.splice(0)) onQuestion(question);
  send({ kind: "knows", what });
}

/** Lets something be built in turns with questions. */
async function inTurns<Result>(building: Generator<undefined, Result>): Promise<Result> {
  let began = performance.now();
  for (;;) {
    const step = building.next();
    if (step.done) return step.value;
    if (performance.now() - began < TURN_MS) continue;
    await setImmediate();
    began = performance.now();
  }
}

function* taking(batch: ReplyTerms[]): Generator<undefined, void> {
  for (const { id, terms } of batch) {
    words.put(id, terms);
    yield;
  }
}

async function readWords(client: pg.Client): Promise<void> {
  const { changed, gone } = await readTerms(client, termStates);
  for (const id of gone) words.remove(id);
  for await (const batch of changed) await inTurns(taking(batch));
}

async function readAll(client: pg.Client): Promise<void> {
  recent.clear();
  lastLetter = 0;
  await readWords(client);
  knows("words");
  const vectors = await wordVectors();
  const replies = await readReplies(client, new Map());
  // The database looks for the letters while the replies are read into the ranker.
  const history = readLetters(client, 0, recent);
  // It is awaited below; until then nobody may be waiting.
  history.catch(() => undefined);
  for (const reply of replies) replyStates.set(reply.id, reply.state);
  ranker = await inTurns(Ranker.building(replies, [], vectors));
  knows("replies");
  const { letters, past, older } = await history;
  remember(letters);
  if (past.length > 0) ranker = await inTurns(Ranker.building(replies, past, vectors, older));
  knows("history");
}

/** Reads replies that are new or changed. */
async function readKept(client: pg.Client): Promise<void> {
  await readWords(client);
  for (const reply of await readReplies(client, replyStates)) {
    replyStates.set(reply.id, reply.state);
    ranker?.put(reply);
  }
  kept.clear();
}

/** Reads letters that were sent or called back. */
async function readSent(client: pg.Client): Promise<void> {
  const { letters, past } = await readLetters(client, lastLetter, recent);
  remember(letters);
  for (const { letter, ...one } of past)
    if (ranker) learned.set(letter, [...(learned.get(letter) ?? []), ranker.learn(one)]);
  for (const letter of await readCalledBack(client, [...learned.keys()])) {
    for (const unlearn of learned.get(letter) ?? []) unlearn();
    learned.delete(letter);
  }
  kept.clear();
}

/** What the database tells of, and what is read then. */
const CHANNELS = new Map([
  ["plain_shelf_replies", readKept],
  ["plain_shelf_ranking", readSent],
]);

/** Notes letters that are known, in their order; only those that may be met again are kept. */
function remember(letters: number[]): void {
  lastLetter = Math.max(lastLetter, letters.at(-1) ?? 0);
  for (const letter of letters) if (letter >= lastLetter - 2 * OVERLAP) recent.add(letter);
  for (const old of recent)
    if (old < lastLetter - 2 * OVERLAP) {
      recent.delete(old);
      learned.delete(old);
    }
}

/** Reads and then learns for as long as the connection lasts; what a lost one left half read is read from the beginning. */
async function follow(): Promise<void> {
  const client = new pg.Client({ connectionString: url, keepAlive: true });
  const lost = new Promise<never>((_, reject) => {
    client.on("error", reject);
    client.on("end", () => reject(new Error("the connection ended")));
  });
  // Handled where it is awaited; before that, it must not count as unhandled.
  lost.catch(() => undefined);
  await client.connect();
  let told = (): void => undefined;
  // Whatever was committed before it listened is looked for once.
  const heard = new Set(CHANNELS.keys());
  client.on("notification", ({ channel }) => {
    heard.add(channel);
    told();
  });
  for (const channel of CHANNELS.keys()) await client.query(`listen ${channel}`);
  if (!known.has("history")) await Promise.race([readAll(client), lost]);
  for (;;) {
    if (heard.size === 0) await Promise.race([new Promise<void>((resolve) => (told = resolve)), lost]);
    for (const channel of [...heard]) {
      heard.delete(channel);
      await Promise.race([CHANNELS.get(channel)?.(client), lost]);
    }
  }
}

function problemOf(error: unknown): string {
  return loggable(error);
}

for (let wait = 250; ; wait = Math.min(wait * 2, 10_000)) {
  try {
    await follow();
  } catch (error) {
    send({ kind: "trouble", problem: problemOf(error) });
  }
  await new Promise((resolve) => setTimeout(resolve, wait));
}
