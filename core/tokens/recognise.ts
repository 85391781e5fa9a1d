import { mapInlines } from "../document/inlines";
import type { BlankNode, Doc, Inline, TextNode, TokenNode } from "../document/types";
import { walk } from "../document/walk";
import { blankSchema, type Blank, type Blanks } from "./blanks";
import type { Context } from "./context";
import type { Token } from "./catalogue";
import { formatValue, plain, type Style } from "./format";
import { nameFrom } from "./name";
import { valueLike, type ValueLike } from "./value-like";
import { lookUp } from "./values";

/** Words of a letter that say a value of its case, and what would say it of any. */
export interface Recognised {
  /** Position in the document, as ProseMirror counts. */
  from: number;
  to: number;
  words: string;
  /** A token where the case knows the value; else a blank that asks for it. */
  node: TokenNode | BlankNode;
  label: string;
  /** The definition of the blank; null for a token. */
  blank: Blank | null;
  /** Whether the words came from this token, and are not only like its value. */
  certain: boolean;
}

/**
 * Finds in the words of a letter what is of its case alone. The case's own values become tokens: names, references, amounts,
 * dates in the usual formats with their times, numbers beside what they count; also the agent's and the house's names. What
 * only looks like a value may become a blank. Words that a token printed are known by their source; the longest wins where
 * several fit.
 * @param doc a composed document or any other; sources are read where they stand
 * @returns in the order of the words, none overlapping another
 */
export function recognise(
  doc: Doc,
  context: Context,
  tokens: ReadonlyMap<string, Token>,
  style: Style,
): Recognised[] {
  const values = writtenValues(context, tokens, style);
  const found: Recognised[] = [];
  const blanks = new BlankNames();
  walk(doc, (node, position) => {
    if (node.type !== "text") return;
    const name = node.source?.kind === "token" && !node.source.missing ? node.source.name : undefined;
    const token = name === undefined ? undefined : tokens.get(name);
    if (token) found.push(recognised(position, node.text, asToken(token.name), token, true));
    else found.push(...inWords(node, position, values, blanks, style.language));
  });
  return found;
}

/** The document with recognised words as tokens and blanks; sources are left behind. */
export function withTokens(doc: Doc, accepted: Placed[]): Doc {
  return mapInlines(doc, (inline, position) =>
    inline.type === "text" ? split(inline, position, accepted) : [inline],
  );
}

/** Values shorter than this are like too many words. */
const SHORTEST = 2;

interface Written {
  words: string;
  token: TokenNode;
  of: Token;
  /** For a number, which says too little by itself: words of which one must stand behind it. */
  beside?: string[];
}

function writtenValues(context: Context, tokens: ReadonlyMap<string, Token>, style: Style): Written[] {
  const values: Written[] = [];
  for (const token of tokens.values()) {
    if (UNTELLING.has(token.name) || token.ordinary) continue;
    const value = lookUp(context, token.name, token.type);
    if (value.kind === "missing") continue;
    const add = (words: string, node: TokenNode) => {
      if (words.length >= SHORTEST && !values.some((one) => one.words === words))
        values.push({ words, token: node, of: token });
    };
    if (token.type === "datetime" || token.type === "date") {
      for (const node of dateForms(token)) {
        const written = formatValue(value, node.attrs, style);
        if (written.kind !== "text") continue;
        add(written.text, node);
        // People leave out the comma behind the name of the day.
        add(written.text.replace(/^(\p{L}+\.?), /u, "$1 "), node);
      }
      continue;
    }
    if (token.type === "yes_no") continue;
    if (token.type === "integer" || token.type === "number") {
      const beside = tellingWords(token);
      if (beside.length > 0)
        values.push({ words: plain(value.value), token: asToken(token.name), of: token, beside });
      continue;
    }
    const usual = formatValue(value, asToken(token.name).attrs, style);
    if (usual.kind === "text") add(usual.text, asToken(token.name));
    if (token.type !== "money") add(plain(value.value), asToken(token.name));
  }
  return values.sort((a, b) => b.words.length - a.words.length);
}

/** Values that are ordinary words. */
const UNTELLING = new Set([
  "case.channel",
  "case.language",
  "case.topic",
  "customer.language",
  "organisation.kind",
]);

/** Words of a number's label and name that say what is counted: `passengers`. */
function tellingWords({ label, name }: Token): string[] {
  const words = `${label} ${name.slice(name.indexOf(".") + 1).replaceAll("_", " ")}`
    .toLowerCase()
    .split(/[^\p{L}]+/u);
  return [...new Set(words.filter((word) => word.length > 3 && !COUNTING.has(word)))];
}
const COUNTING = new Set(["number", "count", "days", "hours", "total", "until", "with"]);

/** How a date is written, the fullest first (Unicode MessageFormat 2, date fields). */
const FIELDS = ["year-month-day-weekday", "year-month-day", "month-day-weekday", "month-day"];
const LENGTHS = ["long", "medium", "short"];

function dateForms(token: Token): TokenNode[] {
  const node = (fn: string | null, options: Record<string, string> = {}): TokenNode => ({
    type: "token",
    attrs: { name: token.name, fn, options },
  });
  const dates = [
    ...LENGTHS.map((length) => node("date", { length })),
    ...FIELDS.flatMap((fields) => LENGTHS.map((length) => node("date", { fields, length }))),
  ];
  if (token.type === "date") return dates;
  const withTime = FIELDS.flatMap((dateFields) =>
    LENGTHS.map((dateLength) => node("datetime", { dateFields, dateLength, timePrecision: "minute" })),
  );
  return [node(null), ...withTime, ...dates, node("time", { precision: "minute" })];
}

function asToken(name: string): TokenNode {
  return { type: "token", attrs: { name, fn: null, options: {} } };
}

function recognised(from: number, words: string, node: TokenNode, of: Token, certain: boolean): Recognised {
  return { from, to: from + words.length, words, node, label: of.label, blank: null, certain };
}

const WORD = /[\p{L}\p{M}\p{N}]/u;

function inWords(
  { text }: TextNode,
  position: number,
  values: Written[],
  blanks: BlankNames,
  language: string,
): Recognised[] {
  const known: Recognised[] = [];
  const isTaken = (from: number, to: number) =>
    known.some((one) => from < one.to - position && to > one.from - position);
  for (const { words, token, of, beside } of values) {
    for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + words.length)) {
      const end = at + words.length;
      if (WORD.test(text.slice(Math.max(0, at - 1), at)) || WORD.test(text.slice(end, end + 1))) continue;
      if (isTaken(at, end) || (beside && !standsBeside(text, at, end, beside))) continue;
      known.push(recognised(position + at, words, token, of, false));
    }
  }
  known.sort(inOrder);
  const whole = withTimes(text, position, known);
  const like = valueLike(text, language).flatMap(({ from, words, kind, label }): Recognised[] => {
    const at = { from: position + from, to: position + from + words.length };
    if (whole.some((one) => at.from < one.to && at.to > one.from)) return [];
    return [{ ...at, words, certain: false, ...blanks.of(words, kind, label) }];
  });
  return [...whole, ...like].sort(inOrder);
}

function inOrder(a: Recognised, b: Recognised): number {
  return a.from - b.from;
}

/** Whether a number stands by itself, and one of the words follows it: `2 passengers`, `2 more passengers`. */
function standsBeside(text: string, at: number, end: number, words: string[]): boolean {
  if (/[.,:/-]$/.test(text.slice(0, at)) || /^[.,:/-]\d/.test(text.slice(end))) return false;
  const [, ...next] = /^\s+(\p{L}+)(?:\s+(\p{L}+))?/u.exec(text.slice(end).toLowerCase()) ?? [];
  // Of one there is one passenger, of two two passengers.
  return next.some(
    (said: string | undefined) =>
      said !== undefined && words.some((word) => said.slice(0, word.length - 1) === word.slice(0, -1)),
  );
}

/** What stands between a day and the time of it. */
const BETWEEN = /^,? ?(?:at|um|à|a las|kl\.?)? ?$/u;

/** A day and its time of one value, one behind the other, as one. */
function withTimes(text: string, position: number, found: Recognised[]): Recognised[] {
  return found.reduce<Recognised[]>((all, one) => {
    const last = all.at(-1);
    const [day, time] = [last?.node.attrs, one.node.attrs];
    if (
      !last ||
      day?.name !== time.name ||
      day.fn !== "date" ||
      time.fn !== "time" ||
      !BETWEEN.test(text.slice(last.to - position, one.from - position))
    )
      return [...all, one];
    const { fields, length } = day.options;
    const options = {
      ...(fields === undefined ? {} : { dateFields: fields }),
      dateLength: length ?? "long",
      timePrecision: "minute",
    };
    const words = text.slice(last.from - position, one.to - position);
    const node: Recognised["node"] = { type: "token", attrs: { name: time.name, fn: "datetime", options } };
    return [...all.slice(0, -1), { ...last, to: one.to, words, node }];
  }, []);
}

/** Names for the blanks of a letter: the same words are the same blank, others that are called the same are counted. */
class BlankNames {
  readonly #known = new Map<string, { name: string; label: string }>();
  readonly #counts = new Map<string, number>();

  of(
    words: string,
    kind: ValueLike["kind"],
    label: string,
  ): { node: BlankNode; label: string; blank: Blank } {
    const key = `${kind} ${label} ${words}`;
    const known = this.#known.get(key) ?? this.#named(label);
    this.#known.set(key, known);
    return {
      node: { type: "blank", attrs: { name: known.name, fn: null, options: {} } },
      label: known.label,
      blank: blankSchema.parse({ kind, label: known.label }),
    };
  }

  #named(bare: string): { name: string; label: string } {
    const count = (this.#counts.get(bare) ?? 0) + 1;
    this.#counts.set(bare, count);
    const label = count === 1 ? bare : `${bare} ${count}`;
    const taken = new Set([...this.#known.values()].map(({ name }) => name));
    return { name: nameFrom(label, taken, "value"), label };
  }
}

/** The definitions of the blanks among what was recognised, by name. */
export function blanksOf(accepted: Recognised[]): Blanks {
  return Object.fromEntries(
    accepted.flatMap(({ node, blank }) => (blank === null ? [] : [[node.attrs.name, blank] as const])),
  );
}

/** What stands in place of words. */
interface Placed {
  from: number;
  to: number;
  node: Inline;
}

function split(node: TextNode, at: number, accepted: Placed[]): Inline[] {
  const { source: _source, ...plainNode } = node;
  const inside = accepted
    .filter((one) => one.from >= at && one.to <= at + node.text.length)
    .sort((a, b) => a.from - b.from);
  const parts: Inline[] = [];
  let from = 0;
  const words = (to: number) => {
    if (to > from) parts.push({ ...plainNode, text: node.text.slice(from, to) });
  };
  for (const one of inside) {
    words(one.from - at);
    parts.push(node.marks ? { ...one.node, marks: [...(one.node.marks ?? []), ...node.marks] } : one.node);
    from = one.to - at;
  }
  words(node.text.length);
  return parts;
}
