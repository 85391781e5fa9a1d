import { t } from "../words/mail";

/**
 * Messages that a marketplace or another forwarder brings in a form of its own: a lead marks up one of them, and others of
 * its kind are read by what stands before and behind each mark there. One that no longer fits is told, never guessed.
 */

/** What is marked up in an example. */
export const forwardedFields = ["name", "reference", "deadline", "text"] as const;
export type ForwardedField = (typeof forwardedFields)[number];

/** Where a field stands in the example: UTF-16 offsets. */
interface Span {
  from: number;
  to: number;
}

/** What is marked in the example; the text is always, the rest may be. */
export type ForwarderMarks = Record<ForwardedField, Span | null>;

/** What may not be said that way. */
export interface ForwarderRules {
  noLinks: boolean;
  noAddresses: boolean;
  noNumbers: boolean;
  /** Longest text, in UTF-16 units; null for any. */
  most: number | null;
}

/** What somebody who forwards buyers’ messages lets pass on its way back. */
export interface ForwarderWay {
  name: string;
  rules: ForwarderRules;
}

/** What was read of a forwarded message. */
export interface ForwardedDetails {
  name: string | null;
  reference: string | null;
  /** As it stands there, and as an ISO 8601 instant where it can be read. */
  deadline: string | null;
  dueAt: string | null;
  text: string;
}

/** One field as it is looked for: what stands before it, and what behind it; null for nothing that stands fast. */
interface Anchor {
  field: ForwardedField;
  before: string;
  after: string | null;
}

/** What a field is called. */
export function forwardedName(field: ForwardedField): string {
  switch (field) {
    case "name":
      return t("theBuyersName");
    case "reference":
      return t("theOrderReference");
    case "deadline":
      return t("theDeadline");
    case "text":
      return t("theText");
  }
}

const plain = (text: string) => text.replace(/\r\n?/g, "\n");

/**
 * How the fields of an example are found in others of its kind: by the words of the same line before each, else by the line
 * above; to the words of the same line behind it, else to the end of the line, and for the text to the line that follows.
 */
export function anchorsOf(
  example: string,
  marks: ForwarderMarks,
): { ok: true; anchors: Anchor[] } | { ok: false; problem: string } {
  const whole = plain(example);
  const spans = forwardedFields
    .flatMap((field) => {
      const span = marks[field];
      return span && span.to > span.from && span.to <= whole.length ? [{ field, ...span }] : [];
    })
    .sort((a, b) => a.from - b.from);
  if (!spans.some((one) => one.field === "text"))
    return { ok: false, problem: t("nothingIsMarkedAs", { what: forwardedName("text") }) };
  const anchors: Anchor[] = [];
  for (const [index, span] of spans.entries()) {
    const previous = spans[index - 1];
    if (previous && previous.to > span.from)
      return {
        ok: false,
        problem: t("theMarksOverlap", {
          what: forwardedName(previous.field),
          other: forwardedName(span.field),
        }),
      };
    const before = wordsBefore(whole.slice(previous?.to ?? 0, span.from));
    if (before === "")
      return { ok: false, problem: t("nothingStandsBefore", { what: forwardedName(span.field) }) };
    const after = wordsAfter(whole.slice(span.to, spans[index + 1]?.from ?? whole.length), span.field);
    anchors.push({ field: span.field, before, after });
  }
  return { ok: true, anchors };
}

/** The words of the last line with any; with the line break behind them where the field begins a line of its own. */
function wordsBefore(text: string): string {
  const end = /\n\s*$/.test(text) ? "\n" : "";
  const lines = text.split("\n").map((line) => line.trim());
  const line = lines.findLast((one) => one !== "") ?? "";
  return line === "" ? "" : line + end;
}

/** What stands behind a field: words of its own line, else, for what may have several lines, the next line that has any. */
function wordsAfter(text: string, field: ForwardedField): string | null {
  const [same = "", ...lines] = text.split("\n");
  if (same.trim() !== "") return same.trim();
  if (field !== "text") return null;
  const next = lines.map((line) => line.trim()).find((line) => line !== "");
  return next ?? null;
}

export type ReadForwarded = { ok: true; details: ForwardedDetails } | { ok: false; problem: string };

/**
 * Reads a forwarded message by the anchors of its forwarder’s example, in their order.
 * @param text the message's plain text
 * @param readDate what a deadline is as an instant (ISO 8601), where it can be told; null where it cannot
 */
export function readForwarded(
  text: string,
  anchors: readonly Anchor[],
  readDate: (words: string) => string | null,
): ReadForwarded {
  const whole = plain(text);
  const found = new Map<ForwardedField, string>();
  let at = 0;
  for (const { field, before, after } of anchors) {
    const start = find(whole, before, at);
    const what = forwardedName(field);
    if (start === null) return { ok: false, problem: t("theLineIsMissing", { words: before.trim(), what }) };
    const end =
      after === null
        ? field === "text"
          ? whole.length
          : lineEnd(whole, start)
        : field === "text"
          ? find(whole, after, start)
          : inLine(whole, after, start);
    if (end === null) return { ok: false, problem: t("theLineIsMissing", { words: after ?? "", what }) };
    const stop = after === null || field !== "text" ? end : end - after.length;
    const value = whole.slice(start, stop).trim();
    if (value === "") return { ok: false, problem: t("whatIsEmpty", { what }) };
    found.set(field, value);
    at = stop;
  }
  const deadline = found.get("deadline") ?? null;
  const dueAt = deadline === null ? null : readDate(deadline);
  if (deadline !== null && dueAt === null)
    return { ok: false, problem: t("deadlineCannotBeRead", { words: deadline.slice(0, 80) }) };
  return {
    ok: true,
    details: {
      name: found.get("name") ?? null,
      reference: found.get("reference") ?? null,
      deadline,
      dueAt,
      text: found.get("text") ?? "",
    },
  };
}

/** Behind where words stand, from a place on; null where they do not. Blanks before a line break do not count. */
function find(text: string, words: string, from: number): number | null {
  const bare = words.trimEnd();
  const ofOwnLine = words.endsWith("\n");
  for (let at = text.indexOf(bare, from); at >= 0; at = text.indexOf(bare, at + 1)) {
    const end = at + bare.length;
    if (!ofOwnLine) return end;
    const rest = /^[^\S\n]*\n/.exec(text.slice(end, end + 200));
    if (rest) return end + rest[0].length;
  }
  return null;
}

function lineEnd(text: string, from: number): number {
  const end = text.indexOf("\n", from);
  return end < 0 ? text.length : end;
}

function inLine(text: string, words: string, from: number): number | null {
  const at = text.slice(from, lineEnd(text, from)).indexOf(words);
  return at < 0 ? null : from + at;
}
