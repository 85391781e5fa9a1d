import { LAYERS, OWN, PAST, Postings, TAUGHT } from "./postings";

/** A text as weights of terms, its length one. */
export interface Weighed {
  terms: Int32Array;
  weights: Float32Array;
}

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
export class Space {
  readonly #terms: (Postings | undefined)[] = [];
  /** By reply: its own text as weighed, squared length of the past's sum, and the product of both. */
  readonly #ownText: (Weighed | null)[] = [];
  readonly #pastSquared: number[] = [];
  readonly #ownPast: number[] = [];
  /** By reply: what its own and its past sum count in the cosine to both together. */
  #ownScale = new Float32Array(64);
  #pastScale = new Float32Array(64);
  /** By term: how many texts have it. */
  #texts = new Float64Array(1024);
  #count = 0;
  /** Room for a text's different terms, and for a number by term, cleared after each text. */
  #found = new Int32Array(1024);
  #room = new Float32Array(1024);

  /** Counts a text's terms, so that common ones weigh little. To be called before the text is weighed. */
  count(terms: number[] | Int32Array): void {
    this.#count += 1;
    const found = this.#counted(terms);
    for (let at = 0; at < found; at += 1) {
      const term = this.#found[at] ?? 0;
      if (term >= this.#texts.length) this.#texts = widened(this.#texts, term);
      this.#texts[term] = (this.#texts[term] ?? 0) + 1;
      this.#room[term] = 0;
    }
  }

  /** A text in this space. Terms that no text has are left out, and yet count in its length: what is strange is near to nothing. */
  weigh(terms: number[] | Int32Array): Weighed {
    const found = this.#counted(terms);
    const known = new Int32Array(found);
    const weights = new Float32Array(found);
    const all = logarithm(1 + this.#count) + 1;
    let length = 0;
    let squared = 0;
    for (const term of terms) if (term < 0) squared += STRANGE * all * all;
    for (let at = 0; at < found; at += 1) {
      const term = this.#found[at] ?? 0;
      const times = this.#room[term] ?? 1;
      this.#room[term] = 0;
      const texts = this.#texts[term] ?? 0;
      if (texts === 0) continue;
      const weight = (1 + logarithm(times)) * (all - logarithm(1 + texts));
      known[length] = term;
      weights[length] = weight;
      length += 1;
      squared += weight * weight;
    }
    const scale = 1 / (Math.sqrt(squared) || 1);
    for (let at = 0; at < length; at += 1) weights[at] = (weights[at] ?? 0) * scale;
    return { terms: known.subarray(0, length), weights: weights.subarray(0, length) };
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

  /** Adds many past inquiries to a reply that has none: quicker than one by one. */
  addPasts(reply: number, texts: Weighed[]): void {
    this.#open(reply);
    let found = 0;
    for (const { terms, weights } of texts) {
      for (let at = 0; at < terms.length; at += 1) {
        const term = terms[at] ?? 0;
        if (term >= this.#room.length) this.#room = widened(this.#room, term);
        const sum = this.#room[term] ?? 0;
        if (sum === 0) found = this.#find(term, found);
        this.#room[term] = sum + (weights[at] ?? 0);
      }
    }
    let squared = 0;
    let withOwn = 0;
    for (let at = 0; at < found; at += 1) {
      const term = this.#found[at] ?? 0;
      const sum = this.#room[term] ?? 0;
      this.#room[term] = 0;
      const postings = this.#of(term);
      postings.add(reply, PAST, sum);
      squared += sum * sum;
      withOwn += sum * postings.of(reply, OWN);
    }
    this.#pastSquared[reply] = squared;
    this.#ownPast[reply] = withOwn;
    this.#scale(reply);
  }

  /** Adds a past inquiry to a reply. */
  addPast(reply: number, text: Weighed): void {
    this.#open(reply);
    const { terms, weights } = text;
    let withPast = 0;
    let withOwn = 0;
    for (let at = 0; at < terms.length; at += 1) {
      const weight = weights[at] ?? 0;
      const postings = this.#of(terms[at] ?? 0);
      withPast += weight * postings.add(reply, PAST, weight);
      withOwn += weight * postings.of(reply, OWN);
    }
    this.#pastSquared[reply] = (this.#pastSquared[reply] ?? 0) + 2 * withPast + (terms.length > 0 ? 1 : 0);
    this.#ownPast[reply] = (this.#ownPast[reply] ?? 0) + withOwn;
    this.#scale(reply);
  }

  /** Moves what was taught of a reply along a text. */
  teach(reply: number, text: Weighed, step: number): void {
    each(text, (term, weight) => this.#of(term).add(reply, TAUGHT, step * weight));
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
   * Adds to a list how near a text is to each reply, by its sums: the cosine to what the reply says, times a factor, and
   * the cosine to that and its past together, times another.
   */
  addNearness(near: Float32Array, sums: Float32Array, own: number, both: number): void {
    const ownScale = this.#ownScale;
    const pastScale = this.#pastScale;
    for (let reply = 0, at = 0; reply < near.length; reply += 1, at += LAYERS)
      near[reply] =
        (near[reply] ?? 0) +
        (sums[at + OWN] ?? 0) * (own + both * (ownScale[reply] ?? 0)) +
        (sums[at + PAST] ?? 0) * both * (pastScale[reply] ?? 0);
  }

  /** Adds to a list what was taught of each reply for a text, by its sums, times a factor. */
  addTaught(taught: Float32Array, sums: Float32Array, factor: number): void {
    for (let reply = 0, at = TAUGHT; reply < taught.length; reply += 1, at += LAYERS)
      taught[reply] = (taught[reply] ?? 0) + factor * (sums[at] ?? 0);
  }

  #length(text: Weighed): number {
    let length = 0;
    each(text, (term) => (length += this.#terms[term]?.length ?? 0));
    return length;
  }

  /** The terms that a text shares with a reply, by what they weigh, the heaviest first. */
  shared(text: Weighed, reply: number): { term: number; weight: number }[] {
    const found: { term: number; weight: number }[] = [];
    const length = Math.sqrt(this.#pastSquared[reply] ?? 0) || 1;
    each(text, (term, weight) => {
      const postings = this.#terms[term];
      if (!postings) return;
      const there = OWN_SHARE * postings.of(reply, OWN) + postings.of(reply, PAST) / length;
      if (there > 0) found.push({ term, weight: weight * there });
    });
    return found.sort((a, b) => b.weight - a.weight);
  }

  /** How rare a term is (smoothed inverse document frequency). */
  rarity(term: number): number {
    return logarithm(1 + this.#count) - logarithm(1 + (this.#texts[term] ?? 0)) + 1;
  }

  /** Finds the different terms of a text; how often each occurs stands in the room. @returns how many there are */
  #counted(terms: number[] | Int32Array): number {
    let found = 0;
    for (const term of terms) {
      if (term < 0) continue;
      if (term >= this.#room.length) this.#room = widened(this.#room, term);
      const count = this.#room[term] ?? 0;
      this.#room[term] = count + 1;
      if (count === 0) found = this.#find(term, found);
    }
    return found;
  }

  /** Notes one more term. @returns how many there are now */
  #find(term: number, found: number): number {
    if (found >= this.#found.length) this.#found = widened(this.#found, found);
    this.#found[found] = term;
    return found + 1;
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

/** The same numbers with room for one more at least. */
function widened<Numbers extends Float32Array | Float64Array | Int32Array>(
  numbers: Numbers,
  place: number,
): Numbers {
  const size = Math.max(place + 1, Math.ceil(numbers.length * 1.6));
  const wider = new (numbers.constructor as new (size: number) => Numbers)(size);
  wider.set(numbers);
  return wider;
}

/** Logarithms of small whole numbers are asked for all the time. */
const LOGARITHMS = Float64Array.from({ length: 65_536 }, (_, number) => Math.log(number));

function logarithm(number: number): number {
  return LOGARITHMS[number] ?? Math.log(number);
}

/** Compares a text with others: the product of both, 1 where they are the same. */
export function alikenessTo(text: Weighed): (other: Weighed) => number {
  const weights = new Map<number, number>();
  each(text, (term, weight) => weights.set(term, weight));
  return (other) => {
    let sum = 0;
    each(other, (term, weight) => {
      sum += weight * (weights.get(term) ?? 0);
    });
    return sum;
  };
}
