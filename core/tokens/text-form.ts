import { MessageSyntaxError, parseMessage, type Model } from "messageformat";
import type { BlankNode, PlaceholderAttrs, TokenNode } from "../document/types";
import { t } from "../words/tokens";

/** A piece of a text with placeholders: words, a token or a blank. */
export type TextPiece = { type: "text"; text: string } | TokenNode | BlankNode;

/** What could not be read, and where: offsets in the text as given. */
export interface TextProblem {
  message: string;
  from: number;
  to: number;
}

/**
 * Reads a text with placeholders, as subjects and plain-text channels have them: a simple pattern of
 * Unicode MessageFormat 2. A text that begins with a dot is just text.
 * A placeholder that cannot be read stays in the text as it was typed, and is reported with its place.
 */
export function readText(text: string): { pieces: TextPiece[]; problems: TextProblem[] } {
  const whole = readPattern(text);
  if (whole.ok) return { pieces: whole.pieces, problems: whole.problems };
  // One bad placeholder must not lose the others: read the text piecewise, placeholder by placeholder.
  const pieces: TextPiece[] = [];
  const problems: TextProblem[] = [];
  let position = 0;
  for (const { from, to } of placeholders(text)) {
    addText(pieces, unescape(text.slice(position, from)));
    const part = readPattern(text.slice(from, to));
    if (part.ok) {
      pieces.push(...part.pieces);
      problems.push(...part.problems.map((problem) => ({ ...problem, from, to })));
    } else {
      addText(pieces, text.slice(from, to));
      problems.push({ message: part.message, from, to });
    }
    position = to;
  }
  const rest = text.slice(position);
  addText(pieces, unescape(rest));
  if (problems.length === 0) {
    const brace = Math.max(0, rest.search(/(?<!\\)[{}]/));
    problems.push({ message: t("aBraceWithoutItsPartner"), from: position + brace, to: text.length });
  }
  return { pieces, problems };
}

/** Reads one placeholder, braces included. */
export function readPlaceholder(
  source: string,
): { ok: true; node: TokenNode | BlankNode } | { ok: false; message: string } {
  const read = readPattern(source);
  if (!read.ok) return read;
  const [node] = read.pieces;
  if (read.problems[0]) return { ok: false, message: read.problems[0].message };
  if (read.pieces.length !== 1 || !node || node.type === "text") {
    return { ok: false, message: t("notAPlaceholder") };
  }
  return { ok: true, node };
}

/** Writes words so that they read back as just words. */
export function escapeText(text: string): string {
  return text.replace(/[\\{}]/g, "\\$&");
}

function unescape(text: string): string {
  return text.replace(/\\([\\{}|])/g, "$1");
}

function addText(pieces: TextPiece[], text: string): void {
  if (text !== "") pieces.push({ type: "text", text });
}

/** Where placeholders seem to stand: from an opening brace to the brace that closes it, bars respected. */
function placeholders(text: string): { from: number; to: number }[] {
  return [...text.matchAll(/(?<!\\)\{(?:\|(?:\\.|[^\\|])*\||[^{}|])*\}/g)].map((match) => ({
    from: match.index,
    to: match.index + match[0].length,
  }));
}

type Pattern = { ok: true; pieces: TextPiece[]; problems: TextProblem[] } | { ok: false; message: string };

function readPattern(text: string): Pattern {
  if (!/[{}\\]/.test(text)) {
    return { ok: true, pieces: text === "" ? [] : [{ type: "text", text }], problems: [] };
  }
  let message: Model.Message;
  try {
    // In double braces everything is pattern: no declarations, no .match.
    message = parseMessage(`{{${text}}}`);
  } catch (error) {
    if (!(error instanceof MessageSyntaxError)) throw error;
    return { ok: false, message: syntaxMessage(error) };
  }
  if (message.type !== "message" || message.declarations.length > 0) {
    return { ok: false, message: t("onlySimpleTextsAreRead") };
  }
  const pieces: TextPiece[] = [];
  for (const part of message.pattern) {
    if (typeof part === "string") {
      addText(pieces, part);
      continue;
    }
    const node = toNode(part);
    if (typeof node === "string") return { ok: false, message: node };
    pieces.push(node);
  }
  return { ok: true, pieces, problems: [] };
}

function toNode(part: Model.Expression | Model.Markup): TokenNode | BlankNode | string {
  if (part.type !== "expression") return t("markupPlaceholdersAreNotUsedHere");
  if (part.arg?.type !== "variable") {
    return t("aPlaceholderNamesATokenOrABlank");
  }
  const options: Record<string, string> = {};
  for (const [name, value] of Object.entries(part.functionRef?.options ?? {})) {
    if (value.type !== "literal") return t("theOptionTakesAPlainValue", { name });
    options[name] = value.value;
  }
  const attrs: PlaceholderAttrs = {
    name: part.arg.name,
    fn: part.functionRef?.name ?? null,
    options,
  };
  if (attrs.fn === "text" && Object.keys(options).length === 0) attrs.fn = null;
  if (attrs.name.startsWith("blank.")) {
    return { type: "blank", attrs: { ...attrs, name: attrs.name.slice("blank.".length) } };
  }
  return { type: "token", attrs };
}

function syntaxMessage(error: MessageSyntaxError): string {
  switch (error.type) {
    case "empty-token":
      return t("emptyPlaceholder");
    case "bad-escape":
      return t("aBackslashStandsBeforeABrace");
    case "duplicate-option-name":
      return t("theSameOptionStandsTwice");
    default:
      return t("aPlaceholderThatCannotBeRead");
  }
}
