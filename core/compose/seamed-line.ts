import type { Inline, TextNode } from "../document/types";

const CLOSING_PUNCTUATION = /^[.,;:!?)\]]/;

/** A line of inlines in which a dropped piece leaves no doubled, leading or trailing space and no empty line. */
export class SeamedLine {
  readonly #inlines: Inline[] = [];
  #seam = false;

  drop(): void {
    this.#seam = true;
  }

  add(inline: Inline): void {
    let next = inline;
    if (this.#seam) {
      const last = this.#inlines.at(-1);
      const open = !last || last.type === "hardBreak" || (last.type === "text" && /\s$/.test(last.text));
      if (next.type === "text" && open) {
        const trimmed = trimStart(next);
        if (trimmed === null) return;
        next = trimmed;
        if (CLOSING_PUNCTUATION.test(next.text)) this.#trimLast();
      } else if (next.type === "hardBreak" && (!last || last.type === "hardBreak")) {
        return;
      }
    }
    this.#seam = false;
    this.#inlines.push(next);
  }

  /** The line; when nothing but white space is left of it, nothing. */
  finish(): Inline[] {
    if (this.#seam) {
      this.#trimLast();
      while (this.#inlines.at(-1)?.type === "hardBreak") {
        this.#inlines.pop();
        this.#trimLast();
      }
    }
    const blank = this.#inlines.every(
      (inline) => inline.type === "hardBreak" || (inline.type === "text" && inline.text.trim() === ""),
    );
    return blank ? [] : this.#inlines;
  }

  #trimLast(): void {
    const last = this.#inlines.at(-1);
    if (last?.type !== "text" || last.source?.kind !== "own") return;
    const text = last.text.trimEnd();
    this.#inlines.pop();
    if (text !== "") {
      this.#inlines.push({ ...last, text, source: { ...last.source, to: last.source.from + text.length } });
    }
  }
}

/** The text without leading white space; null when nothing is left. Values keep their words as they are. */
function trimStart(node: TextNode): TextNode | null {
  if (node.source?.kind !== "own") return node;
  const text = node.text.trimStart();
  if (text === "") return null;
  return { ...node, text, source: { ...node.source, from: node.source.to - text.length } };
}
