import { Lexicon, type Word } from "./lexicon";
import { Meanings } from "./meanings";
import { Space } from "./space";
import type { Inquiry, RankedText } from "./inquiry";
import type { Lesson } from "./teacher";
import { inquiryText, wordsOf } from "./text";
import type { WordVectors } from "./vectors";

/** The title and the tags say most in the fewest words. */
const TITLE_COUNTS = 3;
const TAGS_COUNT = 2;
/** So that what is known beside the words is never taken for one of them. */
const MARK = "\u0001";

/** Reads texts into features: stems, runs of letters and meaning, each weighed by how rare it is among all texts. */
export class Reader {
  readonly words = new Space<Word>((word) => word.stems);
  readonly grams = new Space<Word>((word) => word.grams);
  readonly meanings: Meanings | null;
  readonly #lexicon: Lexicon;

  /** @param vectors meanings of words, or null to do without */
  constructor(vectors: WordVectors | null) {
    this.meanings = vectors && new Meanings(vectors, (stem) => this.words.rarity(stem) - 1);
    this.#lexicon = new Lexicon((word) => vectors?.row(word) ?? -1);
  }

  /** The words of a reply's own text. */
  readReply({ title, tags, body, marks }: RankedText): Word[] {
    const text = [
      ...Array.from({ length: TITLE_COUNTS }, () => title),
      ...Array.from({ length: TAGS_COUNT }, () => tags.join(" ")),
      body,
    ].join("\n");
    return this.#read(text, marks, true);
  }

  /** The words of an inquiry. @param open whether its words are learned; else unknown ones are left out */
  readInquiry(inquiry: Inquiry, open: boolean): Word[] {
    const text = inquiryText(inquiry);
    return this.#read(inquiry.earlier ? `${text}\n${text}\n${inquiry.earlier}` : text, inquiry.marks, open);
  }

  /** The words of a part of an inquiry; unknown ones are left out. */
  readPart(text: string): Word[] {
    return this.#read(text, undefined, false);
  }

  /** Counts a text among all, by which terms are rare. To be called before it is weighed. */
  count(text: readonly Word[]): void {
    this.words.count(text);
    this.grams.count(text);
    this.meanings?.count(text);
  }

  weigh(text: readonly Word[]): Lesson {
    return {
      words: this.words.weigh(text),
      grams: this.grams.weigh(text),
      meaning: this.meanings?.of(text) ?? new Float32Array(0),
    };
  }

  /** How a stem or mark is told, in the words of the text that it was found in. */
  tell(stem: number, text: Word[]): string {
    const name = this.#lexicon.stem(stem);
    if (name.startsWith(MARK)) return name.slice(1);
    return `“${text.find((word) => word.stems[0] === stem)?.written ?? name}”`;
  }

  #read(text: string, marks: string[] | undefined, open: boolean): Word[] {
    const words = this.#lexicon.read(wordsOf(text), open);
    return marks ? [...words, ...marks.map((mark) => this.#lexicon.mark(`${MARK}${mark}`, open))] : words;
  }
}
