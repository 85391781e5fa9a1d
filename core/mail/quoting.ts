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
/** A longer line introduces nothing. */
const LONGEST_INTRODUCTION = 400;

const HEADER_LINE =
  /^\*?(?:from|von|de|sent|gesendet|envoyé|enviado|to|an|à|para|subject|betreff|objet|asunto|date|datum)\*?\s?:\s/i;

/**
 * Splits a plain-text message where its quotation of earlier messages begins: at an introduction
 * (“On … wrote:”, a block of header lines) or at a run of `>` lines that goes on to the end.
 * Quotes between which the writer answers stay where they are. Takes time in proportion to the text.
 */
export function splitQuoted(text: string): Quoted {
  const lines = text.replace(/\r\n?/g, "\n").split("\n");
  const rest = restsOf(lines);
  for (let index = 0; index < lines.length; index += 1) {
    if (beginsQuotation(lines, index, rest)) {
      return {
        written: lines.slice(0, index).join("\n").trim(),
        quoted: lines.slice(index).join("\n").trim(),
      };
    }
  }
  return { written: lines.join("\n").trim(), quoted: "" };
}

/** What there is from each line on to the end: whether a quoted line, and whether a line of somebody’s own. */
type Rests = { quoted: boolean; own: boolean }[];

function restsOf(lines: string[]): Rests {
  const rests: Rests = Array.from({ length: lines.length + 1 });
  rests[lines.length] = { quoted: false, own: false };
  for (let index = lines.length - 1; index >= 0; index -= 1) {
    const after = rests[index + 1] ?? { quoted: false, own: false };
    const line = (lines[index] ?? "").trimStart();
    rests[index] = {
      quoted: after.quoted || line.startsWith(">"),
      own: after.own || (line !== "" && !line.startsWith(">")),
    };
  }
  return rests;
}

function beginsQuotation(lines: string[], index: number, rests: Rests): boolean {
  const line = (lines[index] ?? "").trim();
  if (line === "") return false;
  if (line.startsWith(">")) return isOfOneKind(rests, index);
  if (line.length > LONGEST_INTRODUCTION) return false;
  const onOneLine = INTRODUCTIONS.some((pattern) => pattern.test(line));
  if (onOneLine || isIntroducedOnTwo(line, lines[index + 1] ?? ""))
    return isOfOneKind(rests, index + (onOneLine ? 1 : 2)) || /^[-_]{2,}/.test(line);
  if (!HEADER_LINE.test(line)) return false;
  return lines.slice(index, index + 4).filter((one) => HEADER_LINE.test(one.trim().slice(0, 40))).length >= 3;
}

/** A long introduction is wrapped onto a second line. */
function isIntroducedOnTwo(line: string, next: string): boolean {
  if (line.length <= 20 || line.endsWith(":") || next.length > LONGEST_INTRODUCTION) return false;
  const wrapped = `${line} ${next.trim()}`;
  return INTRODUCTIONS.some((pattern) => pattern.test(wrapped));
}

/** Whether from here on there are only quoted or empty lines, or none that is quoted. */
function isOfOneKind(rests: Rests, from: number): boolean {
  const rest = rests[Math.min(from, rests.length - 1)];
  return rest === undefined || !rest.own || !rest.quoted;
}
