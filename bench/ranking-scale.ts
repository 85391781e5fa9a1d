import MiniSearch from "minisearch";
import { Ranker } from "#core/ranking/ranker";
import { wordVectors } from "#server/ranking/word-vectors";
import { madeLibrary } from "./made-library";
import { percentiles } from "./measure";

const REPLIES = 5000;
const PAST = 200_000;
const ASKED = 200;

/**
 * Ranking one inquiry among 5,000 replies with 200,000 past answers, beside a plain text search over the same texts;
 * building, learning one answer, and the memory held.
 */
export async function benchRankingScale(): Promise<object> {
  const { replies, past, asked } = madeLibrary({ replies: REPLIES, past: PAST, asked: ASKED });
  const vectors = await wordVectors();
  const before = memory();
  const began = performance.now();
  const ranker = Ranker.of(replies, past, vectors);
  const built = performance.now() - began;
  const held = memory() - before;

  const search = new MiniSearch<{ id: string; text: string }>({ fields: ["text"] });
  const texts = new Map(replies.map((reply) => [reply.id, [reply.title, reply.body]]));
  for (const one of past) texts.get(one.reply ?? "")?.push(one.body);
  search.addAll([...texts].map(([id, parts]) => ({ id, text: parts.join(" ") })));

  const ours: number[] = [];
  const plain: number[] = [];
  const learned: number[] = [];
  let right = 0;
  asked.forEach((one, index) => {
    const timed = (into: number[], work: () => void) => {
      const start = performance.now();
      work();
      if (index >= 20) into.push(performance.now() - start);
    };
    timed(ours, () => {
      if (ranker.rank(one, { top: 60 }).fits[0]?.id === one.reply) right += 1;
    });
    timed(plain, () => search.search(one.body));
    timed(learned, () => ranker.learn(one));
  });
  return {
    bench: "ranking-scale",
    replies: REPLIES,
    past: PAST,
    milliseconds: { rank: percentiles(ours), plainSearch: percentiles(plain), learn: percentiles(learned) },
    secondsToBuild: Math.round(built / 100) / 10,
    megabytes: Math.round(held / 1_000_000),
    firstOf100: Math.round((100 * right) / ASKED),
  };
}

/** What is in use after a collection of garbage, where the run allows one. */
function memory(): number {
  (globalThis as { gc?: () => void }).gc?.();
  const { heapUsed, external } = process.memoryUsage();
  return heapUsed + external;
}
