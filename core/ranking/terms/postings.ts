/** What is kept of a reply for a term: its weight in the reply's own text, in its past, and what was learned. */
export const OWN = 0;
export const PAST = 1;
export const LEARNED = 2;
export const LAYERS = 3;

/** Numbers of layers by reply, in the order of the replies' places, for one term. Grows in place. */
export class Postings {
  length = 0;
  #replies = new Int32Array(2);
  /** Layer beside layer, reply after reply. */
  #values = new Float32Array(2 * LAYERS);

  /** Adds to a reply's number. @returns what it was */
  add(reply: number, layer: number, value: number): number {
    const at = this.#place(reply) * LAYERS + layer;
    const before = this.#values[at] ?? 0;
    this.#values[at] = before + value;
    return before;
  }

  /** Gives replies their numbers, from one place of the lists to before another: replies in their order, none before those that are here. */
  extend(replies: Int32Array, layers: Uint8Array, values: Float32Array, from: number, to: number): void {
    if (this.length + to - from > this.#replies.length) this.#grow(this.length + to - from);
    for (let at = from; at < to; at += 1) {
      const reply = replies[at] ?? 0;
      if (this.length === 0 || this.#replies[this.length - 1] !== reply) {
        this.#replies[this.length] = reply;
        this.#values.fill(0, this.length * LAYERS, (this.length + 1) * LAYERS);
        this.length += 1;
      }
      this.#values[(this.length - 1) * LAYERS + (layers[at] ?? 0)] = values[at] ?? 0;
    }
  }

  /** Adds one reply's numbers, times a factor, to a place in a list of as many layers. */
  addOne(sums: Float32Array, place: number, reply: number, factor: number): void {
    const at = this.#find(reply);
    if (!this.#isAt(at, reply)) return;
    for (let layer = 0; layer < LAYERS; layer += 1) {
      const to = place * LAYERS + layer;
      sums[to] = (sums[to] ?? 0) + factor * (this.#values[at * LAYERS + layer] ?? 0);
    }
  }

  /** A reply's own weight and its past's together, each times a factor. */
  mixed(reply: number, own: number, past: number): number {
    const at = this.#find(reply);
    if (!this.#isAt(at, reply)) return 0;
    return own * (this.#values[at * LAYERS + OWN] ?? 0) + past * (this.#values[at * LAYERS + PAST] ?? 0);
  }

  /** Adds each reply's numbers, times a factor, to its place in a list of as many layers. */
  addTo(sums: Float32Array, factor: number): void {
    const replies = this.#replies;
    const values = this.#values;
    const { length } = this;
    for (let at = 0, from = 0; at < length; at += 1, from += LAYERS) {
      const to = (replies[at] ?? 0) * LAYERS;
      sums[to] = (sums[to] ?? 0) + factor * (values[from] ?? 0);
      sums[to + 1] = (sums[to + 1] ?? 0) + factor * (values[from + 1] ?? 0);
      sums[to + 2] = (sums[to + 2] ?? 0) + factor * (values[from + 2] ?? 0);
    }
  }

  of(reply: number, layer: number): number {
    const at = this.#find(reply);
    return this.#isAt(at, reply) ? (this.#values[at * LAYERS + layer] ?? 0) : 0;
  }

  /** The place of a reply, made where it has none. */
  #place(reply: number): number {
    const at = this.#find(reply);
    if (this.#isAt(at, reply)) return at;
    if (this.length === this.#replies.length) this.#grow(this.length + 1);
    if (at < this.length) {
      this.#replies.copyWithin(at + 1, at, this.length);
      this.#values.copyWithin((at + 1) * LAYERS, at * LAYERS, this.length * LAYERS);
    }
    this.#replies[at] = reply;
    this.#values.fill(0, at * LAYERS, (at + 1) * LAYERS);
    this.length += 1;
    return at;
  }

  #isAt(at: number, reply: number): boolean {
    return at < this.length && this.#replies[at] === reply;
  }

  /** The first place whose reply is not before the wanted one; mostly the last or behind it, since replies are added in their order. */
  #find(reply: number): number {
    const last = this.length - 1;
    if (last < 0 || (this.#replies[last] ?? 0) < reply) return this.length;
    if (this.#replies[last] === reply) return last;
    let low = 0;
    let high = last;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.#replies[middle] ?? 0) < reply) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** @param least for so many there must be room */
  #grow(least: number): void {
    const size = Math.max(least, Math.ceil(this.#replies.length * 1.5) + 1);
    const replies = new Int32Array(size);
    const values = new Float32Array(size * LAYERS);
    replies.set(this.#replies);
    values.set(this.#values);
    this.#replies = replies;
    this.#values = values;
  }
}
