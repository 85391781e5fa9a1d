import { widened } from "../shared/numbers";
import type { Postings } from "./postings";

/** What replies have for terms, gathered reply by reply and given to the terms' postings one after the other (a counting sort). */
export class Entries {
  length = 0;
  #terms = new Int32Array(4096);
  #replies = new Int32Array(4096);
  #layers = new Uint8Array(4096);
  #values = new Float32Array(4096);
  /** By term: how many there are. */
  #counts = new Int32Array(1024);

  push(term: number, reply: number, layer: number, value: number): void {
    const at = this.length;
    if (at === this.#terms.length) this.#widen();
    if (term >= this.#counts.length) this.#counts = widened(this.#counts, term);
    this.#terms[at] = term;
    this.#replies[at] = reply;
    this.#layers[at] = layer;
    this.#values[at] = value;
    this.#counts[term] = (this.#counts[term] ?? 0) + 1;
    this.length += 1;
  }

  /** Gives all that was gathered to the terms' postings, and is empty again. */
  pour(postingsOf: (term: number) => Postings): void {
    const { length } = this;
    const terms = this.#terms;
    const next = new Int32Array(this.#counts.length);
    for (let term = 1; term < next.length; term += 1)
      next[term] = (next[term - 1] ?? 0) + (this.#counts[term - 1] ?? 0);
    const replies = new Int32Array(length);
    const layers = new Uint8Array(length);
    const values = new Float32Array(length);
    for (let at = 0; at < length; at += 1) {
      const term = terms[at] ?? 0;
      const place = next[term] ?? 0;
      next[term] = place + 1;
      replies[place] = this.#replies[at] ?? 0;
      layers[place] = this.#layers[at] ?? 0;
      values[place] = this.#values[at] ?? 0;
    }
    for (let term = 0; term < next.length; term += 1) {
      const count = this.#counts[term] ?? 0;
      const end = next[term] ?? 0;
      if (count > 0) postingsOf(term).extend(replies, layers, values, end - count, end);
    }
    this.length = 0;
    this.#counts.fill(0);
  }

  #widen(): void {
    this.#terms = widened(this.#terms, this.length);
    this.#replies = widened(this.#replies, this.length);
    this.#layers = widened(this.#layers, this.length);
    this.#values = widened(this.#values, this.length);
  }
}
