import { Entries } from "./entries";
import type { Words } from "../words/lexicon";
import { logarithm, widened } from "../shared/numbers";
import { SparseSum } from "./sparse-sum";
import type { TermLists } from "../words/term-lists";
import type { Weighed, Weighings } from "./weighed";
import { LAYERS, OWN, PAST, Postings, LEARNED } from "./postings";

/** A reply that a space knows nothing of yet. */
export interface NewReply {
  reply: number;
  own: Words;
  pasts: readonly Words[];
}

/** So many numbers are gathered before they are given to their terms. */
const MOST_GATHERED = 400_000;
/** What a term that no text has counts beside one that a single text has, squared. */
const STRANGE = 0.5;

/** What a reply's own text weighs beside the centroid of its past inquiries. */
const OWN_SHARE = 0.7;
/**
 * Customers' texts are nearer to each other than to what we write. So that a reply which has answered nothing yet is not
 * buried below those that have, its own text counts so much more.
 */
const NEWCOMER = 1.4;

/**
 * Texts as weighted terms (tf-idf with logarithmic counts, cosine; G. Salton and C. Buckley, 1988) and each reply's past
 * as one centroid (J. J. Rocchio, 1971), over an index from terms to replies. Learning a text touches its terms only;
 * what was weighed stays as it was weighed.
 */
export class VectorSpace {
  readonly #lists: TermLists;
  readonly #terms: (Postings | undefined)[] = [];
  /** By reply: its own text as weighed, squared length of the past's sum, and the product of both. */
  readonly #ownText: (Weighed | null)[] = [];
  readonly #pastSquared: number[] = [];
  readonly #ownPast: number[] = [];
  /** By reply: what its own and its past sum count in the cosine to both together. */
  #ownScale = new Float32Array(64);
  #pastScale = new Float32Array(64);
  /** By term: how many texts have it, and the number of the last of them. */
  #texts = new Int32Array(1024);
  #lastIn = new Int32Array(1024);
  /** By term: how rare it is, 0 where no text has it; current for all terms when as many texts were counted as are now. */
  #rare = new Float64Array(1024);
  #settled = -1;
  #count = 0;
  /** Room for one text's different terms with their weights, and for its counts by term, cleared after each. */
  #found = new Int32Array(1025);
  #weights = new Float32Array(1025);
  #times = new Int32Array(1024);

  /** @param lists the terms of each word; words may be added */
  constructor(lists: TermLists) {
    this.#lists = lists;
  }

  /** Counts a text's terms, so that common ones weigh little. To be called before the text is weighed. */
  count(text: Words): void {
    this.#count += 1;
    this.#widen();
    const count = this.#count;
    const texts = this.#texts;
    const lastIn = this.#lastIn;
    const { starts, terms } = this.#lists;
    for (const word of text) {
      const end = starts[word + 1] ?? 0;
      for (let at = starts[word] ?? 0; at < end; at += 1) {
        const term = terms[at] ?? 0;
        // Without a branch: whether a term was met in this text is anybody's guess.
        texts[term] = (texts[term] ?? 0) + Math.min(1, count - (lastIn[term] ?? 0));
        lastIn[term] = count;
      }
    }
  }

  /** A text in this space. Terms that no text has are left out, and yet count in its length: what is strange is near to nothing. */
  weigh(text: Words): Weighed {
    const length = this.#weigh(text);
    return { terms: this.#found.slice(0, length), weights: this.#weights.slice(0, length) };
  }

  /** Many texts, one after the other in one list. */
  weighAll(texts: readonly Words[]): Weighings {
    let all = { terms: new Int32Array(256), weights: new Float32Array(256) };
    const ends: number[] = [];
    let end = 0;
    for (const text of texts) {
      const length = this.#weigh(text);
      if (end + length > all.terms.length)
        all = { terms: widened(all.terms, end + length), weights: widened(all.weights, end + length) };
      all.terms.set(this.#found.subarray(0, length), end);
      all.weights.set(this.#weights.subarray(0, length), end);
      end += length;
      ends.push(end);
    }
    return { terms: all.terms.slice(0, end), weights: all.weights.slice(0, end), ends };
  }

  /** Gives a reply its own text, in place of the one it had. */
  setOwn(reply: number, text: Weighed): void {
    this.#open(reply);
    const before = this.#ownText[reply];
    if (before) each(before, (term, weight) => this.#of(term).add(reply, OWN, -weight));
    this.#ownText[reply] = text.terms.length > 0 ? text : null;
    let shared = 0;
    each(text, (term, weight) => {
      const postings = this.#of(term);
      postings.add(reply, OWN, weight);
      shared += weight * postings.of(reply, PAST);
    });
    this.#ownPast[reply] = shared;
    this.#scale(reply);
  }

  /**
   * Takes in replies that are new, in the order of their places: quicker than their texts one by one. It pauses after
   * each; nothing is known of them before it ends.
   */
  *adding(replies: Iterable<NewReply>): Generator<undefined> {
    this.#settle();
    const entries = new Entries();
    const sum = new SparseSum();
    const pour = () => entries.pour((term) => this.#of(term));
    for (const { reply, own, pasts } of replies) {
      this.#open(reply);
      const text = this.weigh(own);
      if (text.terms.length > 0) this.#ownText[reply] = text;
      each(text, (term, weight) => entries.push(term, reply, OWN, weight));
      for (const past of pasts) {
        const length = this.#weigh(past);
        sum.add(this.#found, this.#weights, length);
      }
      this.#ownPast[reply] = sum.times(text);
      this.#pastSquared[reply] = sum.take((term, total) => entries.push(term, reply, PAST, total));
      this.#scale(reply);
      if (entries.length > MOST_GATHERED) pour();
      yield;
    }
    pour();
  }

  /** Adds a past inquiry to a reply, or takes one off that was added. */
  addPast(reply: number, text: Weighed, times: 1 | -1 = 1): void {
    this.#open(reply);
    const { terms, weights } = text;
    let withPast = 0;
    let withOwn = 0;
    for (let at = 0; at < terms.length; at += 1) {
      const weight = times * (weights[at] ?? 0);
      const postings = this.#of(terms[at] ?? 0);
      withPast += weight * postings.add(reply, PAST, weight);
      withOwn += weight * postings.of(reply, OWN);
    }
    this.#pastSquared[reply] = (this.#pastSquared[reply] ?? 0) + 2 * withPast + (terms.length > 0 ? 1 : 0);
    this.#ownPast[reply] = (this.#ownPast[reply] ?? 0) + withOwn;
    this.#scale(reply);
  }

  /** Moves what was learned of a reply along a text. */
  adjust(reply: number, text: Weighed, step: number): void {
    each(text, (term, weight) => this.#of(term).add(reply, LEARNED, step * weight));
  }

  /**
   * What each of so many replies shares with a text, layer beside layer.
   * @param most so many numbers are added up, those of the weightiest terms first: in a large library the common ones tell little
   */
  sums(text: Weighed, replies: number, most = Infinity): Float32Array {
    const sums = new Float32Array(replies * LAYERS);
    let left = most;
    for (const at of this.#length(text) > most ? byWeight(text) : text.terms.keys()) {
      const postings = this.#terms[text.terms[at] ?? 0];
      if (!postings) continue;
      postings.addTo(sums, text.weights[at] ?? 0);
      left -= postings.length;
      if (left <= 0) break;
    }
    return sums;
  }

  /**
   * Adds to a list how near a text is to replies, by its sums: the cosine to what each says, times a factor, and the
   * cosine to that and its past together, times another.
   * @param replies whose sums these are; all, by default
   */
  addNearness(
    near: Float32Array,
    sums: Float32Array,
    own: number,
    both: number,
    replies?: readonly number[],
  ): void {
    for (let place = 0, at = 0; place < near.length; place += 1, at += LAYERS) {
      const reply = replies ? (replies[place] ?? 0) : place;
      near[place] =
        (near[place] ?? 0) +
        (sums[at + OWN] ?? 0) * (own + both * (this.#ownScale[reply] ?? 0)) +
        (sums[at + PAST] ?? 0) * both * (this.#pastScale[reply] ?? 0);
    }
  }

  /** Adds to a list what was learned of replies for a text, by its sums, times a factor. */
  addLearned(learned: Float32Array, sums: Float32Array, factor: number): void {
    for (let place = 0, at = LEARNED; place < learned.length; place += 1, at += LAYERS)
      learned[place] = (learned[place] ?? 0) + factor * (sums[at] ?? 0);
  }

  #length(text: Weighed): number {
    let length = 0;
    each(text, (term) => (length += this.#terms[term]?.length ?? 0));
    return length;
  }

  /** The same for a few replies, in their order. */
  sumsOf(text: Weighed, replies: readonly number[]): Float32Array {
    const sums = new Float32Array(replies.length * LAYERS);
    each(text, (term, weight) => {
      const postings = this.#terms[term];
      if (postings) for (const [at, reply] of replies.entries()) postings.addOne(sums, at, reply, weight);
    });
    return sums;
  }

  /** The terms that a text shares with a reply, by what they weigh, the heaviest first. */
  shared(text: Weighed, reply: number): { term: number; weight: number }[] {
    const found: { term: number; weight: number }[] = [];
    const length = Math.sqrt(this.#pastSquared[reply] ?? 0) || 1;
    each(text, (term, weight) => {
      const there = this.#terms[term]?.mixed(reply, OWN_SHARE, 1 / length) ?? 0;
      if (there > 0) found.push({ term, weight: weight * there });
    });
    return found.sort((a, b) => b.weight - a.weight);
  }

  /** A text's weights by term; zeros for all other terms that are known. */
  byTerm(text: Weighed): Float32Array {
    const byTerm = new Float32Array(this.#times.length);
    each(text, (term, weight) => (byTerm[term] = weight));
    return byTerm;
  }

  /** How rare a term is (smoothed inverse document frequency). */
  rarity(term: number): number {
    return logarithm(1 + this.#count) - logarithm(1 + (this.#texts[term] ?? 0)) + 1;
  }

  /** Works out how rare all terms are, as long as no other text is counted. */
  #settle(): void {
    this.#widen();
    for (let term = 0; term < this.#rare.length; term += 1)
      this.#rare[term] = this.#texts[term] === 0 ? 0 : this.rarity(term);
    this.#settled = this.#count;
  }

  /** Finds the different terms of a text; how often each occurs stands in their counts, to be cleared. @returns how many there are */
  #find(text: Words): number {
    this.#widen();
    const found = this.#found;
    const times = this.#times;
    const { starts, terms } = this.#lists;
    let length = 0;
    for (const word of text) {
      const end = starts[word + 1] ?? 0;
      for (let at = starts[word] ?? 0; at < end; at += 1) {
        const term = terms[at] ?? 0;
        const count = times[term] ?? 0;
        times[term] = count + 1;
        // Written in any case, and kept where it is the first: without a branch.
        found[length] = term;
        length += 1 - Math.min(1, count);
      }
    }
    return length;
  }

  /** Weighs a text into the room for its terms and weights. @returns how many there are */
  #weigh(text: Words): number {
    const found = this.#find(text);
    const terms = this.#found;
    const weights = this.#weights;
    const counts = this.#times;
    const rare = this.#rare;
    if (this.#settled !== this.#count)
      for (let at = 0; at < found; at += 1) {
        const term = terms[at] ?? 0;
        rare[term] = this.#texts[term] === 0 ? 0 : this.rarity(term);
      }
    const strange = STRANGE * (logarithm(1 + this.#count) + 1) ** 2;
    let length = 0;
    let squared = 0;
    for (let at = 0; at < found; at += 1) {
      const term = terms[at] ?? 0;
      const times = counts[term] ?? 1;
      counts[term] = 0;
      const weight = (1 + logarithm(times)) * (rare[term] ?? 0);
      if (weight === 0) {
        squared += times * strange;
        continue;
      }
      terms[length] = term;
      weights[length] = weight;
      length += 1;
      squared += weight * weight;
    }
    const scale = 1 / (Math.sqrt(squared) || 1);
    for (let at = 0; at < length; at += 1) weights[at] = (weights[at] ?? 0) * scale;
    return length;
  }

  /** Makes room for the numbers of all terms. */
  #widen(): void {
    const { size } = this.#lists;
    if (size <= this.#times.length) return;
    this.#texts = widened(this.#texts, size);
    this.#lastIn = widened(this.#lastIn, size);
    this.#rare = widened(this.#rare, size);
    this.#times = widened(this.#times, size);
    // One more: the last is written before it is known whether it is kept.
    this.#found = new Int32Array(this.#times.length + 1);
    this.#weights = new Float32Array(this.#times.length + 1);
  }

  #of(term: number): Postings {
    for (let at = this.#terms.length; at <= term; at += 1) this.#terms.push(undefined);
    return (this.#terms[term] ??= new Postings());
  }

  #scale(reply: number): void {
    const squared = this.#pastSquared[reply] ?? 0;
    const inverse = squared > 1e-6 ? 1 / Math.sqrt(squared) : 0;
    const share = this.#ownText[reply] ? OWN_SHARE : 0;
    const whole = Math.sqrt(
      (inverse > 0 ? 1 : 0) + share * share + 2 * share * (this.#ownPast[reply] ?? 0) * inverse,
    );
    if (reply >= this.#ownScale.length) {
      this.#ownScale = widened(this.#ownScale, reply);
      this.#pastScale = widened(this.#pastScale, reply);
    }
    this.#ownScale[reply] = whole > 0 ? (share / whole) * (inverse > 0 ? 1 : NEWCOMER) : 0;
    this.#pastScale[reply] = whole > 0 ? inverse / whole : 0;
  }

  #open(reply: number): void {
    for (let at = this.#pastSquared.length; at <= reply; at += 1) {
      this.#pastSquared.push(0);
      this.#ownPast.push(0);
      this.#ownText.push(null);
    }
  }
}

/** The places of a text's terms, the weightiest first. */
function byWeight({ weights }: Weighed): number[] {
  return [...weights.keys()].sort((a, b) => (weights[b] ?? 0) - (weights[a] ?? 0) || a - b);
}

/** Visits each term of a text with its weight. */
function each({ terms, weights }: Weighed, visit: (term: number, weight: number) => void): void {
  for (let at = 0; at < terms.length; at += 1) visit(terms[at] ?? 0, weights[at] ?? 0);
}
