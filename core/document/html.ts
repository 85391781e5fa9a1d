import type { Block, Doc, Inline, ListItem, Mark, TableCell, TableRow } from "./types";
import { safeHref } from "./links";
import { placeholderText } from "./placeholder";

export interface HtmlOptions {
  /** Content-ID of a picture's attachment, or null when the picture is not to be had. */
  pictureSource?: (attachment: string) => string | null;
}

/**
 * Styles for letters, inline because old mail readers drop style sheets.
 * System fonts only: a letter must not fetch anything.
 */
const style = {
  p: "margin:0 0 12px 0",
  h1: "margin:18px 0 8px 0;font-size:20px;line-height:1.3",
  h2: "margin:16px 0 8px 0;font-size:17px;line-height:1.3",
  h3: "margin:14px 0 6px 0;font-size:15px;line-height:1.3",
  ul: "margin:0 0 12px 0;padding:0 0 0 24px",
  ol: "margin:0 0 12px 0;padding:0 0 0 24px",
  li: "margin:0 0 4px 0",
  table: "border-collapse:collapse;margin:0 0 12px 0",
  th: "border-bottom:2px solid #56625c;padding:4px 12px 4px 0;text-align:left;vertical-align:top",
  td: "border-bottom:1px solid #cfd7d2;padding:4px 12px 4px 0;text-align:left;vertical-align:top",
  blockquote: "margin:0 0 12px 0;padding:0 0 0 12px;border-left:2px solid #8b9a92",
  hr: "border:0;border-top:1px solid #cfd7d2;margin:16px 0",
  highlight: "background-color:#f7efdc",
  img: "max-width:100%;height:auto;border:0",
} as const;

/**
 * A document as HTML for email: inline styles, no classes, everything escaped.
 * Tokens and blanks that were not filled appear in their text form, so that nothing vanishes.
 */
export function toEmailHtml(doc: Doc, options: HtmlOptions = {}): string {
  return doc.content.map((block) => blockHtml(block, options)).join("\n");
}

/** One block as HTML for email, without pictures. */
export function htmlOf(block: Block, options: HtmlOptions = {}): string {
  return blockHtml(block, options);
}

/** Text made safe for HTML content and quoted attributes. */
export function escapeHtml(text: string): string {
  if (!/[&<>"']/.test(text)) return text;
  return text
    .replaceAll("&", "&amp;")
    .replaceAll("<", "&lt;")
    .replaceAll(">", "&gt;")
    .replaceAll('"', "&quot;")
    .replaceAll("'", "&#39;");
}

function blockHtml(block: Block, options: HtmlOptions): string {
  switch (block.type) {
    case "paragraph":
      return `<p style="${style.p}">${inlinesHtml(block.content, options) || "&nbsp;"}</p>`;
    case "heading": {
      const tag = block.attrs.level === 1 ? "h1" : block.attrs.level === 2 ? "h2" : "h3";
      return `<${tag} style="${style[tag]}">${inlinesHtml(block.content, options)}</${tag}>`;
    }
    case "bulletList":
      return `<ul style="${style.ul}">${block.content.map((item) => itemHtml(item, options)).join("")}</ul>`;
    case "orderedList": {
      const start = block.attrs.start === 1 ? "" : ` start="${block.attrs.start}"`;
      return `<ol${start} style="${style.ol}">${block.content.map((item) => itemHtml(item, options)).join("")}</ol>`;
    }
    case "table":
      return `<table cellpadding="0" cellspacing="0" style="${style.table}">${block.content.map((row) => rowHtml(row, options)).join("")}</table>`;
    case "blockquote":
      return `<blockquote style="${style.blockquote}">${block.content.map((child) => blockHtml(child, options)).join("")}</blockquote>`;
    case "horizontalRule":
      return `<hr style="${style.hr}">`;
  }
}

/** An item with a single paragraph is written tight, without a paragraph's margin. */
function itemHtml(item: ListItem, options: HtmlOptions): string {
  const [first, ...rest] = item.content;
  const lead =
    first?.type === "paragraph"
      ? inlinesHtml(first.content, options)
      : first
        ? blockHtml(first, options)
        : "";
  return `<li style="${style.li}">${lead}${rest.map((child) => blockHtml(child, options)).join("")}</li>`;
}

function rowHtml(row: TableRow, options: HtmlOptions): string {
  return `<tr>${row.content.map((cell) => cellHtml(cell, options)).join("")}</tr>`;
}

function cellHtml(cell: TableCell, options: HtmlOptions): string {
  const tag = cell.type === "tableHeader" ? "th" : "td";
  const span =
    (cell.attrs.colspan > 1 ? ` colspan="${cell.attrs.colspan}"` : "") +
    (cell.attrs.rowspan > 1 ? ` rowspan="${cell.attrs.rowspan}"` : "");
  const only = cell.content.length === 1 ? cell.content[0] : undefined;
  const inner =
    only?.type === "paragraph"
      ? inlinesHtml(only.content, options)
      : cell.content.map((child) => blockHtml(child, options)).join("");
  return `<${tag}${span} style="${style[tag]}">${inner}</${tag}>`;
}

function inlinesHtml(inlines: Inline[], options: HtmlOptions): string {
  return inlines.map((inline) => marksHtml(inlineHtml(inline, options), inline.marks)).join("");
}

function inlineHtml(inline: Inline, options: HtmlOptions): string {
  switch (inline.type) {
    case "text":
      return escapeHtml(inline.text);
    case "hardBreak":
      return "<br>";
    case "image": {
      const source = options.pictureSource?.(inline.attrs.attachment) ?? null;
      if (source === null) return escapeHtml(inline.attrs.alt);
      const width = inline.attrs.width === null ? "" : ` width="${inline.attrs.width}"`;
      return `<img src="${escapeHtml(source)}" alt="${escapeHtml(inline.attrs.alt)}"${width} style="${style.img}">`;
    }
    case "token":
    case "blank":
      return escapeHtml(placeholderText(inline));
  }
}

/** HTML of an inline in its marks. */
export function marksHtml(html: string, marks: Mark[] = []): string {
  return marks.reduceRight((inner, mark) => {
    switch (mark.type) {
      case "bold":
        return `<strong>${inner}</strong>`;
      case "italic":
        return `<em>${inner}</em>`;
      case "underline":
        return `<u>${inner}</u>`;
      case "strike":
        return `<s>${inner}</s>`;
      case "highlight":
        return `<span style="${style.highlight}">${inner}</span>`;
      case "link": {
        const href = safeHref(mark.attrs.href);
        return href === null ? inner : `<a href="${escapeHtml(href)}">${inner}</a>`;
      }
      case "literal":
      case "passage":
        return inner;
    }
  }, html);
}
