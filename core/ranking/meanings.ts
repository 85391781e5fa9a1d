import type { WordVectors } from "./vectors";

/** A word of a text whose meaning is known, and how much it counts there. */
export interface Counted {
  /** Its row among the vectors. */
  row: number;
  rarity: number;
}

/** A vector by reply, in one list; grows as replies come. */
class Vectors {
  readonly #dimensions: number;
  #numbers = new Float32Array(0);
  #squared = new Float64Array(0);

  constructor(dimensions: number) {
    this.#dimensions = dimensions;
  }

  /** Adds to a reply's vector. */
  add(reply: number, vector: Float32Array, factor: number): void {
    const from = reply * this.#dimensions;
    if (from >= this.#numbers.length) this.#grow(reply);
    let squared = 0;
    for (let at = 0; at < this.#dimensions; at += 1) {
      const sum = (this.#numbers[from + at] ?? 0) + factor * (vector[at] ?? 0);
      this.#numbers[from + at] = sum;
      squared += sum * sum;
    }
    this.#squared[reply] = squared;
  }

  /**
   * Adds to a list the product of a vector with each reply's, times a factor.
   * @param unit whether each reply's counts as of length one
   * @param only the places of the replies that are asked for; all by default
   */
  addProducts(
    sums: Float32Array,
    vector: Float32Array,
    factor: number,
    unit: boolean,
    only: Iterable<number> = sums.keys(),
  ): void {
    const numbers = this.#numbers;
    const dimensions = this.#dimensions;
    for (const reply of only) {
      const squared = this.#squared[reply] ?? 0;
      if (squared < 1e-9) continue;
      const from = reply * dimensions;
      let product = 0;
      for (let at = 0; at < dimensions; at += 1) product += (numbers[from + at] ?? 0) * (vector[at] ?? 0);
      sums[reply] = (sums[reply] ?? 0) + (factor * product) / (unit ? Math.sqrt(squared) : 1);
    }
  }

  #grow(reply: number): void {
    const size = Math.ceil((reply + 1) * 1.5);
    const numbers = new Float32Array(size * this.#dimensions);
    numbers.set(this.#numbers);
    this.#numbers = numbers;
    const squared = new Float64Array(size);
    squared.set(this.#squared);
    this.#squared = squared;
  }
}

/**
 * How near texts are in meaning, by the average of their words' vectors with the average of all texts taken off
 * (after S. Arora, Y. Liang and T. Ma, “A Simple but Tough-to-Beat Baseline for Sentence Embeddings”, 2017).
 */
export class Meanings {
  readonly #vectors: WordVectors;
  readonly #mean: Float32Array;
  #texts = 0;
  readonly #own: (Float32Array | null)[] = [];
  readonly #whole: Vectors;
  readonly #taught: Vectors;

  constructor(vectors: WordVectors) {
    this.#vectors = vectors;
    this.#mean = new Float32Array(vectors.dimensions);
    this.#whole = new Vectors(vectors.dimensions);
    this.#taught = new Vectors(vectors.dimensions);
  }

  /** Takes a text into the average of all texts. */
  count(words: Counted[]): void {
    const direction = this.#direction(words);
    this.#texts += 1;
    for (let at = 0; at < this.#mean.length; at += 1)
      this.#mean[at] = (this.#mean[at] ?? 0) + ((direction[at] ?? 0) - (this.#mean[at] ?? 0)) / this.#texts;
  }

  /** A text's meaning: a vector of length one, or of zeros where no word is known. */
  of(words: Counted[]): Float32Array {
    const direction = this.#direction(words);
    if (direction.every((number) => number === 0)) return direction;
    for (let at = 0; at < direction.length; at += 1)
      direction[at] = (direction[at] ?? 0) - (this.#mean[at] ?? 0);
    return unit(direction);
  }

  /** Gives a reply the meaning of its own text, in place of the one it had. @param counts how much, beside one past inquiry */
  setOwn(reply: number, meaning: Float32Array, counts: number): void {
    const before = this.#own[reply];
    if (before) this.#whole.add(reply, before, -counts);
    for (let at = this.#own.length; at <= reply; at += 1) this.#own.push(null);
    this.#own[reply] = meaning;
    this.#whole.add(reply, meaning, counts);
  }

  /** Adds a past inquiry to what a reply means. */
  addPast(reply: number, meaning: Float32Array): void {
    this.#whole.add(reply, meaning, 1);
  }

  /** Moves what was taught of a reply along a meaning. */
  teach(reply: number, meaning: Float32Array, step: number): void {
    this.#taught.add(reply, meaning, step);
  }

  /** Adds to a list the cosine of a meaning to each reply's own and past together, times a factor. */
  addNearness(near: Float32Array, meaning: Float32Array, factor: number, only?: Iterable<number>): void {
    this.#whole.addProducts(near, meaning, factor, true, only);
  }

  /** Adds to a list what was taught of each reply for a meaning, times a factor. */
  addTaught(taught: Float32Array, meaning: Float32Array, factor: number, only?: Iterable<number>): void {
    this.#taught.addProducts(taught, meaning, factor, false, only);
  }

  #direction(words: Counted[]): Float32Array {
    const counts = new Map<number, { count: number; rarity: number }>();
    for (const { row, rarity } of words) {
      const known = counts.get(row);
      if (known) known.count += 1;
      else counts.set(row, { count: 1, rarity });
    }
    const sum = new Float32Array(this.#vectors.dimensions);
    for (const [row, { count, rarity }] of counts)
      this.#vectors.addTo(sum, row, rarity * (1 + Math.log(count)));
    return unit(sum);
  }
}

function unit(vector: Float32Array): Float32Array {
  let squared = 0;
  for (const number of vector) squared += number * number;
  const length = Math.sqrt(squared) || 1;
  return vector.map((number) => number / length);
}
