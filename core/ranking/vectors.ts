/**
 * Meanings of English words as small vectors: alike words point alike ways. Read from a file that
 * `scripts/make-vectors.ts` writes: a line of JSON (`{ "dimensions", "words" }`), a line end, then one signed byte a number.
 */
export class WordVectors {
  readonly dimensions: number;
  readonly #rows: ReadonlyMap<string, number>;
  readonly #numbers: Int8Array;
  readonly #lengths: Float32Array;

  /** @throws Error when the bytes are no such file */
  constructor(bytes: Uint8Array) {
    const end = bytes.indexOf(10);
    const head = JSON.parse(new TextDecoder().decode(bytes.subarray(0, end))) as {
      dimensions: number;
      words: string;
    };
    const words = head.words.split(" ");
    this.dimensions = head.dimensions;
    this.#numbers = new Int8Array(bytes.buffer, bytes.byteOffset + end + 1, words.length * head.dimensions);
    this.#rows = new Map(words.map((word, row) => [word, row]));
    this.#lengths = Float32Array.from(words, (_, row) => {
      let squared = 0;
      for (let at = 0; at < this.dimensions; at += 1) squared += this.#number(row, at) ** 2;
      return Math.sqrt(squared) || 1;
    });
  }

  has(word: string): boolean {
    return this.#rows.has(word);
  }

  /** Adds a word's direction, times a factor, to a vector. Unknown words add nothing. */
  addTo(sum: Float32Array, word: string, factor: number): void {
    const row = this.#rows.get(word);
    if (row === undefined) return;
    const scale = factor / (this.#lengths[row] ?? 1);
    for (let at = 0; at < this.dimensions; at += 1) sum[at] = (sum[at] ?? 0) + scale * this.#number(row, at);
  }

  #number(row: number, at: number): number {
    return this.#numbers[row * this.dimensions + at] ?? 0;
  }
}
