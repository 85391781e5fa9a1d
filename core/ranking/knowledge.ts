import type { PastInquiry, RankedText } from "./inquiry";
import type { Words } from "./words/lexicon";
import { foremost } from "./shared/order";
import { PAUSE } from "./shared/pause";
import { Reader } from "./reader";
import { Remembered } from "./terms/remembered";
import type { NewReply } from "./terms/vector-space";
import {
  SHARES,
  modelScores,
  modelSums,
  revert,
  train,
  type Features,
  type ModelUpdate,
  type Sums,
} from "./learning/linear-model";
import type { WordVectors } from "./vectors/word-vectors";

/** What each kind of nearness counts. They were chosen on inquiries of several kinds and hold for any library. */
const WEIGHTS = { ownTerms: 16, ownGrams: 17, words: 28, grams: 28, meaning: 4.1, learned: 12 };
/** What a reply's own text counts beside one past inquiry, in its meaning. */
const OWN_MEANING = 2;
/** In a large library, the meaning of so many replies is compared: those that are foremost by all else. */
const MOST_MEANT = 1000;
/** How often the linear model goes over what it learns from, and how much work that may be: examples times replies. */
const PASSES = 15;
const MOST_WORK = 2_000_000;
/** Fewer examples than this teach nothing about so many replies: they are left to the answers that come. */
const FEWEST_LESSONS = 500;
/** In a large library a text's common terms tell little, and so many numbers are added up for each kind of terms. */
const MOST_NUMBERS = 40_000;

/** Takes back what was learned from an answer, but for how rare words are. */
export type Unlearn = () => void;

export interface Place {
  reply: RankedText;
  past: Remembered;
}

/** What is known of replies by what they say and what they answered, each reply at a place of its own. */
export class Knowledge {
  readonly reader: Reader;
  readonly places: Place[] = [];
  readonly #at = new Map<string, number>();

  constructor(vectors: WordVectors | null) {
    this.reader = new Reader(vectors);
  }

  /** Takes in a reply, or its new text in place of the one it had. */
  put(reply: RankedText): void {
    const text = this.reader.readReply(reply);
    this.reader.count(text);
    const features = this.reader.weigh(text);
    const at = this.#open(reply);
    this.#setOwn(at, features);
    this.#train(features, at);
  }

  /** Learns what was asked and by which reply it was answered. @returns what takes it back */
  learn(past: PastInquiry): Unlearn {
    const text = this.reader.readInquiry(past);
    this.reader.count(text);
    const features = this.reader.weigh(text);
    const at = this.placeOf(past);
    if (at === undefined) return () => undefined;
    this.#addPast(at, features, 1);
    this.places[at]?.past.add([{ id: past.id, text }], (texts) => this.reader.words.weighAll(texts));
    const steps = [this.#train(features, at)];
    for (const swapped of past.swapped ?? []) {
      const wrong = this.#at.get(swapped);
      if (wrong !== undefined) steps.push(this.#train(features, at, wrong));
    }
    return () => {
      this.#addPast(at, features, -1);
      this.places[at]?.past.remove(past.id);
      for (const step of steps) revert(this.reader, features, step);
    };
  }

  #addPast(at: number, { words, grams, meaning }: Features, times: 1 | -1): void {
    this.reader.words.addPast(at, words, times);
    this.reader.grams.addPast(at, grams, times);
    this.reader.textVectors?.addPast(at, meaning, times);
  }

  /** Takes in new replies and the past, with pauses. */
  *reading(replies: RankedText[], past: PastInquiry[]): Generator<undefined> {
    const own: Words[] = [];
    for (const reply of replies) {
      own.push(this.reader.readReply(reply));
      if (own.length % PAUSE === 0) yield;
    }
    const inquiries: Words[] = [];
    for (const one of past) {
      inquiries.push(this.reader.readInquiry(one));
      if (inquiries.length % PAUSE === 0) yield;
    }
    for (const [index, text] of [...own, ...inquiries].entries()) {
      this.reader.count(text);
      if (index % PAUSE === 0) yield;
    }
    // Reply by reply, so that postings grow at their ends.
    for (const reply of replies) this.#open(reply);
    const known = past.flatMap((one, index) => {
      const at = this.placeOf(one);
      return at === undefined ? [] : [{ one, at, text: inquiries[index] ?? [] }];
    });
    const byReply = known.toSorted((a, b) => a.at - b.at);
    const { words, grams, textVectors } = this.reader;
    let next = 0;
    const fresh: NewReply[] = [];
    for (const at of this.places.keys()) {
      const begin = next;
      while (byReply[next]?.at === at) next += 1;
      const answered = byReply.slice(begin, next);
      const known = answered.map(({ one, text }) => ({ id: one.id, text }));
      this.places[at]?.past.add(known, (texts) => words.weighAll(texts));
      const pasts = answered.map(({ text }) => text);
      fresh.push({ reply: at, own: own[at] ?? [], pasts });
      if (textVectors) yield* textVectors.adding(at, own[at] ?? [], OWN_MEANING, pasts);
    }
    yield* words.adding(fresh);
    yield* grams.adding(fresh);
    yield* this.#practise([...this.places.map((_, at) => ({ at, text: own[at] ?? [] })), ...known]);
  }

  /** Goes over replies and answers again and again, the latest last; over the latest only where all would be too much. */
  *#practise(all: { at: number; text: Words }[]): Generator<undefined> {
    const most = Math.floor(MOST_WORK / Math.max(1, this.places.length));
    if (most < FEWEST_LESSONS) return;
    const examples = all.slice(-most).map(({ at, text }) => ({ at, features: this.reader.weigh(text) }));
    const passes = Math.min(PASSES, Math.floor(most / Math.max(1, examples.length)));
    for (let pass = 0; pass < passes; pass += 1) {
      for (const [index, { at, features }] of examples.entries()) {
        this.#train(features, at);
        if (index % PAUSE === 0) yield;
      }
    }
  }

  /** The place of the reply that answered an inquiry; undefined where it was none that is here. */
  placeOf({ reply }: PastInquiry): number | undefined {
    return reply === null ? undefined : this.#at.get(reply);
  }

  /** The place of a reply, made where it has none. */
  #open(reply: RankedText): number {
    const at = this.#at.get(reply.id) ?? this.places.length;
    this.places[at] = { reply, past: this.places[at]?.past ?? new Remembered() };
    this.#at.set(reply.id, at);
    return at;
  }

  #setOwn(at: number, text: Features): void {
    this.reader.words.setOwn(at, text.words);
    this.reader.grams.setOwn(at, text.grams);
    this.reader.textVectors?.setOwn(at, text.meaning, OWN_MEANING);
  }

  /** What a text shares with each reply. @param most so many numbers are added up for each kind of terms */
  #sums(text: Features, most = MOST_NUMBERS): Sums {
    const count = this.places.length;
    return {
      words: this.reader.words.sums(text.words, count, most),
      grams: this.reader.grams.sums(text.grams, count, most),
    };
  }

  /** How far everything together is for each reply. */
  scores(text: Features): Float32Array {
    const scores = this.#shared(this.#sums(text));
    const meant = foremost(scores, MOST_MEANT);
    const meanings = this.#meant(text, meant);
    for (const [place, at] of meant.entries()) scores[at] = (scores[at] ?? 0) + (meanings[place] ?? 0);
    return scores;
  }

  /** The same for a few replies, in their order. */
  scoresOf(text: Features, replies: readonly number[]): Float32Array {
    const { words, grams } = this.reader;
    const sums = { words: words.sumsOf(text.words, replies), grams: grams.sumsOf(text.grams, replies) };
    const meanings = this.#meant(text, replies);
    return this.#shared(sums, replies).map((score, place) => score + (meanings[place] ?? 0));
  }

  /** The part of the scores that comes of words and runs of letters. @param replies whose sums these are; all, by default */
  #shared(sums: Sums, replies?: readonly number[]): Float32Array {
    const { words, grams } = this.reader;
    const scores = modelSums(this.reader, sums);
    for (let at = 0; at < scores.length; at += 1) scores[at] = WEIGHTS.learned * (scores[at] ?? 0);
    words.addNearness(scores, sums.words, WEIGHTS.ownTerms, WEIGHTS.words, replies);
    grams.addNearness(scores, sums.grams, WEIGHTS.ownGrams, WEIGHTS.grams, replies);
    return scores;
  }

  /** The part that comes of meaning, for replies in their order. */
  #meant({ meaning }: Features, replies: readonly number[]): Float32Array {
    const scores = new Float32Array(replies.length);
    this.reader.textVectors?.addLearned(scores, meaning, WEIGHTS.learned * SHARES.meaning, replies);
    this.reader.textVectors?.addNearness(scores, meaning, WEIGHTS.meaning, replies);
    return scores;
  }

  /** One step of the linear model. @param wrong a reply that it is known not to be */
  #train(features: Features, right: number, wrong?: number): ModelUpdate | null {
    return train(
      this.reader,
      features,
      modelScores(this.reader, features, this.#sums(features, MOST_NUMBERS / 3)),
      right,
      wrong,
    );
  }
}
