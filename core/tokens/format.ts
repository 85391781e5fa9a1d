import { reasonOf } from "../text/reason";
import { MessageFormat } from "messageformat";
import { DraftFunctions } from "messageformat/functions";
import type { PlaceholderAttrs } from "../document/types";
import type { TokenType } from "./catalogue";
import type { Money } from "./context";
import type { Value } from "./values";
import { t } from "../words/tokens";

/** How values are written: the letter's language and the zones that dates are told in. */
export interface Style {
  /** BCP 47 tag. */
  language: string;
  /** IANA zone of the house. */
  timeZone: string;
  /** IANA zone of the customer, for placeholders that say `timeZone=customer`; the house's when not known. */
  customerTimeZone?: string | null;
}

export type Formatted =
  | { kind: "text"; text: string; fellBack: boolean }
  | { kind: "missing"; why: string; unfit?: true }
  | { kind: "problem"; problem: string };

/**
 * Writes a value as a placeholder asks, by Unicode MessageFormat 2's functions (LDML 48, part 9).
 * Without a function the value's type chooses one. A missing value takes the placeholder's `fallback`,
 * and stays missing where there is none: it never becomes an empty text.
 */
export function formatValue(value: Value, attrs: PlaceholderAttrs, style: Style): Formatted {
  if (value.kind === "missing") return formatMissing(value, attrs);
  const slot = slotOf(attrs, style, value.type);
  const key = keyOf(value.value);
  if (!slot || key === null) return formatAnew(value, attrs, style);
  let known = slot.written.get(key);
  if (!known) {
    known = formatAnew(value, attrs, style);
    if (slot.written.size >= MOST_IN_SLOT) slot.written.clear();
    slot.written.set(key, known);
  }
  return known;
}

/** What a placeholder has written before in a style, of values of one type. */
interface Slot {
  style: Style;
  type: TokenType | null;
  written: Map<string | number, Formatted>;
}

/** A placeholder's attributes never change: what it wrote is kept by them. */
const slots = new WeakMap<PlaceholderAttrs, Slot[]>();
const MOST_SLOTS = 8;
const MOST_IN_SLOT = 200;

function slotOf(attrs: PlaceholderAttrs, style: Style, type: TokenType | null): Slot | null {
  const own = slots.get(attrs);
  const known = own?.find((slot) => slot.style === style && slot.type === type);
  if (known) return known;
  const made: Slot = { style, type, written: new Map() };
  slots.set(attrs, [made, ...(own ?? [])].slice(0, MOST_SLOTS));
  return made;
}

/** A value as a key; null for a list, which is written anew each time. */
function keyOf(value: (Value & { kind: "value" })["value"]): string | number | null {
  if (typeof value === "string" || typeof value === "number") return value;
  if (typeof value === "boolean") return value ? "\u0001yes" : "\u0001no";
  return isMoney(value) ? `\u0001${value.amount} ${value.currency}` : null;
}

function formatMissing(value: Value & { kind: "missing" }, { options }: PlaceholderAttrs): Formatted {
  const fallback = options.fallback?.trim();
  return fallback
    ? { kind: "text", text: fallback, fellBack: true }
    : { kind: "missing", why: value.why, ...(value.unfit ? { unfit: true } : {}) };
}

function formatAnew(
  value: Value & { kind: "value" },
  { fn, options }: PlaceholderAttrs,
  style: Style,
): Formatted {
  const usual = usualFormat(value);
  const name = fn ?? usual.fn;
  const { fallback: _fallback, case: letterCase, ...rest } = options;
  const settings = name === usual.fn ? { ...usual.options, ...rest } : rest;
  if (letterCase !== undefined && !isLetterCase(letterCase)) {
    return { kind: "problem", problem: t("caseIsNoneOf", { letterCase }) };
  }
  const operand = toOperand(value, name, settings, style);
  if (operand === null) {
    return { kind: "problem", problem: t("valueCannotBeWrittenAs", { value: plain(value.value), name }) };
  }
  const written = run(name, settings, operand, style.language);
  if (written.kind !== "text" || letterCase === undefined) return written;
  return { ...written, text: inCase(written.text, letterCase, style.language) };
}

/** The formatting functions that a placeholder may name. */
export const formatFunctions = [
  "text",
  "string",
  "number",
  "integer",
  "currency",
  "percent",
  "date",
  "time",
  "datetime",
] as const;

const letterCases = ["upper", "lower", "title", "sentence"] as const;
type LetterCase = (typeof letterCases)[number];

function isLetterCase(name: string): name is LetterCase {
  return (letterCases as readonly string[]).includes(name);
}

interface Format {
  fn: string;
  options: Record<string, string>;
}

const byType: Partial<Record<TokenType, Format>> = {
  integer: { fn: "integer", options: {} },
  number: { fn: "number", options: {} },
  money: { fn: "currency", options: {} },
  date: { fn: "date", options: { length: "long" } },
  time: { fn: "time", options: { precision: "minute" } },
  datetime: { fn: "datetime", options: { dateLength: "long", timePrecision: "minute" } },
};

function usualFormat(value: Value & { kind: "value" }): Format {
  const byValue: Format =
    typeof value.value === "number"
      ? { fn: "number", options: {} }
      : isMoney(value.value)
        ? { fn: "currency", options: {} }
        : { fn: "text", options: {} };
  return (value.type && byType[value.type]) ?? byValue;
}

function isMoney(value: unknown): value is Money {
  return typeof value === "object" && value !== null && "currency" in value;
}

/** A value as its plain text, for messages and for texts that ask for no format. */
export function plain(value: (Value & { kind: "value" })["value"]): string {
  if (Array.isArray(value)) return value.join(", ");
  if (isMoney(value)) return `${value.amount} ${value.currency}`;
  return typeof value === "boolean" ? (value ? "yes" : "no") : String(value);
}

/** The value in the shape that the function takes; null when it has no such shape. */
function toOperand(
  { value }: Value & { kind: "value" },
  fn: string,
  settings: Record<string, string>,
  style: Style,
): unknown {
  switch (fn) {
    case "number":
    case "integer":
    case "percent":
    case "currency": {
      if (isMoney(value)) {
        return { valueOf: () => value.amount, options: { currency: settings.currency ?? value.currency } };
      }
      const number = typeof value === "string" && value.trim() !== "" ? Number(value) : value;
      return typeof number === "number" && Number.isFinite(number) ? number : null;
    }
    case "date":
    case "time":
    case "datetime":
      return typeof value === "string" ? dateOperand(value, settings, style) : null;
    default:
      return plain(value);
  }
}

const DATE = /^\d{4}-\d{2}-\d{2}$/;
const TIME = /^\d{2}:\d{2}(?::\d{2})?$/;
const INSTANT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2}(?:\.\d+)?)?(?:Z|[+-]\d{2}:\d{2})$/;

/** Calendar dates and clock times name no zone and must not shift: they are told in UTC. */
function dateOperand(text: string, settings: Record<string, string>, style: Style): unknown {
  const floating = DATE.test(text) || TIME.test(text);
  if (!floating && !INSTANT.test(text)) return null;
  const date = new Date(TIME.test(text) ? `1970-01-01T${text}Z` : text);
  if (Number.isNaN(date.getTime())) return null;
  const asked = settings.timeZone;
  delete settings.timeZone;
  const zone = asked === "customer" ? (style.customerTimeZone ?? style.timeZone) : (asked ?? style.timeZone);
  return { valueOf: () => date, options: { timeZone: floating ? "UTC" : zone } };
}

const textFunction = (_context: unknown, _options: unknown, input?: unknown) => ({
  type: "string" as const,
  toString: () => String(input),
  valueOf: () => String(input),
});

const functions = { ...DraftFunctions, text: textFunction };

const formats = new Map<string, MessageFormat<string>>();
const written = new Map<string, string>();
const MOST_KEPT = 5000;

/** Formatters and their results are kept: making Intl's objects costs far more than using them. */
function run(fn: string, options: Record<string, string>, operand: unknown, language: string): Formatted {
  const key = JSON.stringify([language, fn, options]);
  const input = operand as { valueOf(): unknown; options?: unknown };
  const resultKey = JSON.stringify([key, input.valueOf(), input.options ?? null]);
  const known = written.get(resultKey);
  if (known !== undefined) return { kind: "text", text: known, fellBack: false };
  let format = formats.get(key);
  try {
    format ??= new MessageFormat(
      language,
      {
        type: "message",
        declarations: [],
        pattern: [
          {
            type: "expression",
            arg: { type: "variable", name: "value" },
            functionRef: {
              type: "function",
              name: fn,
              options: Object.fromEntries(
                Object.entries(options).map(([name, value]) => [name, { type: "literal", value }]),
              ),
            },
          },
        ],
      },
      { functions, bidiIsolation: "none" },
    );
    remember(formats, key, format);
    let problem: string | null = null;
    const text = format.format({ value: operand }, (error) => {
      problem ??= reasonOf(error);
    });
    if (problem !== null) return { kind: "problem", problem };
    // ICU writes narrow no-break spaces that old mail readers show as boxes.
    const readable = text.replaceAll("\u202f", "\u00a0");
    remember(written, resultKey, readable);
    return { kind: "text", text: readable, fellBack: false };
  } catch (error) {
    return { kind: "problem", problem: reasonOf(error) };
  }
}

function remember<T>(map: Map<string, T>, key: string, value: T): void {
  if (map.size >= MOST_KEPT) map.clear();
  map.set(key, value);
}

function inCase(text: string, letterCase: LetterCase, language: string): string {
  switch (letterCase) {
    case "upper":
      return text.toLocaleUpperCase(language);
    case "lower":
      return text.toLocaleLowerCase(language);
    case "title":
      return text.replace(/\p{L}[\p{L}\p{M}’']*/gu, (word) => capital(word, language));
    case "sentence":
      return text.replace(/\p{L}/u, (letter) => letter.toLocaleUpperCase(language));
  }
}

function capital(word: string, language: string): string {
  const [first = "", ...rest] = [...word];
  return first.toLocaleUpperCase(language) + rest.join("");
}
