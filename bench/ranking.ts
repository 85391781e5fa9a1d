import { join } from "node:path";
import MiniSearch from "minisearch";
import type { PastInquiry, RankedText } from "#core/ranking/inquiry";
import { Ranker } from "#core/ranking/ranker";
import { inquiryText } from "#core/ranking/words/text";
import type { WordVectors } from "#core/ranking/vectors/word-vectors";
import { wordVectors } from "#server/ranking/word-vectors";
import { readRanking, type RankedInquiry } from "../cli/rank";

/** Labelled inquiries: `replies.json`, `history.jsonl` and `test.jsonl`. */
const FOLDER = process.env.RANKING_FOLDER ?? "../shared/eval/allotments";

/** The ids of replies for an inquiry, the likeliest first, and how likely the first is. */
type Rank = (inquiry: RankedInquiry) => { ids: string[]; fit: number };

/**
 * How often the right reply is first and among the first three, on labelled inquiries, beside a plain text search over
 * the same texts; and how far the fits are from what they promise (expected calibration error, ten bins).
 */
export async function benchRanking(): Promise<object> {
  const { replies, history, inquiries } = await readRanking({
    replies: join(FOLDER, "replies.json"),
    history: join(FOLDER, "history.jsonl"),
    inquiries: join(FOLDER, "test.jsonl"),
  });
  const vectors = await wordVectors();
  const known = new Set(history.map((one) => one.reply));
  const ours = ranked(replies, history, vectors);
  const plain = searched(replies, history);
  const languages = [...new Set(inquiries.map((one) => one.lang ?? "en"))];
  return {
    bench: "ranking",
    inquiries: inquiries.length,
    ours: shares(ours, inquiries),
    plain: shares(plain, inquiries),
    withoutVectors: shares(ranked(replies, history, null), inquiries),
    withoutHistory: shares(ranked(replies, [], vectors), inquiries),
    plainWithoutHistory: shares(searched(replies, []), inquiries),
    replyWithoutHistory: shares(
      ours,
      inquiries.filter((one) => one.reply !== undefined && !known.has(one.reply)),
    ),
    byLanguage: Object.fromEntries(
      languages.map((tag) => [
        tag,
        shares(
          ours,
          inquiries.filter((one) => (one.lang ?? "en") === tag),
        ),
      ]),
    ),
    calibrationError: calibrationError(ours, inquiries),
  };
}

function ranked(replies: RankedText[], history: PastInquiry[], vectors: WordVectors | null): Rank {
  const ranker = Ranker.of(replies, history, vectors);
  return (inquiry) => {
    const { fits } = ranker.rank(inquiry, { top: replies.length });
    return { ids: fits.map((one) => one.id), fit: fits[0]?.fit ?? 0 };
  };
}

/** A search with the replies' title, tags, text and past inquiries as fields. */
function searched(replies: RankedText[], history: PastInquiry[]): Rank {
  const search = new MiniSearch<RankedText & { past: string }>({ fields: ["title", "tags", "body", "past"] });
  search.addAll(
    replies.map((reply) => ({
      ...reply,
      past: history
        .filter((one) => one.reply === reply.id)
        .map(inquiryText)
        .join("\n"),
    })),
  );
  return (inquiry) => ({
    ids: search.search(inquiryText(inquiry)).map((found) => String(found.id)),
    fit: 0,
  });
}

/** In how many of a hundred the right reply is first, and among the first three. */
function shares(rank: Rank, inquiries: RankedInquiry[]): { first: number; firstThree: number; of: number } {
  const places = inquiries.map((one) => rank(one).ids.indexOf(one.reply ?? ""));
  const share = (below: number) =>
    Math.round(
      (1000 * places.filter((place) => place >= 0 && place < below).length) / Math.max(1, places.length),
    ) / 10;
  return { first: share(1), firstThree: share(3), of: places.length };
}

function calibrationError(rank: Rank, inquiries: RankedInquiry[]): number {
  const bins = Array.from({ length: 10 }, () => ({ count: 0, fit: 0, right: 0 }));
  for (const inquiry of inquiries) {
    const { ids, fit } = rank(inquiry);
    const bin = bins[Math.min(9, Math.floor(fit * 10))];
    if (!bin) continue;
    bin.count += 1;
    bin.fit += fit;
    if (ids[0] === inquiry.reply) bin.right += 1;
  }
  const error = bins.reduce((sum, bin) => sum + Math.abs(bin.fit - bin.right), 0) / inquiries.length;
  return Math.round(error * 1000) / 1000;
}
