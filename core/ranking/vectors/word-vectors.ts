/** A word as the file of vectors knows it (FNV-1a, 32 bits: G. Fowler, L. C. Noll and K.-P. Vo): shorter than its letters. */
export function wordHash(word: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < word.length; at += 1) hash = Math.imul(hash ^ word.charCodeAt(at), 0x01000193);
  return hash >>> 0;
}

/**
 * Meanings of English words as small vectors: alike words point alike ways. Read from a file that
 * `scripts/make-vectors.ts` writes: a line of JSON (`{ "dimensions", "words": how many }`), a line end, four bytes a word
 * (its hash, the lowest byte first), then one signed byte a number.
 */
export class WordVectors {
  readonly dimensions: number;
  /** How many words there are. */
  readonly size: number;
  readonly #rows: ReadonlyMap<number, number>;
  readonly #numbers: Int8Array;
  readonly #lengths: Float32Array;

  /** @throws Error when the bytes are no such file */
  constructor(bytes: Uint8Array) {
    const end = bytes.indexOf(10);
    const head = JSON.parse(new TextDecoder().decode(bytes.subarray(0, end))) as {
      dimensions: number;
      words: number;
    };
    const view = new DataView(bytes.buffer, bytes.byteOffset + end + 1, head.words * 4);
    const words = Array.from({ length: head.words }, (_, row) => view.getUint32(row * 4, true));
    this.dimensions = head.dimensions;
    this.size = head.words;
    this.#numbers = new Int8Array(
      bytes.buffer,
      bytes.byteOffset + end + 1 + head.words * 4,
      head.words * head.dimensions,
    );
    this.#rows = new Map(words.map((word, row) => [word, row]));
    this.#lengths = Float32Array.from(words, (_, row) => {
      let squared = 0;
      for (let at = 0; at < this.dimensions; at += 1) squared += this.#number(row, at) ** 2;
      return Math.sqrt(squared) || 1;
    });
  }

  /** Where a word stands; -1 for an unknown one. */
  row(word: string): number {
    return this.#rows.get(wordHash(word)) ?? -1;
  }

  /** Adds the direction of a word, by its row, times a factor, to a vector. */
  addTo(sum: Float32Array, row: number, factor: number): void {
    const scale = factor / (this.#lengths[row] ?? 1);
    const numbers = this.#numbers;
    const from = row * this.dimensions;
    for (let at = 0; at < sum.length; at += 1) sum[at] = (sum[at] ?? 0) + scale * (numbers[from + at] ?? 0);
  }

  #number(row: number, at: number): number {
    return this.#numbers[row * this.dimensions + at] ?? 0;
  }
}
