import { setImmediate } from "node:timers/promises";
import { parentPort, workerData } from "node:worker_threads";
import pg from "pg";
import type { Ranking } from "#core/ranking/inquiry";
import type { Unlearn } from "#core/ranking/knowledge";
import { Ranker } from "#core/ranking/ranker";
import type { Question, Said, ThreadData } from "./protocol";
import { OVERLAP, readCalledBack, readLetters, readReplies } from "./read";
import { wordVectors } from "./word-vectors";

/**
 * The thread in which ranking lives: it reads library and history from the database, answers from what it knows so far
 * while it reads, and learns whatever any process sends or keeps as soon as it is committed.
 */

/** While a ranker is built, questions are answered about this often; single steps may take some times as long. */
const TURN_MS = 10;

const port = parentPort;
if (!port) throw new Error("Ranking runs in a thread");
const { url } = workerData as ThreadData;
const say = (said: Said) => port.postMessage(said);

let ranker: Ranker | null = null;
/** Questions that came before anything was known. */
const waiting: Question[] = [];
const replyStates = new Map<string, string>();
let lastLetter = 0;
const recent = new Set<number>();
/** By letter: what takes back what was learned of it, for as long as it may be called back. */
const learned = new Map<number, Unlearn[]>();

port.on("message", (question: Question) => {
  if (ranker === null) waiting.push(question);
  else void answer(ranker, question);
});

/** Answers a question; one about many inquiries lets others, about one, go between. */
async function answer(known: Ranker, { id, asked }: Question): Promise<void> {
  try {
    const rankings: Ranking[] = [];
    for (const { inquiry, asking } of asked) {
      if (rankings.length > 0) await setImmediate();
      rankings.push(known.rank(inquiry, asking));
    }
    say({ kind: "answer", id, rankings });
  } catch (error) {
    say({ kind: "refused", id, problem: problemOf(error) });
  }
}

function knows(known: Ranker, what: "replies" | "history"): void {
  ranker = known;
  for (const question of waiting.splice(0)) void answer(known, question);
  say({ kind: "knows", what });
}

/** Lets a ranker be built in turns with questions. */
async function inTurns(building: Generator<undefined, Ranker>): Promise<Ranker> {
  let began = performance.now();
  for (;;) {
    const step = building.next();
    if (step.done) return step.value;
    if (performance.now() - began < TURN_MS) continue;
    await setImmediate();
    began = performance.now();
  }
}

async function readAll(client: pg.Client): Promise<void> {
  const vectors = await wordVectors();
  const replies = await readReplies(client, new Map());
  // The database looks for the letters while the replies are read into the ranker.
  const history = readLetters(client, 0, recent);
  // It is awaited below; until then nobody may be waiting.
  history.catch(() => undefined);
  for (const reply of replies) replyStates.set(reply.id, reply.state);
  knows(await inTurns(Ranker.building(replies, [], vectors)), "replies");
  const { letters, past, older } = await history;
  remember(letters);
  if (past.length > 0) knows(await inTurns(Ranker.building(replies, past, vectors, older)), "history");
  else say({ kind: "knows", what: "history" });
}

async function readNew(client: pg.Client): Promise<void> {
  for (const reply of await readReplies(client, replyStates)) {
    replyStates.set(reply.id, reply.state);
    ranker?.put(reply);
  }
  const { letters, past } = await readLetters(client, lastLetter, recent);
  remember(letters);
  for (const { letter, ...one } of past)
    if (ranker) learned.set(letter, [...(learned.get(letter) ?? []), ranker.learn(one)]);
  for (const letter of await readCalledBack(client, [...learned.keys()])) {
    for (const unlearn of learned.get(letter) ?? []) unlearn();
    learned.delete(letter);
  }
}

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

/** Reads and then learns for as long as the connection lasts. */
async function follow(first: boolean): Promise<void> {
  const client = new pg.Client({ connectionString: url, keepAlive: true });
  const lost = new Promise<never>((_, reject) => {
    client.on("error", reject);
    client.on("end", () => reject(new Error("the connection ended")));
  });
  // Handled where it is awaited; before that, it must not count as unhandled.
  lost.catch(() => undefined);
  await client.connect();
  let told = (): void => undefined;
  let heard = true;
  client.on("notification", () => {
    heard = true;
    told();
  });
  await client.query("listen plain_shelf_ranking");
  if (first) await Promise.race([readAll(client), lost]);
  for (;;) {
    if (!heard) await Promise.race([new Promise<void>((resolve) => (told = resolve)), lost]);
    heard = false;
    await Promise.race([readNew(client), lost]);
  }
}

function problemOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}

for (let wait = 250; ; wait = Math.min(wait * 2, 10_000)) {
  try {
    await follow(ranker === null);
  } catch (error) {
    say({ kind: "trouble", problem: problemOf(error) });
  }
  await new Promise((resolve) => setTimeout(resolve, wait));
}
