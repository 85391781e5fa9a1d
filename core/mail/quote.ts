import { escapeHtml } from "../document/html";
import { splitQuoted } from "./quoting";

/** So much of a message is quoted, in UTF-16 units. */
const MOST_QUOTED = 10_000;

/** A letter as it goes out. */
interface Going {
  text: string;
  html: string | null;
}

const BELOW =
  "padding:16px 0 0 0;font-family:Arial,Helvetica,sans-serif;font-size:13px;line-height:1.5;color:#56625c";
const INDENTED = "margin:0;padding-left:12px;border-left:2px solid #cfd7d2";
const END = "</table></body></html>";

/**
 * A letter with what it answers beneath: in plain text behind `>` (RFC 3676, 4.5), in HTML indented. What that message
 * quotes itself is left out.
 * @param introduction the line above, as “On 25 November 2026 Ana Brandt wrote:”
 */
export function quoteBelow({ text, html }: Going, introduction: string, answered: string): Going {
  const written = splitQuoted(answered.slice(0, MOST_QUOTED)).written;
  if (written === "") return { text, html };
  const lines = written.split("\n").map((line) => (line === "" ? ">" : `> ${line}`));
  const quotation = escapeHtml(written).replaceAll("\n", "<br>\n");
  const row = `<tr><td style="${BELOW}"><p>${escapeHtml(introduction)}</p><blockquote style="${INDENTED}">${quotation}</blockquote></td></tr>`;
  return {
    text: `${text}\n\n${introduction}\n${lines.join("\n")}`,
    html: html?.endsWith(END) ? `${html.slice(0, -END.length)}${row}\n${END}` : html,
  };
}
