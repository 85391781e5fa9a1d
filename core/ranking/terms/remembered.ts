import type { Weighings } from "./weighed";

/** So many past inquiries of each reply are kept to be named. */
const MOST = 24;

/** The latest past inquiries of a reply. */
export class Remembered {
  #ids: string[] = [];
  #texts: Weighings = { terms: new Int32Array(0), weights: new Float32Array(0), ends: [] };

  /**
   * Remembers more, the latest last; the oldest are forgotten.
   * @param weigh weighs those texts that are kept
   */
  add<Text>(past: { id: string; text: Text }[], weigh: (texts: Text[]) => Weighings): void {
    const latest = past.slice(-MOST);
    const added = weigh(latest.map(({ text }) => text));
    const forgotten = Math.max(0, this.#ids.length + latest.length - MOST);
    const from = this.#texts.ends[forgotten - 1] ?? 0;
    const kept = this.#texts.terms.length - from;
    const terms = new Int32Array(kept + added.terms.length);
    terms.set(this.#texts.terms.subarray(from));
    terms.set(added.terms, kept);
    const weights = new Float32Array(terms.length);
    weights.set(this.#texts.weights.subarray(from));
    weights.set(added.weights, kept);
    const ends = this.#texts.ends.slice(forgotten).map((end) => end - from);
    this.#texts = { terms, weights, ends: [...ends, ...added.ends.map((end) => end + kept)] };
    this.#ids = [...this.#ids.slice(forgotten), ...latest.map(({ id }) => id)];
  }

  /** Forgets the latest of an id. */
  remove(id: string): void {
    const index = this.#ids.lastIndexOf(id);
    if (index < 0) return;
    const { terms, weights, ends } = this.#texts;
    const [begin, end] = [ends[index - 1] ?? 0, ends[index] ?? 0];
    this.#ids = this.#ids.toSpliced(index, 1);
    this.#texts = {
      terms: terms.filter((_, at) => at < begin || at >= end),
      weights: weights.filter((_, at) => at < begin || at >= end),
      ends: ends.toSpliced(index, 1).map((one, at) => (at < index ? one : one - (end - begin))),
    };
  }

  /**
   * The one most like a text, and how alike (a cosine); null where none is more so than the least.
   * @param byTerm the text's weights by term
   */
  nearest(byTerm: Float32Array, least: number): { id: string; alike: number } | null {
    const { terms, weights, ends } = this.#texts;
    let best: { id: string; alike: number } | null = null;
    let at = 0;
    for (const [index, end] of ends.entries()) {
      let alike = 0;
      for (; at < end; at += 1) alike += (weights[at] ?? 0) * (byTerm[terms[at] ?? 0] ?? 0);
      if (alike > (best?.alike ?? least)) best = { id: this.#ids[index] ?? "", alike };
    }
    return best;
  }
}
