import { stemmer } from "stemmer";
import { gramsOf, isTelling } from "./text";

/** What is known of a word: worked out once, since texts are made of the same words again and again. */
export interface Word {
  written: string;
  /** The number of its stem, `UNKNOWN` where no text has it; none where the word tells nothing. */
  stems: Int32Array;
  /** Numbers of its runs of letters, `UNKNOWN` where no text has one. */
  grams: Int32Array;
  /** Where its meaning stands among the vectors, or -1 where it tells nothing, or is unknown. */
  row: number;
}

/** The number of terms that no text has. */
export const UNKNOWN = -1;

/** Numbers for terms, in the order in which they were first met. */
class Numbering {
  readonly names: string[] = [];
  readonly #numbers = new Map<string, number>();

  /** @param open whether a new term is given a number; else it is unknown */
  of(name: string, open: boolean): number {
    const known = this.#numbers.get(name);
    if (known !== undefined || !open) return known ?? UNKNOWN;
    this.#numbers.set(name, this.names.length);
    return this.names.push(name) - 1;
  }
}

const NONE = new Int32Array(0);
/** Longer words are no words; their beginning will do. */
const LONGEST = 40;

/** The words that texts are made of, with their stems and runs of letters as numbers. */
export class Lexicon {
  readonly #row: (word: string) => number;
  readonly #words = new Map<string, Word>();
  readonly #stems = new Numbering();
  readonly #grams = new Numbering();

  /** @param row where a word's meaning stands among the vectors */
  constructor(row: (word: string) => number) {
    this.#row = row;
  }

  /** Words as they are known. @param open whether new terms are given numbers: texts that are only asked about add none */
  read(words: string[], open: boolean): Word[] {
    return words.map((word) => this.#words.get(word) ?? this.#meet(word.slice(0, LONGEST), open));
  }

  /** What stands beside the words as one term, with no letters to compare. */
  mark(name: string, open: boolean): Word {
    return { written: "", stems: Int32Array.of(this.#stems.of(name, open)), grams: NONE, row: -1 };
  }

  /** The stem of a number. */
  stem(number: number): string {
    return this.#stems.names[number] ?? "";
  }

  #meet(written: string, open: boolean): Word {
    const grams = gramsOf([written]).map((gram) => this.#grams.of(gram, open));
    const telling = isTelling(written);
    const word = {
      written,
      stems: telling ? Int32Array.of(this.#stems.of(stemmer(written), open)) : NONE,
      grams: Int32Array.from(grams),
      row: telling ? this.#row(written) : -1,
    };
    if (open) this.#words.set(written, word);
    return word;
  }
}
