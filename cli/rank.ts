import { z } from "zod";
import { replyChannels } from "#core/words/named";
import type { Fit } from "#core/ranking/inquiry";
import { Ranker } from "#core/ranking/ranker";
import { wordVectors } from "#server/ranking/word-vectors";
import { readChecked, readLines } from "./read";

const text = z.string().max(200_000);
const reply = z.object({
  id: z.string().min(1),
  title: text,
  tags: z.array(z.string()).default([]),
  channels: z
    .array(z.enum(replyChannels))
    .min(1)
    .default([...replyChannels]),
  language: z.string().default("en"),
  body: text,
});
const inquiry = z.object({
  id: z.string().min(1),
  channel: z.enum(replyChannels),
  subject: text.default(""),
  body: text,
  lang: z.string().optional(),
  reply: z.string().optional(),
});
const past = inquiry.extend({ reply: z.string().min(1) });

export type RankedInquiry = z.infer<typeof inquiry>;

/** Reads what ranking is asked about. @throws Failure with path, line and reason */
export async function readRanking(paths: {
  replies: string;
  history?: string | undefined;
  inquiries: string;
}) {
  return {
    replies: await readChecked(paths.replies, z.array(reply)),
    history: paths.history === undefined ? [] : await readLines(paths.history, past),
    inquiries: await readLines(paths.inquiries, inquiry),
  };
}

/** `shelf rank`: a line an inquiry, in their order. A `reply` on an inquiry is ignored. */
export async function rank(options: {
  replies: string;
  history?: string | undefined;
  inquiries: string;
  top: number;
}): Promise<string[]> {
  const { replies, history, inquiries } = await readRanking(options);
  const ranker = Ranker.of(replies, history, await wordVectors());
  return inquiries.map((one) =>
    JSON.stringify({ id: one.id, ranked: ranker.rank(one, { top: options.top }).fits.map(asLine) }),
  );
}

function asLine({ id, fit, why }: Fit) {
  return { id, score: Math.round(fit * 10_000) / 10_000, why };
}
