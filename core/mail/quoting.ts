/** A message's text in two: what was written, and what it quotes of earlier messages. */
export interface Quoted {
  written: string;
  /** From the first line of the quotation on; empty when nothing is quoted. */
  quoted: string;
}

/** Lines by which mail programs introduce what they quote, in several languages. */
const INTRODUCTIONS = [
  /^-{2,}\s*(?:original message|forwarded message|ursprüngliche nachricht|message d'origine|mensaje original)\s*-{2,}\s*$/i,
  /^_{10,}\s*$/,
  /^(?:on|am|le|el|op|il)\s.{4,160}(?:wrote|schrieb|écrit|escribió|schreef|scritto)(?:\s.{0,80})?:\s*$/i,
  /^.{3,120}\s(?:wrote|schrieb|a écrit|escribió):\s*$/i,
];

const HEADER_LINE =
  /^\*?(?:from|von|de|sent|gesendet|envoyé|enviado|to|an|à|para|subject|betreff|objet|asunto|date|datum)\*?\s?:\s/i;

/**
 * Splits a plain-text message where its quotation of earlier messages begins: at an introduction
 * (“On … wrote:”, a block of header lines) or at a run of `>` lines that goes on to the end.
 * Quotes between which the writer answers stay where they are.
 */
export function splitQuoted(text: string): Quoted {
  const lines = text.replace(/\r\n?/g, "\n").split("\n");
  for (let index = 0; index < lines.length; index += 1) {
    if (beginsQuotation(lines, index)) return split(lines, index);
  }
  return { written: lines.join("\n").trim(), quoted: "" };
}

function split(lines: string[], at: number): Quoted {
  return { written: lines.slice(0, at).join("\n").trim(), quoted: lines.slice(at).join("\n").trim() };
}

function beginsQuotation(lines: string[], index: number): boolean {
  const line = (lines[index] ?? "").trim();
  if (line === "") return false;
  // A long introduction is wrapped onto a second line.
  const wrapped = `${line} ${(lines[index + 1] ?? "").trim()}`;
  const onOneLine = INTRODUCTIONS.some((pattern) => pattern.test(line));
  const onTwo =
    !onOneLine &&
    line.length > 20 &&
    !line.endsWith(":") &&
    INTRODUCTIONS.some((pattern) => pattern.test(wrapped));
  if (onOneLine || onTwo) return restIsQuoted(lines, index + (onOneLine ? 1 : 2)) || /^[-_]{2,}/.test(line);
  const block = lines.slice(index, index + 4).filter((one) => HEADER_LINE.test(one.trim()));
  if (HEADER_LINE.test(line) && block.length >= 3) return true;
  return line.startsWith(">") && restIsQuoted(lines, index);
}

/** Whether from here on there are only quoted or empty lines, or a quotation with little behind it. */
function restIsQuoted(lines: string[], from: number): boolean {
  const rest = lines.slice(from).filter((line) => line.trim() !== "");
  return (
    rest.length === 0 ||
    rest.every((line) => line.trimStart().startsWith(">")) ||
    !rest.some((line) => line.trimStart().startsWith(">"))
  );
}
