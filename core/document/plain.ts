import type { Block } from "./types";

/** Plain text as paragraphs: empty lines part them, other line ends stay. At least one paragraph. */
export function fromPlainText(text: string): Block[] {
  const paragraphs = text
    .replace(/\r\n?/g, "\n")
    .replaceAll("\u0000", "")
    .split(/\n[ \t]*\n\s*/)
    .map((paragraph) => paragraph.replace(/^\n+|\n+$/g, ""));
  return paragraphs.map((paragraph): Block => ({
    type: "paragraph",
    attrs: { passages: [] },
    content: paragraph
      .split("\n")
      .flatMap((line, index) => [
        ...(index > 0 ? [{ type: "hardBreak" as const }] : []),
        ...(line === "" ? [] : [{ type: "text" as const, text: line }]),
      ]),
  }));
}
