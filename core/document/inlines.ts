import type { AnyNode, Block, Doc, Inline, ListItem, TableCell, TableRow } from "./types";
import { sizeOf } from "./walk";

/** Neighbouring texts with the same marks as one, as the editor would have them. */
export function joinTexts(inlines: Inline[]): Inline[] {
  return inlines.reduce<Inline[]>((joined, inline) => {
    const last = joined.at(-1);
    if (
      last?.type === "text" &&
      inline.type === "text" &&
      JSON.stringify(last.marks) === JSON.stringify(inline.marks)
    ) {
      joined[joined.length - 1] = { ...last, text: last.text + inline.text };
    } else {
      joined.push(inline);
    }
    return joined;
  }, []);
}

/** The document with each inline in other words. @param change gets the inline's position in ProseMirror's counting */
export function mapInlines(doc: Doc, change: (inline: Inline, position: number) => Inline[]): Doc {
  const inlines = (list: Inline[], start: number): Inline[] => {
    let position = start;
    return list.flatMap((inline) => {
      const at = position;
      position += sizeOf(inline);
      return change(inline, at);
    });
  };
  /** Children of a container that starts before `start`, each with the place inside of it. */
  const each = <T extends AnyNode>(list: T[], start: number, visit: (node: T, inside: number) => T): T[] => {
    let position = start;
    return list.map((node) => {
      const at = position;
      position += sizeOf(node);
      return visit(node, at + 1);
    });
  };
  const item = (node: ListItem, at: number): ListItem => ({
    ...node,
    content: each(node.content, at, block),
  });
  const cell = (node: TableCell, at: number): TableCell => ({
    ...node,
    content: each(node.content, at, block),
  });
  const row = (node: TableRow, at: number): TableRow => ({ ...node, content: each(node.content, at, cell) });
  const block = (node: Block, at: number): Block => {
    switch (node.type) {
      case "paragraph":
      case "heading":
        return { ...node, content: inlines(node.content, at) };
      case "bulletList":
      case "orderedList":
        return { ...node, content: each(node.content, at, item) };
      case "table":
        return { ...node, content: each(node.content, at, row) };
      case "blockquote":
        return { ...node, content: each(node.content, at, block) };
      case "horizontalRule":
        return node;
    }
  };
  return { ...doc, content: each(doc.content, 0, block) };
}
