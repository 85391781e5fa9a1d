import { stemmer } from "stemmer";
import { TermLists } from "./term-lists";
import { gramsOf, isTelling } from "./text";

/** A text as the numbers of its words, in their order. */
export type Words = readonly number[];

/** Numbers for names, in the order in which they were first met. */
class Numbering {
  readonly names: string[] = [];
  readonly #numbers = new Map<string, number>();

  known(name: string): number | undefined {
    return this.#numbers.get(name);
  }

  of(name: string): number {
    const known = this.#numbers.get(name);
    if (known !== undefined) return known;
    this.#numbers.set(name, this.names.length);
    return this.names.push(name) - 1;
  }

  /** Forgets all but the first names. */
  shrink(count: number): void {
    for (const name of this.names.splice(count)) this.#numbers.delete(name);
  }
}

/** Longer words are no words; their beginning will do. */
const LONGEST = 40;

/** The words that texts are made of. What is known of a word is worked out once: texts are made of the same words again and again. */
export class Lexicon {
  /** By word: the number of its stem (M. F. Porter, “An algorithm for suffix stripping”, 1980, by the package `stemmer`); none where it tells nothing. */
  readonly stems = new TermLists();
  /** By word: the numbers of its runs of letters. */
  readonly grams = new TermLists();
  /** By word: where its meaning stands among the vectors, or -1 where it tells nothing, or is unknown. */
  readonly rows: number[] = [];
  readonly #row: (word: string) => number;
  readonly #words = new Numbering();
  readonly #written: string[] = [];
  readonly #stemNumbers = new Numbering();
  readonly #gramNumbers = new Numbering();

  /** @param row where a word's meaning stands among the vectors */
  constructor(row: (word: string) => number) {
    this.#row = row;
  }

  /** The numbers of words. */
  read(words: string[]): number[] {
    return words.map((word) => this.#words.known(word) ?? this.#meet(word.slice(0, LONGEST)));
  }

  /** The number of what stands beside the words as one term, with no letters to compare. */
  mark(name: string): number {
    return this.#words.known(name) ?? this.#add(name, "", [this.#stemNumbers.of(name)], [], -1);
  }

  /** Does something with words that need not be known any longer afterwards: what is only asked about takes no room. */
  apart<Result>(work: () => Result): Result {
    const words = this.#written.length;
    const stems = this.#stemNumbers.names.length;
    const grams = this.#gramNumbers.names.length;
    try {
      return work();
    } finally {
      this.#words.shrink(words);
      this.#written.length = words;
      this.rows.length = words;
      this.#stemNumbers.shrink(stems);
      this.stems.shrink(words, stems);
      this.#gramNumbers.shrink(grams);
      this.grams.shrink(words, grams);
    }
  }

  /** A word's letters. */
  written(word: number): string {
    return this.#written[word] ?? "";
  }

  /** The stem of a number. */
  stem(number: number): string {
    return this.#stemNumbers.names[number] ?? "";
  }

  #meet(written: string): number {
    const known = this.#words.known(written);
    if (known !== undefined) return known;
    const grams = gramsOf([written]).map((gram) => this.#gramNumbers.of(gram));
    const telling = isTelling(written);
    const stems = telling ? [this.#stemNumbers.of(stemmer(written))] : [];
    return this.#add(written, written, stems, grams, telling ? this.#row(written) : -1);
  }

  #add(name: string, written: string, stems: number[], grams: number[], row: number): number {
    const word = this.#words.of(name);
    this.#written.push(written);
    this.stems.push(stems);
    this.grams.push(grams);
    this.rows.push(row);
    return word;
  }
}
