import type { Words } from "../words/lexicon";
import { PAUSE } from "../shared/pause";
import type { WordVectors } from "./word-vectors";

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
   * Adds to a list the product of a vector with replies' vectors, times a factor.
   * @param unit whether each reply's counts as of length one
   * @param replies whose products these are, in their order; all, by default
   */
  addProducts(
    products: Float32Array,
    vector: Float32Array,
    factor: number,
    unit: boolean,
    replies?: readonly number[],
  ): void {
    for (let place = 0; place < products.length; place += 1) {
      const reply = replies ? (replies[place] ?? 0) : place;
      const squared = this.#squared[reply] ?? 0;
      if (squared < 1e-9) continue;
      const product = productOf(this.#numbers, reply * this.#dimensions, vector);
      products[place] = (products[place] ?? 0) + (factor * product) / (unit ? Math.sqrt(squared) : 1);
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
export class TextVectors {
  readonly #vectors: WordVectors;
  readonly #rows: readonly number[];
  readonly #rarityOf: (word: number) => number;
  readonly #mean: Float32Array;
  #texts = 0;
  readonly #own: (Float32Array | null)[] = [];
  readonly #whole: Vectors;
  readonly #learned: Vectors;
  /** How often each row occurs in the text that is read; cleared after it. */
  readonly #times: Uint16Array;
  readonly #room: Float32Array;

  /**
   * @param rows by word: where it stands among the vectors, or -1
   * @param rarityOf how rare a word is: rare words say most of what is meant
   */
  constructor(vectors: WordVectors, rows: readonly number[], rarityOf: (word: number) => number) {
    this.#vectors = vectors;
    this.#rows = rows;
    this.#rarityOf = rarityOf;
    this.#room = new Float32Array(vectors.dimensions);
    this.#times = new Uint16Array(vectors.size);
    this.#mean = new Float32Array(vectors.dimensions);
    this.#whole = new Vectors(vectors.dimensions);
    this.#learned = new Vectors(vectors.dimensions);
  }

  /** Takes a text into the average of all texts. */
  count(text: Words): void {
    const direction = this.#direction(text);
    const mean = this.#mean;
    this.#texts += 1;
    for (let at = 0; at < mean.length; at += 1)
      mean[at] = (mean[at] ?? 0) + ((direction[at] ?? 0) - (mean[at] ?? 0)) / this.#texts;
  }

  /** A text's meaning: a vector of length one, or of zeros where no word is known. */
  of(text: Words): Float32Array {
    return this.#meaning(text).slice();
  }

  /** Gives a reply the meaning of its own text, in place of the one it had. @param counts how much, beside one past inquiry */
  setOwn(reply: number, meaning: Float32Array, counts: number): void {
    const before = this.#own[reply];
    if (before) this.#whole.add(reply, before, -counts);
    for (let at = this.#own.length; at <= reply; at += 1) this.#own.push(null);
    this.#own[reply] = meaning;
    this.#whole.add(reply, meaning, counts);
  }

  /** Gives a new reply the meaning of its own text and of its past inquiries, with pauses. @param counts as above */
  *adding(reply: number, own: Words, counts: number, pasts: readonly Words[]): Generator<undefined> {
    this.setOwn(reply, this.of(own), counts);
    for (const [index, text] of pasts.entries()) {
      this.addPast(reply, this.#meaning(text));
      if (index % PAUSE === 0) yield;
    }
  }

  /** Adds a past inquiry to what a reply means, or takes one off that was added. */
  addPast(reply: number, meaning: Float32Array, times: 1 | -1 = 1): void {
    this.#whole.add(reply, meaning, times);
  }

  /** Moves what was learned of a reply along a meaning. */
  adjust(reply: number, meaning: Float32Array, step: number): void {
    this.#learned.add(reply, meaning, step);
  }

  /**
   * Adds to a list the cosine of a meaning to each reply's own and past together, times a factor.
   * @param replies whose cosines these are, in their order; all, by default
   */
  addNearness(near: Float32Array, meaning: Float32Array, factor: number, replies?: readonly number[]): void {
    this.#whole.addProducts(near, meaning, factor, true, replies);
  }

  /** Adds to a list what was learned of each reply for a meaning, times a factor. @param replies as above */
  addLearned(
    learned: Float32Array,
    meaning: Float32Array,
    factor: number,
    replies?: readonly number[],
  ): void {
    this.#learned.addProducts(learned, meaning, factor, false, replies);
  }

  /** A text's meaning, in the room for one vector. */
  #meaning(text: Words): Float32Array {
    const direction = this.#direction(text);
    if (productOf(direction, 0, direction) === 0) return direction;
    for (let at = 0; at < direction.length; at += 1)
      direction[at] = (direction[at] ?? 0) - (this.#mean[at] ?? 0);
    return toUnit(direction);
  }

  /** The sum of the directions of a text's words, of length one, in the room for one vector. */
  #direction(text: Words): Float32Array {
    const times = this.#times;
    const rows = this.#rows;
    for (const word of text) {
      const row = rows[word] ?? -1;
      if (row >= 0) times[row] = (times[row] ?? 0) + 1;
    }
    const sum = this.#room.fill(0);
    for (const word of text) {
      const row = rows[word] ?? -1;
      const count = row < 0 ? 0 : (times[row] ?? 0);
      if (count === 0) continue;
      // Once a row, with its first word.
      times[row] = 0;
      this.#vectors.addTo(sum, row, this.#rarityOf(word) * (1 + Math.log(count)));
    }
    return toUnit(sum);
  }
}

/** The product of a vector with that which begins at a place of a list, four numbers at a time. */
function productOf(list: Float32Array, from: number, vector: Float32Array): number {
  const whole = vector.length - (vector.length % 4);
  let [a, b, c, d] = [0, 0, 0, 0];
  for (let at = 0; at < whole; at += 4) {
    a += (list[from + at] ?? 0) * (vector[at] ?? 0);
    b += (list[from + at + 1] ?? 0) * (vector[at + 1] ?? 0);
    c += (list[from + at + 2] ?? 0) * (vector[at + 2] ?? 0);
    d += (list[from + at + 3] ?? 0) * (vector[at + 3] ?? 0);
  }
  for (let at = whole; at < vector.length; at += 1) a += (list[from + at] ?? 0) * (vector[at] ?? 0);
  return a + b + c + d;
}

/** Gives a vector the length one, where it has any. */
function toUnit(vector: Float32Array): Float32Array {
  const length = Math.sqrt(productOf(vector, 0, vector)) || 1;
  for (let at = 0; at < vector.length; at += 1) vector[at] = (vector[at] ?? 0) / length;
  return vector;
}
