import MiniSearch from "minisearch";
import type { PastInquiry, RankedText } from "#core/ranking/inquiry";
import { Ranker } from "#core/ranking/ranker";
import { wordVectors } from "#server/ranking/word-vectors";
import { percentiles, random } from "./measure";

const REPLIES = 5000;
const PAST = 200_000;
const ASKED = 200;

/**
 * Ranking one inquiry among 5,000 replies with 200,000 past answers, beside a plain text search over the same texts;
 * building, learning one answer, and the memory held. Texts are made: syllables into words, common ones most, and each
 * reply with words of its own, in sentences of a dozen.
 */
export async function benchRankingScale(): Promise<object> {
  const draw = random(7);
  const syllables = "ba ce di fo gu ha je ki lo mu na pe ri so tu va we xi yo zu".split(" ");
  const word = () =>
    Array.from({ length: 2 + Math.floor(draw() * 3) }, () => syllables[Math.floor(draw() * 20)]).join("");
  const vocabulary = Array.from({ length: 20_000 }, word);
  // Common words are drawn most (Zipf).
  const any = () => vocabulary[Math.floor(vocabulary.length ** draw()) - 1] ?? "ba";
  const topics = Array.from({ length: REPLIES }, () => Array.from({ length: 12 }, any));
  const text = (topic: string[], length: number) =>
    Array.from({ length }, (_, at) => {
      const drawn = draw() < 0.3 ? (topic[Math.floor(draw() * topic.length)] ?? "ba") : any();
      return at % 12 === 11 ? `${drawn}.` : drawn;
    }).join(" ");
  const replies = topics.map((topic, index): RankedText => ({
    id: `r${index}`,
    title: topic.slice(0, 4).join(" "),
    tags: topic.slice(4, 6),
    channels: ["email"],
    body: text(topic, 80),
  }));
  const inquiry = (id: string): PastInquiry => {
    const at = Math.floor(REPLIES * draw() ** 2);
    return { id, channel: "email", subject: "", body: text(topics[at] ?? [], 40), reply: `r${at}` };
  };
  const past = Array.from({ length: PAST }, (_, index) => inquiry(`h${index}`));
  const asked = Array.from({ length: ASKED }, (_, index) => inquiry(`q${index}`));

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
