import { widened } from "../shared/numbers";

/** The terms of each of many items (the grams of words, say), one list after the other. */
export class TermLists {
  /** Item by item: where its terms begin; the next item's beginning is their end. */
  starts = new Int32Array(1024);
  terms = new Int32Array(4096);
  /** One more than the highest term. */
  size = 0;
  #items = 0;
  #length = 0;

  /** Adds the terms of one more item. */
  push(terms: number[]): void {
    for (const term of terms) {
      if (this.#length === this.terms.length) this.terms = widened(this.terms, this.#length);
      this.terms[this.#length] = term;
      this.#length += 1;
      this.size = Math.max(this.size, term + 1);
    }
    this.#items += 1;
    if (this.#items >= this.starts.length) this.starts = widened(this.starts, this.#items);
    this.starts[this.#items] = this.#length;
  }

  /** Forgets all but the first items. @param size one more than their highest term */
  shrink(items: number, size: number): void {
    this.#items = items;
    this.#length = this.starts[items] ?? 0;
    this.size = size;
  }

  /** The first term of an item, or -1 where it has none. */
  first(item: number): number {
    const start = this.starts[item] ?? 0;
    return start < (this.starts[item + 1] ?? 0) ? (this.terms[start] ?? -1) : -1;
  }
}
