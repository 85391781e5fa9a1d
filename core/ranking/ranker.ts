import { Meanings } from "./meanings";
import { alikeness, Space, type Weighed } from "./space";
import { gramsOf, inquiryText, isTelling, stemsOf, wordsOf } from "./text";
import type { WordVectors } from "./vectors";

/** A reply as ranking reads it. `body` is its text form or its plain words. */
export interface RankedText {
  id: string;
  title: string;
  tags: string[];
  channels: string[];
  body: string;
}

export interface Inquiry {
  channel: string;
  subject: string;
  body: string;
}

/** An inquiry that was answered, and by which reply. */
export interface PastInquiry extends Inquiry {
  /** What colleagues call it: a case number. */
  id: string;
  reply: string;
}

/** A reply's place for an inquiry. */
export interface Fit {
  id: string;
  /** How likely it is the one to send, from 0 to 1; of all replies together, 1. */
  fit: number;
  /** What speaks for it, in words that a person can check. */
  why: string[];
}

/** What each kind of nearness counts. They were chosen on inquiries of several kinds and hold for any library. */
const WEIGHTS = { ownWords: 16, ownGrams: 17, words: 28, grams: 28, meaning: 4.1 };
/** What a reply's own text counts beside one past inquiry, in its meaning. */
const OWN_MEANING = 2;
/** The title and the tags say most in the fewest words. */
const TITLE_COUNTS = 3;
const TAGS_COUNT = 2;
/** So many of the latest past inquiries say how sure a fit is, and are kept to be named. */
const CALIBRATED_ON = 400;
const REMEMBERED = 100;

interface Text {
  words: string[];
  stems: string[];
  grams: string[];
}

interface Remembered {
  id: string;
  text: Weighed;
}

interface Place {
  reply: RankedText;
  past: Remembered[];
}

/**
 * Which reply fits an inquiry. Knows the replies' own texts from the beginning and learns from every answer; what it knows
 * lives in memory, and the same texts in the same order always give the same places.
 */
export class Ranker {
  readonly #words = new Space();
  readonly #grams = new Space();
  readonly #meanings: Meanings | null;
  readonly #places: Place[] = [];
  readonly #at = new Map<string, number>();
  readonly #textsWith = new Map<string, number>();
  #texts = 0;
  /** What scores are divided by, so that fits are chances. */
  #doubt = 1;

  /**
   * @param past the earlier answers, the oldest first; those of replies that are not there count for the words only
   * @param vectors meanings of words, or null to do without
   */
  constructor(replies: RankedText[], past: PastInquiry[], vectors: WordVectors | null) {
    this.#meanings = vectors && new Meanings(vectors);
    const own = replies.map((reply) => this.#count(this.#read(ownText(reply))));
    const inquiries = past.map((one) => this.#count(this.#read(inquiryText(one))));
    replies.forEach((reply, at) => {
      this.#places.push({ reply, past: [] });
      this.#at.set(reply.id, at);
      const text = own[at];
      if (text) this.#setOwn(at, text);
    });
    past.forEach((one, index) => {
      const text = inquiries[index];
      if (text) this.#addPast(one, text);
    });
    this.#calibrate(past.slice(-CALIBRATED_ON), inquiries.slice(-CALIBRATED_ON));
  }

  /** Learns from an answer: this inquiry was answered by this reply. Answers by unknown replies are left alone. */
  learn(past: PastInquiry): void {
    this.#addPast(past, this.#count(this.#read(inquiryText(past))));
  }

  /**
   * The replies for an inquiry, the likeliest first; those that do not suit its channel last, saying so.
   * @param top how many
   * @param among the ids of those that are asked for; all by default
   */
  rank(inquiry: Inquiry, top: number, among?: ReadonlySet<string>): Fit[] {
    const text = this.#read(inquiryText(inquiry));
    const weighed = this.#words.weigh(text.stems);
    const scores = this.#scores(text, weighed);
    const suits = (at: number) => this.#places[at]?.reply.channels.includes(inquiry.channel) ?? false;
    const asked = (at: number) => among?.has(this.#places[at]?.reply.id ?? "") ?? true;
    const order = [...scores.keys()]
      .filter(asked)
      .sort((a, b) => Number(suits(b)) - Number(suits(a)) || (scores[b] ?? 0) - (scores[a] ?? 0) || a - b);
    const fits = chances(scores, this.#doubt, (at) => suits(at) && asked(at));
    return order.slice(0, top).flatMap((at) => {
      const place = this.#places[at];
      if (!place) return [];
      const why = suits(at) ? this.#why(place, at, text, weighed) : [`is not for ${inquiry.channel}`];
      return [{ id: place.reply.id, fit: fits[at] ?? 0, why }];
    });
  }

  #read(text: string): Text {
    const words = wordsOf(text);
    const stems = stemsOf(words);
    return { words: words.filter(isTelling), stems, grams: gramsOf(words) };
  }

  #count(text: Text): Text {
    this.#words.count(text.stems);
    this.#grams.count(text.grams);
    this.#texts += 1;
    for (const word of new Set(text.words)) this.#textsWith.set(word, (this.#textsWith.get(word) ?? 0) + 1);
    return text;
  }

  readonly #rarity = (word: string) => Math.log((this.#texts + 1) / ((this.#textsWith.get(word) ?? 0) + 0.5));

  #setOwn(at: number, text: Text): void {
    this.#words.setOwn(at, this.#words.weigh(text.stems));
    this.#grams.setOwn(at, this.#grams.weigh(text.grams));
    this.#meanings?.count(text.words, this.#rarity);
    this.#meanings?.add(at, this.#meanings.of(text.words, this.#rarity), OWN_MEANING);
  }

  #addPast(past: PastInquiry, text: Text): void {
    const at = this.#at.get(past.reply);
    if (at === undefined) return;
    const words = this.#words.weigh(text.stems);
    this.#words.addPast(at, words);
    this.#grams.addPast(at, this.#grams.weigh(text.grams));
    this.#meanings?.count(text.words, this.#rarity);
    this.#meanings?.add(at, this.#meanings.of(text.words, this.#rarity), 1);
    const remembered = this.#places[at]?.past;
    remembered?.push({ id: past.id, text: words });
    if (remembered && remembered.length > REMEMBERED) remembered.shift();
  }

  /** @param but the reply that this very text was learned for: it is ranked as if it had not been */
  #scores(text: Text, weighed: Weighed, but?: number): Float32Array {
    const count = this.#places.length;
    const words = this.#words.nearness(weighed, count, but);
    const grams = this.#grams.nearness(this.#grams.weigh(text.grams), count, but);
    const meaning = this.#meanings?.nearness(this.#meanings.of(text.words, this.#rarity), count, but);
    return words.own.map(
      (own, at) =>
        WEIGHTS.ownWords * own +
        WEIGHTS.ownGrams * (grams.own[at] ?? 0) +
        WEIGHTS.words * (words.both[at] ?? 0) +
        WEIGHTS.grams * (grams.both[at] ?? 0) +
        WEIGHTS.meaning * (meaning?.[at] ?? 0),
    );
  }

  /**
   * Finds the temperature at which the fits of past inquiries, each ranked as if it had not been learned, are likeliest
   * (C. Guo and others, “On Calibration of Modern Neural Networks”, 2017).
   */
  #calibrate(past: PastInquiry[], inquiries: Text[]): void {
    const known = past.flatMap((one, index) => {
      const at = this.#at.get(one.reply);
      const text = inquiries[index];
      if (at === undefined || !text) return [];
      return [{ at, scores: this.#scores(text, this.#words.weigh(text.stems), at) }];
    });
    if (known.length < 20) return;
    const loss = (doubt: number) =>
      known.reduce(
        (sum, { at, scores }) => sum - Math.log(Math.max(chances(scores, doubt)[at] ?? 0, 1e-12)),
        0,
      );
    let [low, high] = [Math.log(0.1), Math.log(100)];
    for (let step = 0; step < 40; step += 1) {
      const third = (high - low) / 3;
      if (loss(Math.exp(low + third)) < loss(Math.exp(high - third))) high -= third;
      else low += third;
    }
    this.#doubt = Math.exp((low + high) / 2);
  }

  #why({ reply, past }: Place, at: number, { words, stems }: Text, text: Weighed): string[] {
    // Told as the inquiry has them.
    const written = new Map(stems.map((stem, index) => [stem, words[index] ?? stem]));
    const why = this.#words
      .shared(text, at)
      .filter(({ weight }) => weight > 0.005)
      .slice(0, 4)
      .map(({ term }) => `“${written.get(this.#words.name(term)) ?? ""}”`);
    let best: { id: string; alike: number } | null = null;
    for (const one of past) {
      const alike = alikeness(text, one.text);
      if (alike > (best?.alike ?? 0.2)) best = { id: one.id, alike };
    }
    if (best) why.push(`like ${best.id}`);
    return why.length > 0 ? why : [`“${reply.title}” is near in meaning`];
  }
}

function ownText({ title, tags, body }: RankedText): string {
  return [
    ...Array.from({ length: TITLE_COUNTS }, () => title),
    ...Array.from({ length: TAGS_COUNT }, () => tags.join(" ")),
    body,
  ].join("\n");
}

/** Scores as chances that add up to one (softmax); those that do not suit have none. */
function chances(
  scores: Float32Array,
  doubt: number,
  suits: (at: number) => boolean = () => true,
): Float32Array {
  const most = scores.reduce((best, score, at) => (suits(at) ? Math.max(best, score) : best), -Infinity);
  const powers = scores.map((score, at) => (suits(at) ? Math.exp((score - most) / doubt) : 0));
  const sum = powers.reduce((total, power) => total + power, 0) || 1;
  return powers.map((power) => power / sum);
}
