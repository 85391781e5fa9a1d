import { Postings } from "./postings";

/** A text as weights of terms, its length one. */
export interface Weighed {
  terms: Int32Array;
  weights: Float32Array;
}

interface Term {
  /** How many texts have it. */
  texts: number;
  /** Its weight in replies' own texts, and summed over their past inquiries. */
  own: Postings;
  past: Postings;
}

/** How near an inquiry is to each reply, by what the reply says and by what it answered. Cosines, from 0 to 1. */
export interface Nearness {
  own: Float32Array;
  past: Float32Array;
  /** To both together: the reply's own text counts as `OWN_SHARE` of a whole past. */
  both: Float32Array;
}

/** What a reply's own text weighs beside the centroid of its past inquiries. */
const OWN_SHARE = 0.7;

/**
 * Texts as weighted terms (tf-idf with logarithmic counts, cosine; G. Salton and C. Buckley, 1988) and each reply's past
 * as one centroid (J. J. Rocchio, 1971), over an index from terms to replies. Learning a text touches its terms only;
 * what was weighed stays as it was weighed.
 */
export class Space {
  readonly #ids = new Map<string, number>();
  readonly #terms: Term[] = [];
  readonly #names: string[] = [];
  #texts = 0;
  /** By reply: squared length of the past's sum, and its product with the own text. */
  readonly #pastSquared: number[] = [];
  readonly #ownPast: number[] = [];
  readonly #hasOwn: boolean[] = [];

  /** Counts a text's terms, so that common ones weigh little. To be called before the text is weighed. */
  count(terms: string[]): void {
    this.#texts += 1;
    for (const term of new Set(terms)) {
      let id = this.#ids.get(term);
      if (id === undefined) {
        id = this.#terms.length;
        this.#ids.set(term, id);
        this.#names.push(term);
        this.#terms.push({ texts: 0, own: new Postings(), past: new Postings() });
      }
      const known = this.#terms[id];
      if (known) known.texts += 1;
    }
  }

  /** A text in this space; terms that no text has are left out. */
  weigh(terms: string[]): Weighed {
    const counts = new Map<number, number>();
    for (const term of terms) {
      const id = this.#ids.get(term);
      if (id !== undefined) counts.set(id, (counts.get(id) ?? 0) + 1);
    }
    const ids = Int32Array.from(counts.keys());
    const weights = new Float32Array(ids.length);
    let squared = 0;
    ids.forEach((id, at) => {
      const weight = (1 + Math.log(counts.get(id) ?? 1)) * this.#rarity(id);
      weights[at] = weight;
      squared += weight * weight;
    });
    const length = Math.sqrt(squared) || 1;
    weights.forEach((weight, at) => {
      weights[at] = weight / length;
    });
    return { terms: ids, weights };
  }

  name(term: number): string {
    return this.#names[term] ?? "";
  }

  /** Gives a reply its own text, once. */
  setOwn(reply: number, text: Weighed): void {
    this.#open(reply);
    this.#hasOwn[reply] = text.terms.length > 0;
    each(text, (term, weight) => this.#terms[term]?.own.add(reply, weight));
  }

  /** Adds a past inquiry to a reply. */
  addPast(reply: number, text: Weighed): void {
    this.#open(reply);
    let withPast = 0;
    let withOwn = 0;
    each(text, (term, weight) => {
      const known = this.#terms[term];
      if (!known) return;
      withPast += weight * known.past.of(reply);
      withOwn += weight * known.own.of(reply);
      known.past.add(reply, weight);
    });
    this.#pastSquared[reply] =
      (this.#pastSquared[reply] ?? 0) + 2 * withPast + (text.terms.length > 0 ? 1 : 0);
    this.#ownPast[reply] = (this.#ownPast[reply] ?? 0) + withOwn;
  }

  /**
   * How near a text is to each of so many replies.
   * @param but a reply whose past the text itself is part of: it is compared with the rest of that past
   */
  nearness(text: Weighed, replies: number, but?: number): Nearness {
    const own = new Float32Array(replies);
    const past = new Float32Array(replies);
    const both = new Float32Array(replies);
    each(text, (term, weight) => {
      const known = this.#terms[term];
      known?.own.addTo(own, weight);
      known?.past.addTo(past, weight);
    });
    for (let reply = 0; reply < replies; reply += 1) {
      let squared = this.#pastSquared[reply] ?? 0;
      let ownPast = this.#ownPast[reply] ?? 0;
      let sum = past[reply] ?? 0;
      if (reply === but && text.terms.length > 0) {
        squared = Math.max(0, squared - 2 * sum + 1);
        ownPast -= own[reply] ?? 0;
        sum -= 1;
      }
      const length = squared > 1e-6 ? Math.sqrt(squared) : 0;
      const near = length > 0 ? Math.max(0, sum) / length : 0;
      past[reply] = near;
      const share = this.#hasOwn[reply] ? OWN_SHARE : 0;
      const shared = length > 0 ? ownPast / length : 0;
      const whole = Math.sqrt((length > 0 ? 1 : 0) + share * share + 2 * share * shared);
      both[reply] = whole > 0 ? (near + share * (own[reply] ?? 0)) / whole : 0;
    }
    return { own, past, both };
  }

  /** The terms that a text shares with a reply, by what they weigh, the heaviest first. */
  shared(text: Weighed, reply: number): { term: number; weight: number }[] {
    const found: { term: number; weight: number }[] = [];
    const length = Math.sqrt(this.#pastSquared[reply] ?? 0) || 1;
    each(text, (term, weight) => {
      const known = this.#terms[term];
      const there = known ? OWN_SHARE * known.own.of(reply) + known.past.of(reply) / length : 0;
      if (there > 0) found.push({ term, weight: weight * there });
    });
    return found.sort((a, b) => b.weight - a.weight);
  }

  /** How rare a term is (smoothed inverse document frequency). */
  #rarity(term: number): number {
    return Math.log((1 + this.#texts) / (1 + (this.#terms[term]?.texts ?? 0))) + 1;
  }

  #open(reply: number): void {
    for (let at = this.#pastSquared.length; at <= reply; at += 1) {
      this.#pastSquared.push(0);
      this.#ownPast.push(0);
      this.#hasOwn.push(false);
    }
  }
}

function each({ terms, weights }: Weighed, visit: (term: number, weight: number) => void): void {
  for (let at = 0; at < terms.length; at += 1) visit(terms[at] ?? 0, weights[at] ?? 0);
}

/** The product of two weighed texts: 1 where they are the same. */
export function alikeness(a: Weighed, b: Weighed): number {
  const weights = new Map<number, number>();
  each(a, (term, weight) => weights.set(term, weight));
  let sum = 0;
  each(b, (term, weight) => {
    sum += weight * (weights.get(term) ?? 0);
  });
  return sum;
}
