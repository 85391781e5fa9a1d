/** Numbers by reply, in the order of the replies' places, for one term. Grows in place; a reply's number may change. */
export class Postings {
  replies = new Int32Array(2);
  values = new Float32Array(2);
  length = 0;

  /** Adds to a reply's number. */
  add(reply: number, value: number): void {
    const at = this.#find(reply);
    if (at < this.length && this.replies[at] === reply) {
      this.values[at] = (this.values[at] ?? 0) + value;
      return;
    }
    if (this.length === this.replies.length) this.#grow();
    this.replies.copyWithin(at + 1, at, this.length);
    this.values.copyWithin(at + 1, at, this.length);
    this.replies[at] = reply;
    this.values[at] = value;
    this.length += 1;
  }

  /** Adds each reply's number, times a factor, to its place in a list. */
  addTo(sums: Float32Array, factor: number): void {
    const { replies, values, length } = this;
    for (let at = 0; at < length; at += 1) {
      const reply = replies[at] ?? 0;
      sums[reply] = (sums[reply] ?? 0) + factor * (values[at] ?? 0);
    }
  }

  of(reply: number): number {
    const at = this.#find(reply);
    return at < this.length && this.replies[at] === reply ? (this.values[at] ?? 0) : 0;
  }

  /** The first place whose reply is not before the wanted one. */
  #find(reply: number): number {
    let low = 0;
    let high = this.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.replies[middle] ?? 0) < reply) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  #grow(): void {
    const size = Math.ceil(this.replies.length * 1.6) + 1;
    const replies = new Int32Array(size);
    const values = new Float32Array(size);
    replies.set(this.replies);
    values.set(this.values);
    this.replies = replies;
    this.values = values;
  }
}
