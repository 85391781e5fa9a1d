import { escapeHtml, htmlOf } from "../document/html";
import { placeholderText } from "../document/placeholder";
import { toPieces, type Piece } from "../document/text";
import type {
  Block,
  BlankNode,
  Inline,
  ListItem,
  Mark,
  Source,
  TableCell,
  TableRow,
  TextNode,
  TokenNode,
} from "../document/types";
import { passagesOf, sizeOf } from "../document/walk";
import { asksQuestion } from "../questions/question";
import { blankLabel } from "../tokens/blanks";
import type { Formatted } from "../tokens/format";
import { ownEntry } from "../tokens/own";
import { readText } from "../tokens/text-form";
import { compileDoc, inSlip, ownNode, type CompiledBlock, type LinePart } from "./compiled";
import type { FillInput, FillProblem } from "./fill-input";
import { Fragment } from "./fragment";
import { fillBlank, fillToken, gap, questionHref } from "./placeholder-words";
import { SeamedLine } from "./seamed-line";
import type { TraceEntry } from "./letter";
import { stands } from "./passages";
import { t } from "../words/letters";

export interface Filled {
  blocks: Block[];
  trace: TraceEntry[];
  problems: FillProblem[];
}

/**
 * Fills one slip: passages that do not stand are dropped, tokens and blanks become their words.
 * What a dropped passage or a value that is not there leaves behind (an empty paragraph, list or
 * table, a doubled space) is closed up. Values become text nodes: they are never read again.
 */
export function fill(input: FillInput): Filled {
  const filling = new Filling(input);
  const blocks = filling.blocks(input.slip.document.content, 0);
  return { blocks, trace: filling.trace, problems: filling.problems };
}

export interface FilledFragments {
  fragments: Fragment[];
  trace: TraceEntry[];
  problems: FillProblem[];
}

/** The same as `fill`, block by block and quicker: what never changes of the document was laid out before. */
export function fillFragments(input: FillInput): FilledFragments {
  const filling = new Filling(input);
  const fragments: Fragment[] = [];
  for (const one of compileDoc(input.slip.document).blocks) {
    const fragment = filling.fragment(one);
    if (fragment) fragments.push(fragment);
  }
  return { fragments, trace: filling.trace, problems: filling.problems };
}

class Filling {
  readonly trace: TraceEntry[] = [];
  readonly problems: FillProblem[] = [];
  readonly #input: FillInput;
  readonly #reported = new Set<string>();

  constructor(input: FillInput) {
    this.#input = input;
  }

  /** A block as a fragment of the letter; null where it does not stand or nothing is left of it. */
  fragment(one: CompiledBlock): Fragment | null {
    const { block, position, hasLinks } = one;
    if (!this.#stands(block)) return null;
    const slip = this.#input.slip.id;
    if (one.kind === "fixed") return this.#fixed(one);
    const before = [this.trace.length, this.problems.length] as const;
    const line = one.kind === "line" ? this.#line(one) : null;
    if (line) return line;
    // A line that is not as simple as it looked is filled again from its beginning.
    [this.trace.length, this.problems.length] = before;
    const filled = this.#block(block, position);
    if (filled === null) return null;
    const pieces = toPieces([filled]);
    const hasWords = filled.type !== "paragraph" || filled.content.length > 0;
    const text = pieces.map((piece) => piece.text).join("");
    return new Fragment(
      { slip, pieces, text, isFixed: false, hasWords, hasLinks, mayHavePictures: true },
      () => filled,
      (options) => htmlOf(filled, options),
    );
  }

  #fixed(one: CompiledBlock & { kind: "fixed" }): Fragment {
    const { id: slip } = this.#input.slip;
    return inSlip(one.instances, slip, () => {
      const block = this.#block(one.block, one.position) ?? one.block;
      const pieces = toPieces([block]);
      const text = pieces.map((piece) => piece.text).join("");
      const { hasWords, hasLinks, html } = one;
      return new Fragment(
        { slip, pieces, text, isFixed: true, hasWords, hasLinks, mayHavePictures: false },
        () => block,
        () => html,
      );
    });
  }

  /** A line whose every value is one run of words; null for any other, as one of which something drops out. */
  #line(one: CompiledBlock & { kind: "line" }): Fragment | null {
    const slip = this.#input.slip.id;
    const { block } = one;
    const inlines: Inline[] = [];
    const pieces: Piece[] = [];
    let [text, html, hasWords] = ["", one.open, false];
    for (const part of one.parts) {
      if (part.kind === "break") {
        inlines.push(part.node);
        pieces.push(NEW_LINE);
        text += "\n";
        html += "<br>";
        continue;
      }
      const node = part.kind === "own" ? ownNode(part, slip) : this.#oneRun(part);
      if (node === null) return null;
      inlines.push(node);
      if (node.source) pieces.push({ text: node.text, source: node.source });
      text += node.text;
      html += part.kind === "own" ? part.html : part.before + escapeHtml(node.text) + part.after;
      hasWords ||= node.text.trim() !== "";
    }
    // Links show their address in plain text, and lines without words go: both are the general way’s.
    if (one.hasLinks || !hasWords) return null;
    html += one.close;
    return new Fragment(
      { slip, pieces, text, isFixed: false, hasWords: true, hasLinks: false, mayHavePictures: false },
      () => ({ ...block, content: inlines }) as Block,
      () => html,
    );
  }

  #oneRun({ node, position }: LinePart & { kind: "value" }): TextNode | null {
    const formatted = node.type === "token" ? fillToken(node, this.#input) : fillBlank(node, this.#input);
    if (node.type === "token" && formatted.kind === "text" && isOneRun(formatted.text))
      return this.#tokenRun(node, formatted, position);
    const marks = node.marks?.filter((mark) => mark.type !== "literal") ?? [];
    const marked = marks.length > 0 ? { marks } : {};
    const [run, ...more] = this.#value(node, formatted, position, marked);
    return run?.type === "text" && more.length === 0 ? run : null;
  }

  /** The usual case of a token: it has a value, on one line. */
  #tokenRun(node: TokenNode, { text, fellBack }: Formatted & { kind: "text" }, position: number): TextNode {
    const slip = this.#input.slip.id;
    const { name } = node.attrs;
    this.trace.push({
      kind: "token",
      slip,
      name,
      value: text,
      why: t(fellBack ? "fallback" : "fromTheValue"),
    });
    const source: Source = { slip, from: position, to: position + 1, kind: "token", name };
    const marks = node.marks?.filter((mark) => mark.type !== "literal");
    return marks && marks.length > 0 ? { type: "text", text, marks, source } : { type: "text", text, source };
  }

  blocks(blocks: Block[], start: number): Block[] {
    return this.#children(blocks, start, (block, position) => this.#block(block, position));
  }

  /** Fills children in place order; those that do not stand or are left empty go. */
  #children<T extends Block | ListItem | TableRow>(
    children: T[],
    start: number,
    fillOne: (child: T, position: number) => T | null,
  ): T[] {
    let position = start;
    return children.flatMap((child) => {
      const at = position;
      position += sizeOf(child);
      if (!this.#stands(child)) return [];
      const filled = fillOne(child, at);
      return filled === null ? [] : [filled];
    });
  }

  #stands(node: Block | ListItem | TableRow | Inline): boolean {
    const refs = passagesOf(node);
    if (refs.length === 0) return true;
    for (const { id } of refs) {
      if (this.#input.decisions.has(id) || this.#reported.has(id)) continue;
      this.#reported.add(id);
      this.problems.push({
        code: "passage-unknown",
        message: t("conditionThatTheReplyLacks"),
        source: null,
      });
    }
    return stands(refs, this.#input.decisions);
  }

  /** A filled block, or null where nothing of it is left. */
  #block(block: Block, position: number): Block | null {
    switch (block.type) {
      case "paragraph":
      case "heading": {
        const content = this.#inlines(block.content, position + 1);
        const emptied = content.length === 0 && block.content.length > 0;
        return emptied ? null : { ...block, content };
      }
      case "bulletList":
      case "orderedList": {
        const content = this.#children(block.content, position + 1, (item, at) => this.#item(item, at));
        return content.length === 0 ? null : { ...block, content };
      }
      case "table": {
        const content = this.#children(block.content, position + 1, (row, at) => this.#row(row, at));
        const had = block.content.some(isBodyRow);
        return content.length === 0 || (had && !content.some(isBodyRow)) ? null : { ...block, content };
      }
      case "blockquote": {
        const content = this.blocks(block.content, position + 1);
        return content.length === 0 ? null : { ...block, content };
      }
      case "horizontalRule":
        return block;
    }
  }

  #item(item: ListItem, position: number): ListItem | null {
    const content = this.blocks(item.content, position + 1);
    return content.length === 0 ? null : { ...item, content };
  }

  #row(row: TableRow, position: number): TableRow {
    let at = position + 1;
    return {
      ...row,
      content: row.content.map((cell): TableCell => {
        const content = this.blocks(cell.content, at + 1);
        at += sizeOf(cell);
        const empty: Block = { type: "paragraph", attrs: { passages: [] }, content: [] };
        return { ...cell, content: content.length > 0 ? content : [empty] };
      }),
    };
  }

  #inlines(inlines: Inline[], start: number): Inline[] {
    const line = new SeamedLine();
    let position = start;
    for (const inline of inlines) {
      const at = position;
      position += sizeOf(inline);
      const filled = this.#stands(inline) ? this.#inline(inline, at) : [];
      if (filled.length === 0) line.drop();
      for (const one of filled) line.add(one);
    }
    return line.finish();
  }

  #inline(inline: Inline, at: number): Inline[] {
    const marks = inline.marks && this.#marks(inline.marks, at, sizeOf(inline));
    const marked = marks && marks.length > 0 ? { marks } : {};
    const isLiteral = inline.marks?.some((mark) => mark.type === "literal") ?? false;
    switch (inline.type) {
      case "text": {
        const source: Source = {
          slip: this.#input.slip.id,
          from: at,
          to: at + inline.text.length,
          kind: "own",
          ...(isLiteral ? { literal: true } : {}),
        };
        return [{ type: "text", text: inline.text, ...marked, source }];
      }
      case "hardBreak":
        return [{ type: "hardBreak", ...marked }];
      case "image":
        return [{ ...inline, attrs: { ...inline.attrs, alt: this.#alt(inline.attrs.alt, at) }, ...marked }];
      case "token":
        return asksQuestion(inline.attrs.name)
          ? this.#question(inline, at, marks ?? [])
          : this.#value(inline, fillToken(inline, this.#input), at, marked);
      case "blank":
        return this.#value(inline, fillBlank(inline, this.#input), at, marked);
    }
  }

  /** A question: its words, which lead to where it is answered; words alone where its answers stand beside them. */
  #question(node: TokenNode, at: number, marks: Mark[]): Inline[] {
    const filled = fillToken(node, this.#input);
    const href = filled.kind === "text" && !filled.fellBack ? questionHref(node, this.#input) : null;
    const linked: Mark[] =
      href === null
        ? marks
        : [...marks.filter((mark) => mark.type !== "link"), { type: "link", attrs: { href } }];
    return this.#value(node, filled, at, linked.length > 0 ? { marks: linked } : {});
  }

  /** The words of a value as text nodes, line by line; a gap where there is no value. */
  #value(
    node: TokenNode | BlankNode,
    formatted: Formatted,
    at: number,
    marked: { marks?: Mark[] },
  ): Inline[] {
    const { slip, tokens } = this.#input;
    const name = node.type === "blank" ? `blank.${node.attrs.name}` : node.attrs.name;
    const source: Source = { slip: slip.id, from: at, to: at + 1, kind: node.type, name };
    const text = (words: string): TextNode => ({ type: "text", text: words, ...marked, source });
    const missing = (): Inline[] => [{ ...text(gap(label)), source: { ...source, missing: true } }];
    const blank = node.type === "blank" ? ownEntry(slip.blanks, node.attrs.name) : undefined;
    const label =
      node.type === "blank" ? blankLabel(node.attrs.name, blank) : (tokens.get(name)?.label ?? name);
    const record = (value: string | null, why: string) => {
      this.trace.push({ kind: node.type, slip: slip.id, name, value, why });
    };
    const problem = (code: FillProblem["code"], message: string) => {
      const place = blank ? { blank: { slip: slip.id, name: node.attrs.name } } : {};
      const token = code === "token-missing" ? { token: name } : {};
      this.problems.push({ code, message, source, ...place, ...token });
    };
    if (blank && !blank.printed) {
      record(formatted.kind === "text" ? formatted.text : null, t("steersPassagesIsNotPrinted"));
      return [];
    }
    if (formatted.kind === "text") {
      record(formatted.text, t(formatted.fellBack ? "fallback" : "fromTheValue"));
      return formatted.text
        .split("\n")
        .flatMap((words, index): Inline[] => [
          ...(index > 0 ? [{ type: "hardBreak" as const, ...marked }] : []),
          ...(words === "" ? [] : [text(words)]),
        ]);
    }
    const why = formatted.kind === "missing" ? formatted.why : formatted.problem;
    record(null, why);
    if (node.type === "blank") {
      if (!blank) problem("blank-unknown", t("thisReplyHasNoBlankName", { name: node.attrs.name }));
      else if (formatted.kind === "problem") problem("token-unusable", `${label}: ${why}`);
      else if (formatted.unfit) problem("blank-empty", `${capital(why)}.`);
      else if (!blank.required) return [];
      else problem("blank-empty", t("labelIsEmpty", { label: capital(label) }));
      return missing();
    }
    if (formatted.kind === "problem")
      problem("token-unusable", t("labelCannotBeWritten", { label: capital(label), why }));
    else if (!tokens.has(name)) problem("token-unknown", t("thereIsNoTokenName", { name }));
    else problem("token-missing", t("labelIsNotKnown", { label: capital(label), why }));
    return missing();
  }

  /** Marks for the letter: passages have done their work; link addresses get their values, encoded. */
  #marks(marks: Mark[], at: number, size: number): Mark[] {
    return marks.flatMap((mark): Mark[] => {
      if (mark.type === "passage" || mark.type === "literal") return [];
      if (mark.type !== "link" || !mark.attrs.href.includes("{")) return [mark];
      const href = this.#href(mark.attrs.href, at, size);
      return href === null ? [] : [{ type: "link", attrs: { href } }];
    });
  }

  /** An alternative text with its values; what is not known is named, and reported as a gap in the words would be. */
  #alt(alt: string, at: number): string {
    if (!alt.includes("{")) return alt;
    const source = { slip: this.#input.slip.id, from: at, to: at + 1 };
    return readText(alt)
      .pieces.map((piece) => {
        if (piece.type === "text") return piece.text;
        const filled = piece.type === "token" ? fillToken(piece, this.#input) : fillBlank(piece, this.#input);
        if (filled.kind === "text") return filled.text;
        const name = placeholderText(piece);
        this.problems.push({
          code: "token-missing",
          message: t("theAlternativeTextLacks", { name }),
          source,
        });
        return gap(piece.attrs.name);
      })
      .join("");
  }

  #href(href: string, at: number, size: number): string | null {
    const source = { slip: this.#input.slip.id, from: at, to: at + size };
    const { pieces, problems } = readText(href);
    for (const problem of problems) {
      this.problems.push({
        code: "link-unusable",
        message: t("theLinksAddressCannotBeRead", { message: problem.message }),
        source,
      });
    }
    const parts = pieces.map((piece) => {
      if (piece.type === "text") return piece.text;
      const filled = piece.type === "token" ? fillToken(piece, this.#input) : fillBlank(piece, this.#input);
      if (filled.kind === "text") return encodeURIComponent(filled.text);
      this.problems.push({
        code: "link-unusable",
        message: t("theLinksAddressLacks", { piece: placeholderText(piece) }),
        source,
      });
      return null;
    });
    return parts.some((part) => part === null) ? null : parts.join("");
  }
}

const NEW_LINE: Piece = { text: "\n" };

function isOneRun(text: string): boolean {
  return text !== "" && !text.includes("\n");
}

function isBodyRow(row: TableRow): boolean {
  return row.content.some((cell) => cell.type === "tableCell");
}

function capital(text: string): string {
  return text.slice(0, 1).toUpperCase() + text.slice(1);
}
