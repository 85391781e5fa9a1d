import { bareAddress, safeHref } from "./links";
import { placeholderText } from "./placeholder";
import type { Block, Inline, ListItem, Source, Table } from "./types";

/** A stretch of plain text and where its words came from. */
export interface Piece {
  text: string;
  source?: Source;
}

type Line = Piece[];

/** Widest table that is laid out in columns; wider ones are told row by row. */
const MAX_TABLE_WIDTH = 76;

/**
 * How plain text is laid out: for mail, whose readers set it in columns and know addresses in angle brackets; or for
 * windows as narrow as a phone: links as `words: address`, a table's rows as lines.
 */
export type PlainLayout = "mail" | "narrow";

/**
 * Blocks as plain text for email and for channels without formatting. Lines are not wrapped here:
 * `flowed` (core/mail) does that where the message says format=flowed (RFC 3676).
 */
export function toPlainText(blocks: Block[], layout: PlainLayout = "mail"): string {
  return toPieces(blocks, layout)
    .map((piece) => piece.text)
    .join("");
}

/** The same as stretches that know their source; joined they are the plain text. */
export function toPieces(blocks: Block[], layout: PlainLayout = "mail"): Piece[] {
  return joinLines(blockLines(blocks, layout));
}

function joinLines(lines: Line[]): Piece[] {
  return lines.flatMap((line, index) => (index === 0 ? line : [{ text: "\n" }, ...line]));
}

/** The lines of blocks, an empty line between neighbours. */
function blockLines(blocks: Block[], layout: PlainLayout): Line[] {
  return blocks.flatMap((block, index) => {
    const lines = linesOf(block, layout);
    return index === 0 ? lines : [[], ...lines];
  });
}

function linesOf(block: Block, layout: PlainLayout): Line[] {
  switch (block.type) {
    case "paragraph":
    case "heading":
      return inlineLines(block.content, layout);
    case "bulletList":
      return block.content.flatMap((item) => itemLines(item, "- ", layout));
    case "orderedList":
      return block.content.flatMap((item, index) =>
        itemLines(item, `${block.attrs.start + index}. `, layout),
      );
    case "table":
      return layout === "narrow" ? narrowTable(block) : tableLines(block);
    case "blockquote":
      return blockLines(block.content, layout).map((line) => [{ text: line.length ? "> " : ">" }, ...line]);
    case "horizontalRule":
      return [[{ text: "----------" }]];
  }
}

/** An item's lines, the following ones indented under the first; nested lists follow without an empty line. */
function itemLines(item: ListItem, bullet: string, layout: PlainLayout): Line[] {
  const lines = item.content.flatMap((child, index) => {
    const inner = linesOf(child, layout);
    const tight = index === 0 || child.type === "bulletList" || child.type === "orderedList";
    return tight ? inner : [[], ...inner];
  });
  const indent = " ".repeat(bullet.length);
  return lines.map((line, index) =>
    index === 0 ? [{ text: bullet }, ...line] : line.length ? [{ text: indent }, ...line] : line,
  );
}

function inlineLines(inlines: Inline[], layout: PlainLayout): Line[] {
  const lines: Line[] = [[]];
  inlines.forEach((inline, index) => {
    if (inline.type === "hardBreak") lines.push([]);
    else lines.at(-1)?.push(...inlinePieces(inline));
    const href = linkOf(inline);
    if (href !== null && href !== linkOf(inlines[index + 1])) {
      const words = linkWords(inlines, index, href);
      if (bareAddress(words) !== bareAddress(href)) {
        const address = href.replace(/^(?:mailto|tel):/, "");
        // What ends with a stop, as a question does, needs no other.
        const stop = /\p{P}\s*$/u.test(words) ? " " : ": ";
        lines.at(-1)?.push({ text: layout === "narrow" ? stop + address : ` <${address}>` });
      }
    }
  });
  return lines;
}

/** The words of the link that ends at this place: those of the neighbours with the same address. */
function linkWords(inlines: Inline[], end: number, href: string): string {
  let start = end;
  while (start > 0 && linkOf(inlines[start - 1]) === href) start -= 1;
  return inlines
    .slice(start, end + 1)
    .map((inline) => (inline.type === "text" ? inline.text : ""))
    .join("");
}

function linkOf(inline: Inline | undefined): string | null {
  const link = inline?.marks?.find((mark) => mark.type === "link");
  return link ? safeHref(link.attrs.href) : null;
}

function inlinePieces(inline: Inline): Piece[] {
  switch (inline.type) {
    case "text":
      return [inline.source ? { text: inline.text, source: inline.source } : { text: inline.text }];
    case "image":
      return inline.attrs.alt ? [{ text: `[${inline.attrs.alt}]` }] : [];
    case "token":
    case "blank":
      return [{ text: placeholderText(inline) }];
    case "hardBreak":
      return [];
  }
}

/** A table in columns where it is narrow enough; else each row as lines of `heading: value`. */
function tableLines(table: Table): Line[] {
  const rows = table.content.map((row) =>
    row.content.map((cell) => cellPieces(cell.content, cell.attrs.colspan, "mail")),
  );
  const columns = Math.max(...rows.map((row) => row.length), 0);
  const widths = Array.from({ length: columns }, (_, column) =>
    Math.max(...rows.map((row) => widthOf(row[column] ?? []))),
  );
  const total = widths.reduce((sum, width) => sum + width, 0) + 2 * Math.max(0, columns - 1);
  const heads = table.content[0]?.content.every((cell) => cell.type === "tableHeader") ?? false;
  if (total > MAX_TABLE_WIDTH)
    return heads ? recordLines(rows) : rows.map((row) => row.flatMap(commaSeparated));
  const lines = rows.map((row) =>
    row.flatMap((cell, column): Line => {
      const last = column === row.length - 1;
      return last ? cell : [...cell, { text: " ".repeat((widths[column] ?? 0) - widthOf(cell) + 2) }];
    }),
  );
  if (heads) lines.splice(1, 0, [{ text: widths.map((width) => "-".repeat(width)).join("  ") }]);
  return lines;
}

/** A table as lines, one a row: two columns as `this: that`, more with commas between, what heads them first. */
function narrowTable(table: Table): Line[] {
  const rows = table.content.map((row) =>
    row.content.map((cell) => cellPieces(cell.content, cell.attrs.colspan, "narrow")),
  );
  const heads = table.content[0]?.content.every((cell) => cell.type === "tableHeader") ?? false;
  const columns = Math.max(...rows.map((row) => row.length), 0);
  if (columns > 2) return rows.map((row) => row.flatMap(commaSeparated));
  // Of two columns the first names the second; what heads them says nothing more.
  return (heads && rows.length > 1 ? rows.slice(1) : rows).map(([name = [], value]) =>
    value === undefined || widthOf(value) === 0 ? name : [...name, { text: ": " }, ...value],
  );
}

function recordLines(rows: Line[][]): Line[] {
  const [head = [], ...body] = rows;
  return body.flatMap((row, index) => {
    const record = row.map((cell, column) => {
      const name = head[column] ?? [];
      return name.length > 0 ? [...name.map(({ text }) => ({ text })), { text: ": " }, ...cell] : cell;
    });
    return index === 0 ? record : [[], ...record];
  });
}

function commaSeparated(cell: Line, index: number): Line {
  return index === 0 ? cell : [{ text: ", " }, ...cell];
}

function cellPieces(blocks: Block[], colspan: number, layout: PlainLayout): Line {
  const lines = blockLines(blocks, layout).filter((line) => line.length > 0);
  const cell = lines.flatMap((line, index) => (index === 0 ? line : [{ text: " " }, ...line]));
  return colspan > 1 && cell.length === 0 ? [{ text: "" }] : cell;
}

const graphemes = new Intl.Segmenter("en", { granularity: "grapheme" });
const ASCII = /^[\x20-\x7e]*$/;

function widthOf(line: Line): number {
  const text = line.map((piece) => piece.text).join("");
  return ASCII.test(text) ? text.length : [...graphemes.segment(text)].length;
}
