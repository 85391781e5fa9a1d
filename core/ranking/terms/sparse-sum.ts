import { widened } from "../shared/numbers";
import type { Weighed } from "./weighed";

/** The sum of many texts, by term. */
export class SparseSum {
  /** By term; zeros where nothing was added. */
  #sums = new Float32Array(1024);
  #terms = new Int32Array(1024);
  #length = 0;

  /** Adds so many terms with their weights, which are above zero. */
  add(terms: Int32Array, weights: Float32Array, length: number): void {
    let sums = this.#sums;
    for (let at = 0; at < length; at += 1) {
      const term = terms[at] ?? 0;
      if (term >= sums.length) {
        this.#sums = widened(this.#sums, term);
        sums = this.#sums;
      }
      const sum = sums[term] ?? 0;
      if (sum === 0) this.#meet(term);
      sums[term] = sum + (weights[at] ?? 0);
    }
  }

  /** The product with a text. */
  times({ terms, weights }: Weighed): number {
    let product = 0;
    for (let at = 0; at < terms.length; at += 1)
      product += (weights[at] ?? 0) * (this.#sums[terms[at] ?? 0] ?? 0);
    return product;
  }

  /** Tells the sum of each term, and is empty again. @returns its squared length */
  take(told: (term: number, sum: number) => void): number {
    let squared = 0;
    for (let at = 0; at < this.#length; at += 1) {
      const term = this.#terms[at] ?? 0;
      const sum = this.#sums[term] ?? 0;
      this.#sums[term] = 0;
      squared += sum * sum;
      told(term, sum);
    }
    this.#length = 0;
    return squared;
  }

  #meet(term: number): void {
    if (this.#length === this.#terms.length) this.#terms = widened(this.#terms, this.#length);
    this.#terms[this.#length] = term;
    this.#length += 1;
  }
}
