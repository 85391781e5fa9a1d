import { linkAddresses, mayHoldAddress } from "../document/addresses";
import { escapeHtml, htmlOf, type HtmlOptions } from "../document/html";
import type { Piece } from "../document/text";
import type { Doc } from "../document/types";
import type { Written } from "../language/written";
import type { Fragment } from "./fragment";
import type { AttachmentRef } from "./slip";

/** What surrounds an email: documents may hold tokens, as replies do. */
export interface Stationery {
  name: string;
  header: Written<Doc> | null;
  footer: Written<Doc> | null;
  /** #rrggbb, for the rule under the header. */
  accent: string;
  /** #rrggbb, of the words and of the page. */
  textColour?: string;
  background?: string;
  /** A picture above the header, told by its words where it is not shown. */
  logo?: (AttachmentRef & { alt: string }) | null;
}

/** What stands above and below a letter in one language. */
export interface PaperTexts {
  header: Doc | null;
  footer: Doc | null;
}

/** The parts of a letter, filled, in the order in which they stand. */
export interface LetterParts {
  header: Fragment[];
  slips: Fragment[][];
  signature: Fragment[];
  footer: Fragment[];
}

/** Colours where stationery says none, and that of header and footer. */
export const INK = "#17211d";
export const PAPER = "#ffffff";
export const SMALL_INK = "#56625c";
const RULE = "#0d5a45";

const FONT = "font-family:Georgia,'Times New Roman',serif;font-size:15px;line-height:1.5";
const SMALL = `font-family:Arial,Helvetica,sans-serif;font-size:12px;line-height:1.5;color:${SMALL_INK}`;

/**
 * The letter as an HTML page for mail readers: one table of one column, inline styles, nothing fetched.
 * @param language BCP 47 tag of the letter
 */
export function layOutHtml(
  parts: LetterParts,
  paper: Stationery | null,
  language: string,
  options: HtmlOptions,
): string {
  const html = (fragments: Fragment[]) =>
    fragments
      .map((one) =>
        mayHoldAddress(one.words.text) ? htmlOf(linkAddresses(one.block()), options) : one.html(options),
      )
      .join("\n");
  const rows: string[] = [];
  const logo = paper?.logo && options.pictureSource?.(paper.logo.id);
  if (parts.header.length > 0 || logo) {
    const rule = `border-bottom:2px solid ${paper?.accent ?? RULE}`;
    const picture = logo
      ? `<img src="${escapeHtml(logo)}" alt="${escapeHtml(paper.logo?.alt ?? "")}" height="48" style="height:48px;width:auto;border:0;margin:0 0 8px 0">`
      : "";
    rows.push(`<tr><td style="padding:0 0 8px 0;${rule};${SMALL}">${picture}${html(parts.header)}</td></tr>`);
  }
  const body = [...parts.slips, parts.signature]
    .filter((fragments) => fragments.length > 0)
    .map(html)
    .join("\n");
  const ink = `color:${paper?.textColour ?? INK}`;
  rows.push(`<tr><td style="padding:16px 0;${FONT};${ink}">${body}</td></tr>`);
  if (parts.footer.length > 0) {
    rows.push(
      `<tr><td style="padding:12px 0 0 0;border-top:1px solid #cfd7d2;${SMALL}">${html(parts.footer)}</td></tr>`,
    );
  }
  return [
    `<!DOCTYPE html>`,
    `<html lang="${escapeHtml(language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"></head>`,
    `<body style="margin:0;padding:16px;background-color:${paper?.background ?? PAPER}">`,
    `<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="max-width:640px">`,
    ...rows,
    `</table></body></html>`,
  ].join("\n");
}

/** A fragment where it stands in the letter's plain text. */
export interface PlacedFragment {
  fragment: Fragment;
  /** Offset of its first character (UTF-16 units). */
  start: number;
}

const BETWEEN_PARTS: Piece = { text: "\n\n" };
const NEW_LINE: Piece = { text: "\n" };

/** The letter as plain text: slips, signature, footer, an empty line between blocks; the header is for the eye only. */
export function layOutText(parts: LetterParts): { text: string; pieces: Piece[]; placed: PlacedFragment[] } {
  const pieces: Piece[] = [];
  const placed: PlacedFragment[] = [];
  let text = "";
  for (const fragments of [...parts.slips, parts.signature, parts.footer]) {
    for (const [index, fragment] of fragments.entries()) {
      if (text !== "" || placed.length > 0) {
        if (index === 0) pieces.push(BETWEEN_PARTS);
        else pieces.push(NEW_LINE, NEW_LINE);
        text += "\n\n";
      }
      placed.push({ fragment, start: text.length });
      for (const piece of fragment.words.pieces) pieces.push(piece);
      text += fragment.words.text;
    }
  }
  return { text, pieces, placed };
}
