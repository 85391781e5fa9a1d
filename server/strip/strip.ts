import { closeness, staleFit } from "#core/ranking/fit-words";
import { times } from "#core/text/counted";
import type { EntityManager } from "@mikro-orm/postgresql";
import type { AttachmentRef, Part } from "#core/compose/slip";
import type { Passages } from "#core/conditions/condition";
import type { Doc } from "#core/document/types";
import { documentText } from "#core/document/walk";
import type { Blanks } from "#core/tokens/blanks";
import type { Inquiry, Ranking } from "#core/ranking/inquiry";
import type { Asked, Found } from "#core/search/inverted-index";
import type { Viewer } from "../people/viewer";
import { named, prepared } from "../db/sql";
import { accessParameters } from "../access/replies";
import { USABLE_SHELF } from "../db/access-rule";
import { FILES_OF_VERSION } from "../replies/files";
import { IN_SEASON, usableReplies } from "../access/usable";
import { STALE_VARIANT } from "../replies/stale";
import { log } from "../log";
import { askedBy, houseRanker, Unanswered } from "../ranking/house-ranker";
import { waysToFind } from "./finding";
import { atHand, type AtHand } from "./hand";
import { searchTerms } from "../replies/search";

/** A reply as the shelf strip offers it: all that is needed to read it for a case and to take it. */
export interface StripReply {
  key: string;
  versionId: number;
  title: string;
  part: Part;
  shelf: { name: string; mark: string };
  tags: string[];
  language: string;
  document: Doc;
  blanks: Blanks;
  passages: Passages;
  subject: string | null;
  useTemplateSubject: boolean;
  attachments: AttachmentRef[];
  /** Why it stands where it stands, in words. */
  why: string;
  /** How likely it is the one to send, from 0 to 1; null where it was searched for or is no answer. */
  fit: number | null;
  /** Whether the person has it at hand, and why; null where they do not. */
  hand: AtHand | null;
  /** The sentence of the message by which it answers a second question; null where it is no second answer. */
  also: string | null;
  /** Whether it is a translation of an original that reads otherwise now. */
  stale: boolean;
}

/** What the strip offers. */
export interface StripOffer {
  replies: StripReply[];
  /** Whether it is likelier that nothing on the shelf fits than that the first does. */
  nothingFits: boolean;
  /** Whether ranking did not answer: then they are ordered by use, or found by their words alone. */
  unranked: boolean;
}

/** What the strip offers when a case is opened. */
export interface FirstOffer extends StripOffer {
  /** How many replies the viewer may use here. */
  total: number;
  /** The replies that were asked for beside, where they may be used here. */
  beside: StripReply[];
}

export interface StripQuery {
  /** What the agent typed; empty to order by what the customer asks. */
  query: string;
  /** What the customer asks; null where nothing is asked. */
  inquiry: Inquiry | null;
  channel: string;
  /** Language of the letter; replies without a variant in it come in their fallback. */
  language: string;
  limit: number;
}

/** What is wanted of all that may be used. */
interface Wanted extends StripQuery {
  /** Only these replies, by key. */
  keys?: string[];
  /** Only openings and closings. */
  around?: boolean;
}

interface Row {
  key: string;
  version_id: number;
  title: string;
  part: Part;
  shelf_name: string;
  shelf_mark: string;
  tags: string[];
  language: string;
  document: Doc;
  blanks: Blanks;
  passages: Passages;
  subject: string | null;
  use_template_subject: boolean;
  words: string;
  uses: number;
  matched: boolean;
  in_season: boolean;
  season_from: string | null;
  season_until: string | null;
  attachments: AttachmentRef[];
  stale: boolean;
}

/** Of all that fit a case, so many of the fittest may be brought forward among what is searched for. */
const BROUGHT_FORWARD = 100;
/** So far before others goes what is at hand, where all that was found lies within one and a sure fit is one. */
const FOR_HAND = 1;
/** Of what is found by words, so many of the nearest are told apart by use and by their titles; more where few of them may be used. */
const NEAR = 200;

/**
 * Replies for a case: those that have what was typed, the nearest and fittest first; else every answer by its fit to what
 * is asked, then openings and closings by use of late. While ranking knows nothing yet, answers come by use as well.
 * Use counts the letters of the viewer's house of the last 90 days, each half as much a month later.
 */
export async function stripReplies(
  em: EntityManager,
  viewer: Viewer,
  input: StripQuery,
): Promise<StripOffer> {
  const typed = input.query.trim();
  if (!typed) {
    const fits = await whatFits(em, viewer, input);
    const { replies, nothingFits, unranked } = await firstOffer(em, viewer, fits, input, []);
    return { replies, nothingFits, unranked };
  }
  const found = await searched(em, viewer, input, typed).catch(withoutRanking);
  if (found) return { replies: found, nothingFits: false, unranked: false };
  const byUse = await offer(em, viewer, { ...input, query: "", limit: 300 }, [], null);
  return { replies: withWords(byUse, typed, input.limit), nothingFits: false, unranked: true };
}

/** What is known of an inquiry before its replies are read. */
export interface WhatFits {
  /** How many replies the viewer may use. */
  total: number;
  /** Null while ranking knows nothing yet, does not answer, or nothing is asked. */
  ranking: Ranking | null;
  hand: ReadonlyMap<string, AtHand>;
}

/** What fits an inquiry of what the viewer may use, and what they have at hand: in whichever language it will be. */
export async function whatFits(
  em: EntityManager,
  viewer: Viewer,
  { inquiry, channel, limit }: Pick<StripQuery, "inquiry" | "channel" | "limit">,
): Promise<WhatFits> {
  const ranked = async () => {
    const { answers, total } = await usableReplies(em, viewer, channel);
    if (inquiry === null) return { total, ranking: null };
    const asked = [askedBy(viewer, inquiry, { top: limit, among: answers })];
    const rankings = await houseRanker(em).rank(asked).catch(withoutRanking);
    return { total, ranking: rankings?.[0] ?? null };
  };
  const [found, hand] = await Promise.all([ranked(), atHand(em, viewer, channel)]);
  return { ...found, hand };
}

/** What the strip offers for an inquiry before anything is typed, with some replies beside it, by key. */
export async function firstOffer(
  em: EntityManager,
  viewer: Viewer,
  fits: WhatFits,
  input: Omit<StripQuery, "query">,
  beside: string[],
): Promise<FirstOffer> {
  const asked = { ...input, query: "" };
  const { total, ranking } = fits;
  if (ranking) return { ...(await fitting(em, viewer, asked, ranking, fits.hand, beside)), total };
  const [replies, others] = await Promise.all([
    offer(em, viewer, asked, [], null),
    beside.length === 0 ? [] : offer(em, viewer, { ...asked, keys: beside, limit: beside.length }, [], null),
  ]);
  return { replies, beside: others, nothingFits: false, unranked: input.inquiry !== null, total };
}

/** Ranking does not answer: the strip does without. */
function withoutRanking(error: unknown): null {
  if (!(error instanceof Unanswered)) throw error;
  log.warn({ event: "strip without ranking", reason: error.message });
  return null;
}

/** Of replies those that have all words that were typed, in their title, tags or text. */
function withWords(replies: StripReply[], typed: string, limit: number): StripReply[] {
  const terms = searchTerms(typed);
  return replies
    .filter(({ title, tags, document }) => {
      const words = searchTerms([title, ...tags, documentText(document)].join(" "), 5000);
      return terms.every((term) => words.some((word) => word.startsWith(term)));
    })
    .slice(0, limit);
}

async function searched(
  em: EntityManager,
  viewer: Viewer,
  input: StripQuery,
  typed: string,
): Promise<StripReply[]> {
  const terms = searchTerms(typed);
  if (terms.length === 0) return offer(em, viewer, input, [], null);
  for await (const asked of waysToFind(em, terms)) {
    const found = await foundBy(em, viewer, input, terms, asked);
    if (found.length > 0) return found;
  }
  return [];
}

/** Of the replies that have what is asked, those that may be used here. */
async function foundBy(
  em: EntityManager,
  viewer: Viewer,
  input: StripQuery,
  terms: string[],
  asked: Omit<Asked, "most">,
): Promise<StripReply[]> {
  const about = input.inquiry && askedBy(viewer, input.inquiry, { top: BROUGHT_FORWARD });
  for (let most = NEAR; ; most *= 4) {
    const { found, ranking } = await houseRanker(em).find({ ...asked, most }, about);
    const replies = found.length === 0 ? [] : await offer(em, viewer, input, terms, found);
    if (replies.length < input.limit && found.length === most) continue;
    const hand = await atHand(em, viewer, input.channel);
    const marked = replies.map((reply) => ({ ...reply, hand: hand.get(reply.key) ?? null }));
    return ranking || hand.size > 0 ? fittestFirst(marked, terms, ranking) : marked;
  }
}

/**
 * What was found, with what fits the case and what is at hand brought forward: a sure fit goes before everything that only
 * has the words. What has all of them in its title stays before the rest: it was asked for by name.
 */
function fittestFirst(found: StripReply[], terms: string[], ranking: Ranking | null): StripReply[] {
  const fits = new Map(ranking?.fits.map((one) => [one.id, one.fit]));
  const isNamed = ({ title }: StripReply) => {
    const words = searchTerms(title);
    return terms.every((term) => words.some((word) => word.startsWith(term)));
  };
  const place = (reply: StripReply, index: number) =>
    (isNamed(reply) ? 0 : 2) +
    index / found.length -
    (fits.get(reply.key) ?? 0) -
    (reply.hand === null ? 0 : FOR_HAND);
  return found
    .map((reply, index) => ({ reply, at: place(reply, index) }))
    .sort((a, b) => a.at - b.at)
    .map(({ reply }) => reply);
}

/** All that may be used, ordered by the ranking. @param beside replies that are wanted beside it, by key */
async function fitting(
  em: EntityManager,
  viewer: Viewer,
  input: StripQuery,
  ranking: Ranking,
  hand: ReadonlyMap<string, AtHand>,
  beside: string[],
): Promise<StripOffer & { beside: StripReply[] }> {
  const known = new Set(ranking.fits.map((one) => one.id));
  const further = [...hand.keys()].filter((key) => !known.has(key));
  const keys = [...known, ...further, ...beside];
  const best = await offer(em, viewer, { ...input, keys, limit: keys.length }, [], null);
  const byKey = new Map(best.map((reply) => [reply.key, reply]));
  const answers = ranking.fits.flatMap(({ id, fit, why, also }): StripReply[] => {
    const reply = byKey.get(id);
    const told = reply?.stale ? staleFit(fit) : fit;
    return reply ? [{ ...reply, fit: told, also, why: why.join(", "), hand: hand.get(id) ?? null }] : [];
  });
  const others = further.flatMap((key): StripReply[] => {
    const reply = byKey.get(key);
    return reply ? [{ ...reply, why: "", hand: hand.get(key) ?? null }] : [];
  });
  const inOrder = handFirst(answers, others, [...hand.keys()]);
  const left = input.limit - inOrder.length;
  const rest = left > 0 ? await offer(em, viewer, { ...input, around: true, limit: left }, [], null) : [];
  return {
    replies: [...inOrder, ...rest],
    nothingFits: ranking.nothingFits,
    unranked: false,
    beside: best.filter((reply) => beside.includes(reply.key)),
  };
}

/**
 * The strip while nothing is typed: what fits best and what answers a second question, the other close fits, what the person
 * has at hand, then the rest by its fit.
 * @param answers by their fit
 * @param others what is at hand beside them
 */
function handFirst(answers: StripReply[], others: StripReply[], hand: string[]): StripReply[] {
  const [first, ...rest] = answers;
  if (!first) return others;
  const isClose = ({ fit }: StripReply) => fit !== null && closeness(fit) === "close";
  const ahead = [
    first,
    ...rest.filter((one) => one.also !== null),
    ...rest.filter((one) => one.also === null && isClose(one)),
  ];
  const left = [...rest, ...others].filter((one) => !ahead.includes(one));
  const held = hand.flatMap((key) => left.find((one) => one.key === key) ?? []);
  return [...ahead, ...held, ...left.filter((one) => !held.includes(one))];
}

/** How often a reply was sent of late. */
const USES = `select sum(exp(ln(0.5::float8) * extract(epoch from now() - lr.at)::float8 / 2592000)) as uses
               from letter_replies lr where lr.reply_id = offered.id and lr.at > now() - interval '90 days'`;

/** The replies that can be used, the best first; those that are asked for by their keys are not told apart by use. @param found only these, found by words; null for all */
async function offer(
  em: EntityManager,
  viewer: Viewer,
  input: Wanted,
  terms: string[],
  found: Found[] | null,
): Promise<StripReply[]> {
  const typed = input.query.trim() !== "";
  const values = {
    ...accessParameters(viewer),
    found: found?.map(({ id }) => id),
    ranks: found?.map(({ rank }) => rank),
    channel: input.channel,
    language: input.language,
    short: input.language.slice(0, 2),
    limit: input.limit,
    must: typed,
    typed: input.query.trim().toLowerCase(),
    keys: input.keys ?? null,
    around: input.around ?? false,
  };
  const rows = await prepared<Row>(
    em,
    ...named(
      `with offered as (
         select r.id, r.part, r.title, ${found ? "hits.rank" : "0"} as rank, (${IN_SEASON}) as in_season,
                ${found ? "similarity(lower(r.title), :typed)" : "0"} as alike
           from replies r join shelves s on s.id = r.shelf_id
           ${found ? "join unnest(:found::text[], :ranks::float8[]) hits(key, rank) on hits.key = r.key" : ""}
          where r.state = 'shelved' and :channel = any(r.channels) and (:must or ${IN_SEASON})
            and (:keys::text[] is null or r.key = any(:keys::text[])) and (r.part <> 'answer' or not :around) and ${USABLE_SHELF}
       ), best as (
         select offered.*, coalesce(used.uses, 0) as uses,
                row_number() over (order by in_season desc, (part = 'answer') desc, (rank / 2 + alike + least(coalesce(used.uses, 0), 50) / 500.0) desc, title) as at
           from offered left join lateral (
             ${input.keys ? "select 0 as uses" : USES}
           ) used on true order by at limit :limit
       )
       select r.key, v.id as version_id, coalesce(t.title, r.title) as title, r.part, r.tags, v.blanks, v.passages, v.use_template_subject,
              t.language, coalesce(t.texts -> :channel, t.document) as document, t.subject, t.words, s.name as shelf_name, s.mark as shelf_mark, best.uses, best.rank > 0 as matched,
              best.in_season, r.season_from::text, r.season_until::text,
              ${FILES_OF_VERSION} as attachments, ${STALE_VARIANT} as stale
         from best join replies r on r.id = best.id join shelves s on s.id = r.shelf_id join reply_versions v on v.id = r.current_version_id
         join lateral (
           select * from reply_variants t where t.version_id = v.id
            order by (t.language = :language) desc, (left(t.language, 2) = :short) desc, t.fallback desc limit 1
         ) t on true
        order by best.at`,
      values,
    ),
  );
  const wanted = new Set(terms);
  return rows.map(
    ({
      version_id,
      shelf_name,
      shelf_mark,
      use_template_subject,
      words,
      uses,
      matched,
      in_season,
      season_from,
      season_until,
      ...row
    }) => ({
      ...row,
      versionId: version_id,
      shelf: { name: shelf_name, mark: shelf_mark },
      useTemplateSubject: use_template_subject,
      why: in_season
        ? reason([words, ...row.tags].join(" "), wanted, { typed, uses, matched })
        : outOfSeason(season_from, season_until),
      fit: null,
      also: null,
      hand: null,
    }),
  );
}

function outOfSeason(from: string | null, until: string | null): string {
  return `out of season: ${[from && `from ${from}`, until && `until ${until}`].filter(Boolean).join(" ")}`;
}

function reason(
  words: string,
  wanted: Set<string>,
  found: { typed: boolean; uses: number; matched: boolean },
): string {
  const shared = [...new Set(words.toLowerCase().match(/[\p{L}\p{N}]{3,}/gu) ?? [])].filter((word) =>
    found.typed ? [...wanted].some((term) => word.startsWith(term)) : wanted.has(word),
  );
  const uses = Math.round(found.uses);
  const use = uses >= 1 ? `used ${times(uses)} lately` : null;
  const words3 = shared
    .slice(0, 3)
    .map((word) => `“${word}”`)
    .join(", ");
  if (words3 !== "") return use ? `${words3}; ${use}` : words3;
  if (found.matched) return use ?? "words alike";
  return found.typed ? "spelled alike" : (use ?? "not used lately");
}
