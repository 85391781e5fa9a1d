import { sentencesOf } from "./asks";
import { calibrate, chances, scoredOf, UNTRIED, type Calibration, type Scored } from "./calibration";
import { Experience } from "./experience";
import type { Asking, Fit, Inquiry, Outcome, PastInquiry, RankedText, Ranking } from "./inquiry";
import { latestOfEach } from "./latest";
import type { Words } from "./lexicon";
import { Reader } from "./reader";
import type { NewReply, Weighed } from "./space";
import { foremost, highest } from "./order";
import { Remembered } from "./remembered";
import {
  SHARES,
  taughtScores,
  taughtSums,
  takeBack,
  teach,
  type Lesson,
  type Step,
  type Sums,
} from "./teacher";
import { inquiryText } from "./text";
import type { WordVectors } from "./vectors";

/** What each kind of nearness counts. They were chosen on inquiries of several kinds and hold for any library. */
const WEIGHTS = { ownWords: 16, ownGrams: 17, words: 28, grams: 28, meaning: 4.1, taught: 12 };
/** What a reply's own text counts beside one past inquiry, in its meaning. */
const OWN_MEANING = 2;
/** A past inquiry is told as alike from here on (a cosine). */
const ALIKE = 0.2;
/** In a large library, the meaning of so many replies is compared: those that are foremost by all else. */
const MOST_MEANT = 1000;
/** So many past inquiries are read at the start; where there are more, the oldest of those replies that have most are not. */
export const MOST_READ = 80_000;
/** How often the linear model goes over what it learns from, and how much work that may be: lessons times replies. */
const PASSES = 15;
const MOST_WORK = 2_000_000;
/** Fewer lessons than this teach nothing about so many replies: they are left to the answers that come. */
const FEWEST_LESSONS = 500;
/** Up to here all of the past says how sure a fit is, each fifth of it by the others; beyond, its latest answers do. */
const CROSS_VALIDATED = 4000;
const FOLDS = 5;
const HELD_OUT = 200;
/**
 * To be a second answer, a reply must have some chance for the whole, and be sure and well ahead of the first for one
 * sentence, while another sentence surely asks for the first.
 */
const ALSO_LEAST = 0.02;
const FIRST_SURE = 0.5;
const ALSO_SURE = 0.6;
const ALSO_AHEAD = 4;
const MOST_ALSO = 2;
/** In a large library a text's common terms tell little, and so many numbers are added up for each kind of terms. */
const MOST_NUMBERS = 40_000;
/** What has less chance is not worth bending. */
const HARDLY = 1e-4;
/** Long work pauses after so many texts. */
const PAUSE = 50;

/** Takes back what was learned from an answer, but for how rare words are. */
export type Unlearn = () => void;

interface Place {
  reply: RankedText;
  past: Remembered;
}

/**
 * Which reply fits an inquiry. Knows the replies' own texts from the beginning and learns from every answer; what it knows
 * lives in memory, and the same texts in the same order always give the same places.
 */
export class Ranker {
  readonly #reader: Reader;
  readonly #experience = new Experience();
  readonly #places: Place[] = [];
  readonly #at = new Map<string, number>();
  #calibration: Calibration = UNTRIED;

  private constructor(vectors: WordVectors | null) {
    this.#reader = new Reader(vectors);
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
      yield* others.#read(
        replies,
        split.filter((_, index) => index % FOLDS !== fold),
      );
      known.push(...(yield* others.#judge(split.filter((_, index) => index % FOLDS === fold))));
    }
    const ranker = new Ranker(vectors);
    for (const one of [...older, ...past]) ranker.#experience.learn(one, 1);
    yield* ranker.#read(replies, split ?? latest.slice(0, -HELD_OUT));
    if (!split) {
      known.push(...(yield* ranker.#judge(latest.slice(-HELD_OUT))));
      for (const one of latest.slice(-HELD_OUT)) ranker.#learnText(one);
    }
    ranker.#calibration = calibrate(known);
    return ranker;
  }

  /** Takes in a reply, or its new text in place of the one it had. */
  put(reply: RankedText): void {
    const text = this.#reader.readReply(reply);
    this.#reader.count(text);
    const lesson = this.#reader.weigh(text);
    const at = this.#open(reply);
    this.#setOwn(at, lesson);
    this.#teach(lesson, at);
  }

  /** Learns from an answer: this inquiry was answered by this reply, or by hand. @returns what takes it back, should the answer not go out after all */
  learn(past: PastInquiry): Unlearn {
    this.#experience.learn(past, 1);
    const unlearn = this.#learnText(past);
    return () => {
      this.#experience.learn(past, -1);
      unlearn();
    };
  }

  #learnText(past: PastInquiry): Unlearn {
    const text = this.#reader.readInquiry(past);
    this.#reader.count(text);
    const lesson = this.#reader.weigh(text);
    const at = this.#placeOf(past);
    if (at === undefined) return () => undefined;
    this.#addPast(at, lesson, 1);
    this.#places[at]?.past.add([{ id: past.id, text }], (texts) => this.#reader.words.weighAll(texts));
    const steps = [this.#teach(lesson, at)];
    for (const swapped of past.swapped ?? []) {
      const wrong = this.#at.get(swapped);
      if (wrong !== undefined) steps.push(this.#teach(lesson, at, wrong));
    }
    return () => {
      this.#addPast(at, lesson, -1);
      this.#places[at]?.past.remove(past.id);
      for (const step of steps) takeBack(this.#reader, lesson, step);
    };
  }

  #addPast(at: number, { words, grams, meaning }: Lesson, times: 1 | -1): void {
    this.#reader.words.addPast(at, words, times);
    this.#reader.grams.addPast(at, grams, times);
    this.#reader.meanings?.addPast(at, meaning, times);
  }

  /** The replies for an inquiry, the likeliest first; those that do not suit its channel or reader last, saying so. */
  rank(inquiry: Inquiry, { top, among, person, team }: Asking): Ranking {
    const text = this.#reader.readInquiry(inquiry);
    const lesson = this.#reader.weigh(text);
    const scores = this.#scores(lesson);
    const asked = this.#places.map(({ reply }) => among?.has(reply.id) ?? true);
    const unfit = this.#unfit(inquiry, asked);
    const suits = (at: number) => asked[at] === true && unfit[at] === null;
    // What is unfit has its chance of being the right one all the same: it makes the others no likelier.
    const fits = chances(scores, this.#calibration, (at) => asked[at] === true);
    const nothing = 1 - fits.reduce((sum, fit) => sum + fit, 0);
    for (let at = 0; at < fits.length; at += 1) if (!suits(at)) fits[at] = 0;
    const reasons = this.#bend(fits, { person, team });
    // Chances too small to tell apart are told apart by scores, which weigh less than any chance that counts.
    const keys = Float64Array.from(fits, (fit, at) =>
      asked[at] ? (suits(at) ? 1000 : 0) + fit + (scores[at] ?? 0) * 1e-7 : -Infinity,
    );
    const order = highest(keys, Math.max(1, top));
    const byTerm = this.#reader.words.byTerm(lesson.words);
    const first = order[0];
    const also =
      first === undefined || !suits(first)
        ? new Map<number, string>()
        : this.#alsoAsked(inquiry, first, fits);
    return {
      nothingFits: first === undefined || nothing > (fits[first] ?? 0),
      fits: order.slice(0, top).flatMap((at): Fit[] => {
        const place = this.#places[at];
        if (!place) return [];
        const unfitFor = unfit[at];
        const why = unfitFor
          ? [unfitFor]
          : [...this.#why(place, at, text, lesson.words, byTerm), ...(reasons.get(at) ?? [])];
        return [{ id: place.reply.id, fit: fits[at] ?? 0, why, also: also.get(at) ?? null }];
      }),
    };
  }

  /** Why each place of those asked for cannot serve, or null. A language that no reply is written in is no reason. */
  #unfit(inquiry: Inquiry, asked: boolean[]): (string | null)[] {
    const readable = this.#places.some(({ reply }, at) => asked[at] && isReadable(reply, inquiry));
    return this.#places.map(({ reply }, at) => {
      if (!asked[at]) return null;
      if (!reply.channels.includes(inquiry.channel)) return `is not for ${inquiry.channel}`;
      return readable && !isReadable(reply, inquiry)
        ? "is not written in a language that the customer reads"
        : null;
    });
  }

  *#read(replies: RankedText[], past: PastInquiry[]): Generator<undefined> {
    const own: Words[] = [];
    for (const reply of replies) {
      own.push(this.#reader.readReply(reply));
      if (own.length % PAUSE === 0) yield;
    }
    const inquiries: Words[] = [];
    for (const one of past) {
      inquiries.push(this.#reader.readInquiry(one));
      if (inquiries.length % PAUSE === 0) yield;
    }
    for (const [index, text] of [...own, ...inquiries].entries()) {
      this.#reader.count(text);
      if (index % PAUSE === 0) yield;
    }
    // Reply by reply, so that postings grow at their ends.
    for (const reply of replies) this.#open(reply);
    const known = past.flatMap((one, index) => {
      const at = this.#placeOf(one);
      return at === undefined ? [] : [{ one, at, text: inquiries[index] ?? [] }];
    });
    const byReply = known.toSorted((a, b) => a.at - b.at);
    const { words, grams, meanings } = this.#reader;
    let next = 0;
    const fresh: NewReply[] = [];
    for (const at of this.#places.keys()) {
      const begin = next;
      while (byReply[next]?.at === at) next += 1;
      const answered = byReply.slice(begin, next);
      const known = answered.map(({ one, text }) => ({ id: one.id, text }));
      this.#places[at]?.past.add(known, (texts) => words.weighAll(texts));
      const pasts = answered.map(({ text }) => text);
      fresh.push({ reply: at, own: own[at] ?? [], pasts });
      if (meanings) yield* meanings.adding(at, own[at] ?? [], OWN_MEANING, pasts);
    }
    yield* words.adding(fresh);
    yield* grams.adding(fresh);
    yield* this.#practise([...this.#places.map((_, at) => ({ at, text: own[at] ?? [] })), ...known]);
  }

  /** Goes over replies and answers again and again, the latest last; over the latest only where all would be too much. */
  *#practise(all: { at: number; text: Words }[]): Generator<undefined> {
    const most = Math.floor(MOST_WORK / Math.max(1, this.#places.length));
    if (most < FEWEST_LESSONS) return;
    const lessons = all.slice(-most).map(({ at, text }) => ({ at, lesson: this.#reader.weigh(text) }));
    const passes = Math.min(PASSES, Math.floor(most / Math.max(1, lessons.length)));
    for (let pass = 0; pass < passes; pass += 1) {
      for (const [index, { at, lesson }] of lessons.entries()) {
        this.#teach(lesson, at);
        if (index % PAUSE === 0) yield;
      }
    }
  }

  /** Ranks inquiries whose answers are known. */
  *#judge(past: PastInquiry[]): Generator<undefined, Scored[]> {
    const judged: Scored[] = [];
    for (const one of past) {
      const right = one.reply === null ? -1 : this.#at.get(one.reply);
      if (right === undefined) continue;
      const text = this.#reader.readInquiry(one);
      const scores = this.#scores(this.#reader.weigh(text));
      judged.push(scoredOf(scores, right));
      if (judged.length % PAUSE === 0) yield;
    }
    return judged;
  }

  #placeOf({ reply }: PastInquiry): number | undefined {
    return reply === null ? undefined : this.#at.get(reply);
  }

  /** The place of a reply, made where it has none. */
  #open(reply: RankedText): number {
    const at = this.#at.get(reply.id) ?? this.#places.length;
    this.#places[at] = { reply, past: this.#places[at]?.past ?? new Remembered() };
    this.#at.set(reply.id, at);
    return at;
  }

  #setOwn(at: number, text: Lesson): void {
    this.#reader.words.setOwn(at, text.words);
    this.#reader.grams.setOwn(at, text.grams);
    this.#reader.meanings?.setOwn(at, text.meaning, OWN_MEANING);
  }

  /** What a text shares with each reply. @param most so many numbers are added up for each kind of terms */
  #sums(text: Lesson, most = MOST_NUMBERS): Sums {
    const count = this.#places.length;
    return {
      words: this.#reader.words.sums(text.words, count, most),
      grams: this.#reader.grams.sums(text.grams, count, most),
    };
  }

  /** How far everything together is for each reply. */
  #scores(text: Lesson): Float32Array {
    const scores = this.#shared(this.#sums(text));
    const meant = foremost(scores, MOST_MEANT);
    const meanings = this.#meant(text, meant);
    for (const [place, at] of meant.entries()) scores[at] = (scores[at] ?? 0) + (meanings[place] ?? 0);
    return scores;
  }

  /** The same for a few replies, in their order. */
  #scoresOf(text: Lesson, replies: readonly number[]): Float32Array {
    const { words, grams } = this.#reader;
    const sums = { words: words.sumsOf(text.words, replies), grams: grams.sumsOf(text.grams, replies) };
    const meanings = this.#meant(text, replies);
    return this.#shared(sums, replies).map((score, place) => score + (meanings[place] ?? 0));
  }

  /** The part of the scores that comes of words and runs of letters. @param replies whose sums these are; all, by default */
  #shared(sums: Sums, replies?: readonly number[]): Float32Array {
    const { words, grams } = this.#reader;
    const scores = taughtSums(this.#reader, sums);
    for (let at = 0; at < scores.length; at += 1) scores[at] = WEIGHTS.taught * (scores[at] ?? 0);
    words.addNearness(scores, sums.words, WEIGHTS.ownWords, WEIGHTS.words, replies);
    grams.addNearness(scores, sums.grams, WEIGHTS.ownGrams, WEIGHTS.grams, replies);
    return scores;
  }

  /** The part that comes of meaning, for replies in their order. */
  #meant({ meaning }: Lesson, replies: readonly number[]): Float32Array {
    const scores = new Float32Array(replies.length);
    this.#reader.meanings?.addTaught(scores, meaning, WEIGHTS.taught * SHARES.meaning, replies);
    this.#reader.meanings?.addNearness(scores, meaning, WEIGHTS.meaning, replies);
    return scores;
  }

  /** One lesson for the linear model. @param wrong a reply that it is known not to be */
  #teach(lesson: Lesson, right: number, wrong?: number): Step | null {
    return teach(
      this.#reader,
      lesson,
      taughtScores(this.#reader, lesson, this.#sums(lesson, MOST_NUMBERS / 3)),
      right,
      wrong,
    );
  }

  /** Bends chances by habit and by how replies fared; together they stay what they were. @returns the words for it, by place */
  #bend(fits: Float32Array, { person, team }: Pick<Asking, "person" | "team">): Map<number, string[]> {
    const reasons = new Map<number, string[]>();
    let before = 0;
    let after = 0;
    for (const [at, { reply }] of this.#places.entries()) {
      const fit = fits[at] ?? 0;
      if (fit < HARDLY) continue;
      const habit = this.#experience.habit(reply.id, person, team);
      const sinking = this.#experience.sinking(reply.id);
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
      const scores = this.#scoresOf(this.#reader.weigh(this.#reader.readPart(sentence)), possible);
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

  #why({ reply, past }: Place, at: number, text: Words, words: Weighed, byTerm: Float32Array): string[] {
    const why = this.#reader.words
      .shared(words, at)
      .filter(({ weight }) => weight > 0.005)
      .slice(0, 4)
      .map(({ term }) => this.#reader.tell(term, text));
    const alike = past.nearest(byTerm, ALIKE);
    if (alike) why.push(`like ${alike.id}`);
    return why.length > 0 ? why : [`“${reply.title}” is near in meaning`];
  }
}

/** Whether a reply is written in a language that the customer reads, as far as both are known. */
function isReadable({ languages }: RankedText, { reads }: Inquiry): boolean {
  if (!reads || !languages) return true;
  return languages.some((one) => reads.some((other) => one.slice(0, 2) === other.slice(0, 2)));
}
