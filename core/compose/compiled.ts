import { escapeHtml, htmlOf, marksHtml } from "../document/html";
import type { AnyNode, Block, Doc, Inline, Mark, Source, TextNode } from "../document/types";
import { passagesOf, sizeOf, walk } from "../document/walk";
import { asksQuestion } from "../questions/question";
import type { Fragment } from "./fragment";

/**
 * A document made ready for being filled many times: what never changes of it is escaped and laid out once. It is kept
 * by the document, which never changes; another version of a reply is another document.
 */
export interface CompiledDoc {
  blocks: CompiledBlock[];
}

/** A block as it is composed: the same in every letter, a line of words and values, or anything else. */
export type CompiledBlock =
  /** Holds neither values nor passages nor pictures. */
  | (Placed & { kind: "fixed"; html: string; hasWords: boolean; instances: Map<string, Fragment> })
  /** A paragraph or heading of words and values without passages, links with values or pictures among them. */
  | (Placed & { kind: "line"; parts: LinePart[]; open: string; close: string })
  | (Placed & { kind: "general" });

interface Placed {
  block: Block;
  /** In ProseMirror's counting, within the document. */
  position: number;
  hasLinks: boolean;
}

export type LinePart =
  | {
      kind: "own";
      text: string;
      html: string;
      node: TextNode;
      position: number;
      sources: Map<string, TextNode>;
    }
  | { kind: "break"; node: Inline }
  | {
      kind: "value";
      node: Inline & { type: "token" | "blank" };
      position: number;
      before: string;
      after: string;
    };

const compiled = new WeakMap<Doc, CompiledDoc>();
/** Blocks by themselves: where somebody writes, the others are what they were. */
const blocks = new WeakMap<Block, CompiledBlock>();

/** A document made ready. */
export function compileDoc(doc: Doc): CompiledDoc {
  const known = compiled.get(doc);
  if (known) return known;
  let position = 0;
  const made: CompiledDoc = { blocks: [] };
  for (const block of doc.content) {
    const before = blocks.get(block);
    // What moved along in the document knows its words by other places.
    const one = before?.position === position ? before : compileBlock(block, position);
    blocks.set(block, one);
    made.blocks.push(one);
    position += sizeOf(block);
  }
  compiled.set(doc, made);
  return made;
}

function compileBlock(block: Block, position: number): CompiledBlock {
  let [isFixed, hasLinks] = [true, false];
  walk({ type: "doc", content: [block] }, (node) => {
    const isOuter = node === block;
    if (node.type === "token" || node.type === "blank" || node.type === "image") isFixed = false;
    if (isQuestion(node)) hasLinks = true;
    if (!isOuter && passagesOf(node).length > 0) isFixed = false;
    if (isBlankLine(node)) isFixed = false;
    if ("marks" in node && node.marks?.some(isLink)) {
      hasLinks = true;
      if (node.marks.some((mark) => isLink(mark) && mark.attrs.href.includes("{"))) isFixed = false;
    }
  });
  const placed = { block, position, hasLinks };
  if (isFixed) {
    const hasWords = block.type !== "paragraph" || block.content.length > 0;
    return { ...placed, kind: "fixed", html: htmlOf(block), hasWords, instances: new Map() };
  }
  const parts =
    block.type === "paragraph" || block.type === "heading" ? lineParts(block.content, position + 1) : null;
  if (parts === null) return { ...placed, kind: "general" };
  const [open = "", close = ""] = htmlOf({ ...block, content: [SLOT] } as Block).split(SLOT.text);
  return { ...placed, kind: "line", parts, open, close };
}

/** Stands for a line's content while its surroundings are made. */
const SLOT: TextNode = { type: "text", text: "\u0001" };

/** A line of nothing but white space, which filling takes away. */
function isBlankLine(block: AnyNode): boolean {
  if (block.type !== "paragraph" && block.type !== "heading") return false;
  return (
    block.content.length > 0 &&
    block.content.every((one) => one.type === "hardBreak" || (one.type === "text" && one.text.trim() === ""))
  );
}

function lineParts(content: Inline[], start: number): LinePart[] | null {
  const parts: LinePart[] = [];
  let position = start;
  for (const node of content) {
    const at = position;
    position += sizeOf(node);
    if (
      node.marks?.some((mark) => mark.type === "passage" || (isLink(mark) && mark.attrs.href.includes("{")))
    )
      return null;
    if (node.type === "image" || isQuestion(node)) return null;
    if (node.type === "hardBreak") parts.push({ kind: "break", node: lettered(node) });
    else if (node.type === "text") {
      const own = lettered(node);
      const html = marksHtml(escapeHtml(node.text), own.marks);
      parts.push({ kind: "own", text: node.text, html, node, position: at, sources: new Map() });
    } else {
      const [before = "", after = ""] = marksHtml(SLOT.text, lettered(node).marks).split(SLOT.text);
      parts.push({ kind: "value", node, position: at, before, after });
    }
  }
  return parts;
}

/** A question becomes a link, or words alone: that is the general way’s. */
function isQuestion(node: AnyNode): boolean {
  return node.type === "token" && asksQuestion(node.attrs.name);
}

function isLink(mark: Mark): mark is Mark & { type: "link" } {
  return mark.type === "link";
}

/** Marks that work on composing and have no place in a letter. */
function lettered<Node extends Inline>(node: Node): Node {
  if (!node.marks?.some((mark) => mark.type === "literal")) return node;
  const { marks, ...bare } = node;
  const kept = marks.filter((mark) => mark.type !== "literal");
  return (kept.length > 0 ? { ...bare, marks: kept } : bare) as Node;
}

/** Kept of one document for so many slips. */
const MOST_INSTANCES = 16;

/** What is made once for each slip that a document stands in. */
export function inSlip<T>(known: Map<string, T>, slip: string, make: () => T): T {
  let one = known.get(slip);
  if (one === undefined) {
    one = make();
    if (known.size >= MOST_INSTANCES) known.clear();
    known.set(slip, one);
  }
  return one;
}

/** The agent's or writer's own words of a line, in a slip. */
export function ownNode(part: LinePart & { kind: "own" }, slip: string): TextNode {
  return inSlip(part.sources, slip, () => {
    const { node, position } = part;
    const isLiteral = node.marks?.some((mark) => mark.type === "literal") ?? false;
    const source: Source = {
      slip,
      from: position,
      to: position + node.text.length,
      kind: "own",
      ...(isLiteral ? { literal: true } : {}),
    };
    return { ...lettered(node), source };
  });
}
