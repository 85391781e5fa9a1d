import type { WordVectors } from "./vectors";

/**
 * How near texts are in meaning, by the average of their words' vectors with the average of all texts taken off
 * (after S. Arora, Y. Liang and T. Ma, “A Simple but Tough-to-Beat Baseline for Sentence Embeddings”, 2017).
 */
export class Meanings {
  readonly #vectors: WordVectors;
  readonly #mean: Float32Array;
  #texts = 0;
  readonly #sums: Float32Array[] = [];

  constructor(vectors: WordVectors) {
    this.#vectors = vectors;
    this.#mean = new Float32Array(vectors.dimensions);
  }

  /** Takes a text into the average of all texts. */
  count(words: string[], rarity: (word: string) => number): void {
    const direction = this.#direction(words, rarity);
    this.#texts += 1;
    for (let at = 0; at < this.#mean.length; at += 1)
      this.#mean[at] = (this.#mean[at] ?? 0) + ((direction[at] ?? 0) - (this.#mean[at] ?? 0)) / this.#texts;
  }

  /** A text's meaning: a vector of length one, or of zeros where no word is known. */
  of(words: string[], rarity: (word: string) => number): Float32Array {
    const direction = this.#direction(words, rarity);
    if (direction.every((number) => number === 0)) return direction;
    for (let at = 0; at < direction.length; at += 1)
      direction[at] = (direction[at] ?? 0) - (this.#mean[at] ?? 0);
    return unit(direction);
  }

  /** Adds a text to what a reply means. */
  add(reply: number, meaning: Float32Array, factor: number): void {
    for (let at = this.#sums.length; at <= reply; at += 1)
      this.#sums.push(new Float32Array(this.#vectors.dimensions));
    const sum = this.#sums[reply];
    if (sum) meaning.forEach((number, at) => (sum[at] = (sum[at] ?? 0) + factor * number));
  }

  /** Cosine of a meaning to each reply's. @param but a reply that the text itself was added to: it is taken out */
  nearness(meaning: Float32Array, replies: number, but?: number): Float32Array {
    const near = new Float32Array(replies);
    for (let reply = 0; reply < replies; reply += 1) {
      const sum = this.#sums[reply];
      if (!sum) continue;
      let product = 0;
      let squared = 0;
      for (let at = 0; at < sum.length; at += 1) {
        const there = (sum[at] ?? 0) - (reply === but ? (meaning[at] ?? 0) : 0);
        product += there * (meaning[at] ?? 0);
        squared += there * there;
      }
      near[reply] = squared > 1e-9 ? product / Math.sqrt(squared) : 0;
    }
    return near;
  }

  #direction(words: string[], rarity: (word: string) => number): Float32Array {
    const counts = new Map<string, number>();
    for (const word of words) if (this.#vectors.has(word)) counts.set(word, (counts.get(word) ?? 0) + 1);
    const sum = new Float32Array(this.#vectors.dimensions);
    for (const [word, count] of counts) this.#vectors.addTo(sum, word, rarity(word) * (1 + Math.log(count)));
    return unit(sum);
  }
}

function unit(vector: Float32Array): Float32Array {
  let squared = 0;
  for (const number of vector) squared += number * number;
  const length = Math.sqrt(squared) || 1;
  return vector.map((number) => number / length);
}
