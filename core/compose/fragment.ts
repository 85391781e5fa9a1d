import type { HtmlOptions } from "../document/html";
import { toPieces, type Piece } from "../document/text";
import type { Block } from "../document/types";

/** What is known of a filled block without laying it out. */
interface FragmentWords {
  /** Id of the slip, or the name of what stands around the slips. */
  slip: string;
  /** The block as plain text, in stretches that know their source. */
  pieces: Piece[];
  text: string;
  /** Whether it says the same in every letter. */
  isFixed: boolean;
  hasWords: boolean;
  hasLinks: boolean;
  mayHavePictures: boolean;
}

/** A filled block of a letter: its words, and the rest of it, made when it is asked for. */
export class Fragment {
  readonly words: FragmentWords;
  readonly #block: () => Block;
  readonly #html: (options: HtmlOptions) => string;

  constructor(words: FragmentWords, block: () => Block, html: (options: HtmlOptions) => string) {
    this.words = words;
    this.#block = block;
    this.#html = html;
  }

  block(): Block {
    return this.#block();
  }

  html(options: HtmlOptions): string {
    return this.#html(options);
  }

  /** The same for channels without formatting: its words laid out for a narrow window. */
  narrow(): Fragment {
    const pieces = toPieces([this.block()], "narrow");
    const text = pieces.map((piece) => piece.text).join("");
    return new Fragment({ ...this.words, pieces, text }, this.#block, this.#html);
  }
}
