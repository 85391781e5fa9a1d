import type { PassageRef } from "./definition";
import type { AnyNode, BlankNode, Doc, Inline, TokenNode } from "./types";

/** The children of a node; none for leaves. */
function childrenOf(node: AnyNode): AnyNode[] {
  return "content" in node ? node.content : [];
}

/** The size of a node in ProseMirror's counting: text by UTF-16 unit, other leaves 1, containers 2 and their content. */
export function sizeOf(node: AnyNode): number {
  if (node.type === "text") return node.text.length;
  if (!("content" in node)) return 1;
  return node.content.reduce((sum: number, child) => sum + sizeOf(child), 2);
}

/**
 * Visits every node below a document in reading order, with its position in ProseMirror's counting
 * (0 is the start of the document's content).
 */
export function walk(doc: Doc, visit: (node: AnyNode, position: number) => void): void {
  let position = 0;
  for (const block of doc.content) {
    walkFrom(block, position, visit);
    position += sizeOf(block);
  }
}

/** Visits a node and every node below it, as `walk` does. */
function walkFrom(node: AnyNode, position: number, visit: (node: AnyNode, position: number) => void): void {
  visit(node, position);
  let inner = position + 1;
  for (const child of childrenOf(node)) {
    walkFrom(child, inner, visit);
    inner += sizeOf(child);
  }
}

/** The tokens and blanks of a document, in reading order. */
export function placeholdersOf(doc: Doc): (TokenNode | BlankNode)[] {
  const found: (TokenNode | BlankNode)[] = [];
  walk(doc, (node) => {
    if (node.type === "token" || node.type === "blank") found.push(node);
  });
  return found;
}

/** Ids of the attachments that stand in a document as pictures, in reading order. */
export function picturesOf(doc: Doc): string[] {
  const found: string[] = [];
  walk(doc, (node) => {
    if (node.type === "image") found.push(node.attrs.attachment);
  });
  return found;
}

/** The passages that a node itself names: a block by its attribute, a run of words by its mark. */
export function passagesOf(node: AnyNode): PassageRef[] {
  if ("attrs" in node && "passages" in node.attrs) return node.attrs.passages;
  return "marks" in node ? markedPassages(node) : [];
}

function markedPassages(node: Inline): PassageRef[] {
  return (node.marks ?? []).flatMap((mark) => (mark.type === "passage" ? mark.attrs.passages : []));
}

/** The words of a document or a part of it, “…” in place of placeholders, for searching and previews. */
export function documentText(part: AnyNode): string {
  const words: string[] = [];
  walkFrom(part, 0, (node) => {
    if (node.type === "text") words.push(node.text);
    else if (node.type === "token" || node.type === "blank") words.push("…");
    else if (node.type === "hardBreak" || ("content" in node && words.length > 0)) words.push("\n");
  });
  return words.join("").replace(/\n+/g, "\n").trim();
}

/** The different words of a text, in small letters. */
export function wordSet(text: string): Set<string> {
  return new Set(text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);
}
