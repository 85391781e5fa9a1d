import * as z from "zod/mini";
import { dayField, idField, words, wordsOrNone } from "./fields";
import { t } from "../words/forms";
import { replyChannels, replyParts } from "../words/named";

/** A shelf and for whom it is. */
export const shelfSchema = z
  .strictObject({
    name: words(200, t.error("giveTheShelfAName")),
    mark: z.string().check(
      z.trim(),
      z.minLength(1, t.error("giveItALetterOrTwo")),
      z.refine((mark) => [...mark].length <= 2, t.error("aLetterOrTwo")),
    ),
    audience: z.enum(["everyone", "teams"]),
    teams: z._default(z.array(idField).check(z.maxLength(500, t.error("atMostTeams", { most: 500 }))), []),
  })
  .check(
    z.refine(({ audience, teams }) => audience === "everyone" || teams.length > 0, {
      error: () => t("sayForWhichTeams"),
      path: ["teams"],
    }),
  );
export type ShelfInput = z.infer<typeof shelfSchema>;

/** A reply that is begun. */
export const newReplySchema = z.strictObject({
  shelf: z.string().check(z.minLength(1, t.error("chooseAShelf"))),
  title: words(300, t.error("giveItATitle")),
  part: z._default(z.enum(replyParts), "answer"),
});
export type NewReply = z.infer<typeof newReplySchema>;

/** A reply that is begun from words that somebody has already, in Markdown or as plain text. */
export const begunReplySchema = z.extend(newReplySchema, { words: words(100_000) });

/** A word by which replies are put together. */
export const tagField = words(80, t.error("aTagIsAWordOrTwo"));

const filingFields = z.strictObject({
  shelf: z.string().check(z.minLength(1, t.error("chooseAShelf"))),
  note: wordsOrNone(5000),
  part: z.enum(replyParts),
  tags: z.array(tagField).check(z.maxLength(50, t.error("atMostTags", { most: 50 }))),
  channels: z.array(z.enum(replyChannels)).check(z.minLength(1, t.error("chooseAChannelAtLeast"))),
  topics: z.array(tagField).check(z.maxLength(50, t.error("atMostTopics", { most: 50 }))),
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
      error: () => t("theSeasonEndsBeforeItBegins"),
      path: ["seasonUntil"],
    },
  );

/** Everything about a reply but its words: where it stands and what it is for. */
export const filingSchema = filingFields.check(seasonEnds());
export type FilingInput = z.infer<typeof filingSchema>;

/** What of a reply's filing is to be otherwise; what is left out stays. */
export const filingChangeSchema = z.partial(filingFields).check(seasonEnds());
export type FilingChange = z.infer<typeof filingChangeSchema>;

const filed = {
  shelf: "shelf",
  note: "note",
  part: "part",
  tags: "tags",
  channels: "channels",
  topics: "whatItIsAbout",
  withBooking: "whatItIsAbout",
  owner: "owner",
  reviewBy: "reviewDate",
  seasonFrom: "season",
  seasonUntil: "season",
} as const satisfies Record<keyof FilingInput, string>;

/** What is filed, as people say it. */
export function filedAs(name: keyof FilingInput): string {
  return t(filed[name]);
}
