import { Lexicon, type Words } from "./words/lexicon";
import { TextVectors } from "./vectors/text-vectors";
import { VectorSpace } from "./terms/vector-space";
import type { Inquiry, RankedText } from "./inquiry";
import type { Features } from "./learning/linear-model";
import { inquiryText, tokenize } from "./words/text";
import type { WordVectors } from "./vectors/word-vectors";

/** The title and the tags say most in the fewest words. */
const TITLE_COUNTS = 3;
const TAGS_COUNT = 2;
/** So that what is known beside the words is never taken for one of them. */
const MARK = "\u0001";

/** Reads texts into features: stems, runs of letters and meaning, each weighed by how rare it is among all texts. */
export class Reader {
  readonly words: VectorSpace;
  readonly grams: VectorSpace;
  readonly textVectors: TextVectors | null;
  readonly #lexicon: Lexicon;

  /** @param vectors meanings of words, or null to do without */
  constructor(vectors: WordVectors | null) {
    this.#lexicon = new Lexicon((word) => vectors?.row(word) ?? -1);
    this.words = new VectorSpace(this.#lexicon.stems);
    this.grams = new VectorSpace(this.#lexicon.grams);
    const rarityOf = (word: number) => this.words.rarity(this.#lexicon.stems.first(word)) - 1;
    this.textVectors = vectors && new TextVectors(vectors, this.#lexicon.rows, rarityOf);
  }

  /** The words of a reply's own text. */
  readReply({ title, tags, body, marks }: RankedText): Words {
    const text = [
      ...Array.from({ length: TITLE_COUNTS }, () => title),
      ...Array.from({ length: TAGS_COUNT }, () => tags.join(" ")),
      body,
    ].join("\n");
    return this.#read(text, marks);
  }

  /** The words of an inquiry. */
  readInquiry(inquiry: Inquiry): Words {
    const text = inquiryText(inquiry);
    return this.#read(inquiry.earlier ? `${text}\n${text}\n${inquiry.earlier}` : text, inquiry.marks);
  }

  /** Does something with texts that are only asked about: words of theirs that nobody knows are forgotten afterwards. */
  apart<Result>(work: () => Result): Result {
    return this.#lexicon.apart(work);
  }

  /** The words of a part of an inquiry. */
  readPart(text: string): Words {
    return this.#read(text, undefined);
  }

  /** Counts a text among all, by which terms are rare. To be called before it is weighed. */
  count(text: Words): void {
    this.words.count(text);
    this.grams.count(text);
    this.textVectors?.count(text);
  }

  weigh(text: Words): Features {
    return {
      words: this.words.weigh(text),
      grams: this.grams.weigh(text),
      meaning: this.textVectors?.of(text) ?? new Float32Array(0),
    };
  }

  /**
   * How stems and marks are told, in the words of the text that they were found in; those that stand side by side there are
   * one phrase.
   * @param stems the weightiest first, as they are told
   * @param said the text in small letters, spaced once
   */
  tell(stems: readonly number[], text: Words, said: string): string[] {
    const wanted = new Set(stems);
    const phrases = phrasesOf(text, (word) => wanted.has(this.#lexicon.stems.first(word)));
    const told = new Set<number>();
    return stems.flatMap((stem) => {
      if (told.has(stem)) return [];
      const name = this.#lexicon.stem(stem);
      if (name.startsWith(MARK)) return [name.slice(1)];
      const is = (word: number) => this.#lexicon.stems.first(word) === stem;
      const phrase = phrases.find((words) => words.some(is) && said.includes(this.#phrase(words))) ?? [];
      const words = phrase.length > 0 ? phrase : text.filter(is).slice(0, 1);
      for (const word of words) told.add(this.#lexicon.stems.first(word));
      return [`“${this.#phrase(words) || name}”`];
    });
  }

  #phrase(words: Words): string {
    return words.map((word) => this.#lexicon.written(word)).join(" ");
  }

  #read(text: string, marks: string[] | undefined): Words {
    const words = this.#lexicon.read(tokenize(text));
    return marks ? [...words, ...marks.map((mark) => this.#lexicon.mark(`${MARK}${mark}`))] : words;
  }
}

/** The longest runs of two or more different words that are wanted, one after the other. */
function phrasesOf(text: Words, isWanted: (word: number) => boolean): number[][] {
  const runs: number[][] = [[]];
  for (const word of text) {
    const run = runs.at(-1) ?? [];
    if (isWanted(word) && !run.includes(word)) run.push(word);
    else if (run.length > 0) runs.push(isWanted(word) ? [word] : []);
  }
  return runs.filter((run) => run.length > 1).sort((a, b) => b.length - a.length);
}
