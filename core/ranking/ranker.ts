import { channelName } from "../words/named";
import { sentencesOf } from "./words/sentences";
import { calibrate, chances, scoredOf, UNTRIED, type Calibration, type Scored } from "./calibration";
import { Usage } from "./learning/usage";
import type { Asking, Fit, Inquiry, Outcome, PastInquiry, RankedText, Ranking } from "./inquiry";
import { latestOfEach } from "./learning/latest";
import type { Words } from "./words/lexicon";
import { Knowledge, type Place, type Unlearn } from "./knowledge";
import type { Weighed } from "./terms/weighed";
import { highest } from "./shared/order";
import { PAUSE } from "./shared/pause";
import { inquiryText, spacedOnce } from "./words/text";
import type { WordVectors } from "./vectors/word-vectors";
import { t } from "../words/ranking";

/** So many words are told as reasons at most. */
const MOST_TOLD = 4;
/** A past inquiry is told as alike from here on (a cosine). */
const ALIKE = 0.2;
/** So many past inquiries are read at the start; where there are more, the oldest of those replies that have most are not. */
export const MOST_READ = 50_000;
/** Up to here all of the past says how sure a fit is, each fifth of it by the others; beyond, its latest answers do. */
const CROSS_VALIDATED = 4000;
const FOLDS = 5;
const HELD_OUT = 150;
/**
 * To be a second answer, a reply must have some chance for the whole, and be sure and well ahead of the first for one
 * sentence, while another sentence surely asks for the first.
 */
const ALSO_LEAST = 0.02;
const FIRST_SURE = 0.5;
const ALSO_SURE = 0.6;
const ALSO_AHEAD = 4;
const MOST_ALSO = 2;
/** What has less chance is not worth bending. */
const HARDLY = 1e-4;

/** An inquiry, as far as reasons are told of it: its words, their weights, those by term, and what it says in small letters, spaced once. */
interface Told {
  text: Words;
  words: Weighed;
  byTerm: Float32Array;
  said: string;
}

/**
 * Which reply fits an inquiry. Knows the replies' own texts from the beginning and learns from every answer; what it knows
 * lives in memory, and the same texts in the same order always give the same places.
 */
export class Ranker {
  readonly #known: Knowledge;
  readonly #usage = new Usage();
  #calibration: Calibration = UNTRIED;

  private constructor(vectors: WordVectors | null) {
    this.#known = new Knowledge(vectors);
  }

  /** A ranker of replies and the past. @see Ranker.building */
  static of(replies: RankedText[], past: PastInquiry[], vectors: WordVectors | null): Ranker {
    const building = Ranker.building(replies, past, vectors);
    for (;;) {
      const step = building.next();
      if (step.done) return step.value;
    }
  }

  /**
   * Builds a ranker, pausing often, so that whoever builds it can do other things between.
   * @param past the earlier answers, the oldest first; those of replies that are not there count for the words only
   * @param vectors meanings of words, or null to do without
   * @param older still earlier answers, which count for habit and for how replies fared only
   */
  static *building(
    replies: RankedText[],
    past: PastInquiry[],
    vectors: WordVectors | null,
    older: Outcome[] = [],
  ): Generator<undefined, Ranker> {
    const latest = latestOfEach(past, MOST_READ);
    const known: Scored[] = [];
    const split = latest.length > CROSS_VALIDATED ? null : latest;
    for (let fold = 0; fold < FOLDS && split && split.length >= FOLDS; fold += 1) {
      const others = new Ranker(vectors);
      yield* others.#known.reading(
        replies,
        split.filter((_, index) => index % FOLDS !== fold),
      );
      known.push(...(yield* others.#judge(split.filter((_, index) => index % FOLDS === fold))));
    }
    const ranker = new Ranker(vectors);
    for (const one of [...older, ...past]) ranker.#usage.learn(one, 1);
    yield* ranker.#known.reading(replies, split ?? latest.slice(0, -HELD_OUT));
    if (!split) {
      known.push(...(yield* ranker.#judge(latest.slice(-HELD_OUT))));
      for (const one of latest.slice(-HELD_OUT)) ranker.#known.learn(one);
    }
    ranker.#calibration = calibrate(known);
    return ranker;
  }

  /** Takes in a reply, or its new text in place of the one it had. */
  put(reply: RankedText): void {
    this.#known.put(reply);
  }

  /** Learns from an answer: this inquiry was answered by this reply, or by hand. @returns what takes it back, should the answer not go out after all */
  learn(past: PastInquiry): Unlearn {
    this.#usage.learn(past, 1);
    const unlearn = this.#known.learn(past);
    return () => {
      this.#usage.learn(past, -1);
      unlearn();
    };
  }

  /** The replies for an inquiry, the likeliest first; those that do not suit its channel or reader last, saying so. */
  rank(inquiry: Inquiry, asking: Asking): Ranking {
    return this.#known.reader.apart(() => this.#ranking(inquiry, asking));
  }

  #ranking(inquiry: Inquiry, { top, among, person, team }: Asking): Ranking {
    const text = this.#known.reader.readInquiry(inquiry);
    const features = this.#known.reader.weigh(text);
    const scores = this.#known.scores(features);
    const asked = this.#known.places.map(({ reply }) => among?.has(reply.id) ?? true);
    const unfit = this.#unfit(inquiry, asked);
    const suits = (at: number) => asked[at] === true && unfit[at] === null;
    // What is unfit has its chance of being the right one all the same: it makes the others no likelier.
    const fits = chances(scores, this.#calibration, (at) => asked[at] === true);
    const nothing = 1 - fits.reduce((sum, fit) => sum + fit, 0);
    for (let at = 0; at < fits.length; at += 1) if (!suits(at)) fits[at] = 0;
    const reasons = this.#bend(fits, { person, team });
    // Chances too small to tell apart are told apart by scores, which weigh less than any chance that counts.
    const keys = new Float64Array(fits.length).fill(-Infinity);
    for (let at = 0; at < keys.length; at += 1)
      if (asked[at]) keys[at] = (suits(at) ? 1000 : 0) + (fits[at] ?? 0) + (scores[at] ?? 0) * 1e-7;
    const order = highest(keys, Math.max(1, top));
    const byTerm = this.#known.reader.words.byTerm(features.words);
    const told: Told = { text, words: features.words, byTerm, said: spacedOnce(inquiryText(inquiry)) };
    const first = order[0];
    const also =
      first === undefined || !suits(first)
        ? new Map<number, string>()
        : this.#alsoAsked(inquiry, first, fits);
    return {
      nothingFits: first === undefined || nothing > (fits[first] ?? 0),
      fits: order.slice(0, top).flatMap((at): Fit[] => {
        const place = this.#known.places[at];
        if (!place) return [];
        const unfitFor = unfit[at];
        const why = unfitFor ? [unfitFor] : [...this.#why(place, at, told), ...(reasons.get(at) ?? [])];
        return [{ id: place.reply.id, fit: fits[at] ?? 0, why, also: also.get(at) ?? null }];
      }),
    };
  }

  /** Why each place of those asked for cannot serve, or null. A language that no reply is written in is no reason. */
  #unfit(inquiry: Inquiry, asked: boolean[]): (string | null)[] {
    const readable = this.#known.places.some(({ reply }, at) => asked[at] && isReadable(reply, inquiry));
    return this.#known.places.map(({ reply }, at) => {
      if (!asked[at]) return null;
      if (!reply.channels.includes(inquiry.channel))
        return t("isNotForChannel", { channel: channelName(inquiry.channel) });
      return readable && !isReadable(reply, inquiry) ? t("isNotWrittenInALanguage") : null;
    });
  }

  /** Ranks inquiries whose answers are known. */
  *#judge(past: PastInquiry[]): Generator<undefined, Scored[]> {
    const judged: Scored[] = [];
    for (const one of past) {
      const right = one.reply === null ? -1 : this.#known.placeOf(one);
      if (right === undefined) continue;
      const text = this.#known.reader.readInquiry(one);
      const scores = this.#known.scores(this.#known.reader.weigh(text));
      judged.push(scoredOf(scores, right));
      if (judged.length % PAUSE === 0) yield;
    }
    return judged;
  }

  /** Bends chances by habit and by how replies fared; together they stay what they were. @returns the words for it, by place */
  #bend(fits: Float32Array, { person, team }: Pick<Asking, "person" | "team">): Map<number, string[]> {
    const reasons = new Map<number, string[]>();
    let before = 0;
    let after = 0;
    for (const [at, { reply }] of this.#known.places.entries()) {
      const fit = fits[at] ?? 0;
      if (fit < HARDLY) continue;
      const habit = this.#usage.habit(reply.id, person, team);
      const sinking = this.#usage.sinking(reply.id);
      const why = [habit.why, sinking.why].filter((words) => words !== null);
      if (why.length > 0) reasons.set(at, why);
      before += fit;
      fits[at] = fit * habit.factor * sinking.factor;
      after += fits[at] ?? 0;
    }
    if (after > 0) for (let at = 0; at < fits.length; at += 1) fits[at] = ((fits[at] ?? 0) * before) / after;
    return reasons;
  }

  /** Replies, but the first, that a sentence of the inquiry asks for by itself, with that sentence. */
  #alsoAsked(inquiry: Inquiry, first: number, whole: Float32Array): Map<number, string> {
    const possible = [...whole.keys()].filter((at) => (whole[at] ?? 0) > ALSO_LEAST);
    const asked = sentencesOf(inquiryText({ ...inquiry, subject: "" })).map((sentence) => {
      const scores = this.#known.scoresOf(
        this.#known.reader.weigh(this.#known.reader.readPart(sentence)),
        possible,
      );
      const fits = chances(scores, this.#calibration);
      const [place = 0] = highest(fits, 1);
      const fit = fits[place] ?? 0;
      const ahead = fit > ALSO_AHEAD * (fits[possible.indexOf(first)] ?? 0);
      return { sentence, at: possible[place] ?? first, fit, ahead };
    });
    // Only where another sentence asks for the first is this one a second question.
    if (!asked.some(({ at, fit }) => at === first && fit >= FIRST_SURE)) return new Map();
    const found = asked.filter(({ at, fit, ahead }) => at !== first && ahead && fit >= ALSO_SURE);
    const also = new Map<number, string>();
    for (const { at, sentence } of found.sort((a, b) => b.fit - a.fit))
      if (also.size < MOST_ALSO && !also.has(at)) also.set(at, sentence);
    return also;
  }

  #why({ reply, past }: Place, at: number, { text, words, byTerm, said }: Told): string[] {
    const shared = this.#known.reader.words.shared(words, at).filter(({ weight }) => weight > 0.005);
    const stems = shared.slice(0, MOST_TOLD).map(({ term }) => term);
    const told = this.#known.reader.tell(stems, text, said);
    const title = reply.title.toLowerCase();
    // What its title says already tells nobody anything.
    const more = told.filter((one) => !title.includes(one.replace(/[“”]/g, "").toLowerCase()));
    const alike = past.nearest(byTerm, ALIKE);
    const why = [...more, ...(alike ? [t("likeId", { id: alike.id })] : [])];
    return why.length > 0
      ? why
      : told.length > 0
        ? [t("askedForByItsTitle")]
        : [t("titleIsNearInMeaning", { title: reply.title })];
  }
}

/** Whether a reply is written in a language that the customer reads, as far as both are known. */
function isReadable({ languages }: RankedText, { reads }: Inquiry): boolean {
  if (!reads || !languages) return true;
  return languages.some((one) => reads.some((other) => one.slice(0, 2) === other.slice(0, 2)));
}
