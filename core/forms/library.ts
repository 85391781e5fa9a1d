import * as z from "zod/mini";
import { dayField, idField, words, wordsOrNone } from "./fields";

export const replyParts = ["opening", "answer", "closing"] as const;
export const replyChannels = ["email", "chat", "sms"] as const;

/** A shelf and for whom it is. */
export const shelfSchema = z
  .strictObject({
    name: words(200, "Give the shelf a name"),
    mark: z.string().check(
      z.trim(),
      z.minLength(1, "Give it a letter or two"),
      z.refine((mark) => [...mark].length <= 2, "A letter or two"),
    ),
    audience: z.enum(["everyone", "teams"]),
    teams: z._default(z.array(idField).check(z.maxLength(500, "At most 500 teams")), []),
  })
  .check(
    z.refine(({ audience, teams }) => audience === "everyone" || teams.length > 0, {
      error: "Say for which teams the shelf is",
      path: ["teams"],
    }),
  );
export type ShelfInput = z.infer<typeof shelfSchema>;

/** A reply that is begun. */
export const newReplySchema = z.strictObject({
  shelf: z.string().check(z.minLength(1, "Choose a shelf")),
  title: words(300, "Give it a title"),
  part: z._default(z.enum(replyParts), "answer"),
});
export type NewReply = z.infer<typeof newReplySchema>;

/** A reply that is begun from words that somebody has already, in Markdown or as plain text. */
export const begunReplySchema = z.extend(newReplySchema, { words: words(100_000) });

/** A word by which replies are put together. */
export const tagField = words(80, "A tag is a word or two");

const filingFields = z.strictObject({
  shelf: z.string().check(z.minLength(1, "Choose a shelf")),
  note: wordsOrNone(5000),
  part: z.enum(replyParts),
  tags: z.array(tagField).check(z.maxLength(50, "At most 50 tags")),
  channels: z.array(z.enum(replyChannels)).check(z.minLength(1, "Choose a channel at least")),
  topics: z.array(tagField).check(z.maxLength(50, "At most 50 topics")),
  withBooking: z.boolean(),
  owner: z.nullable(idField),
  reviewBy: z.nullable(dayField),
  seasonFrom: z.nullable(dayField),
  seasonUntil: z.nullable(dayField),
});

interface Season {
  seasonFrom?: string | null | undefined;
  seasonUntil?: string | null | undefined;
}

const seasonEnds = <Fields extends Season>() =>
  z.refine<Fields>(
    ({ seasonFrom, seasonUntil }) => !seasonFrom || !seasonUntil || seasonFrom <= seasonUntil,
    {
      error: "The season ends before it begins",
      path: ["seasonUntil"],
    },
  );

/** Everything about a reply but its words: where it stands and what it is for. */
export const filingSchema = filingFields.check(seasonEnds());
export type FilingInput = z.infer<typeof filingSchema>;

/** What of a reply's filing is to be otherwise; what is left out stays. */
export const filingChangeSchema = z.partial(filingFields).check(seasonEnds());
export type FilingChange = z.infer<typeof filingChangeSchema>;

/** What is filed, as people say it. */
export const FILING_WORDS: Record<keyof FilingInput, string> = {
  shelf: "shelf",
  note: "note",
  part: "part",
  tags: "tags",
  channels: "channels",
  topics: "what it is about",
  withBooking: "what it is about",
  owner: "owner",
  reviewBy: "review date",
  seasonFrom: "season",
  seasonUntil: "season",
};
