import { readIn } from "../language/written";
import type { TokenType } from "./catalogue";
import { ownEntry } from "./own";
import { tokenGroups, type Context, type Detail, type TokenGroup } from "./context";
import { t } from "../words/tokens";

/** What a name stands for: a value with its type, or the reason why there is none. */
export type Value =
  | { kind: "value"; value: Exclude<Detail, null>; type: TokenType | null }
  | { kind: "missing"; why: string; /** Something was given, and cannot be taken. */ unfit?: true };

/** A value to print, cleaned of what no letter may carry. */
export function valueOf(detail: Detail | undefined, type: TokenType | null, why: string): Value {
  if (detail === undefined || detail === null) return { kind: "missing", why };
  if (typeof detail === "string") {
    const text = clean(detail, type === "long_text");
    return text === "" ? { kind: "missing", why } : { kind: "value", value: text, type };
  }
  if (typeof detail === "number" && !Number.isFinite(detail)) return { kind: "missing", why };
  if (Array.isArray(detail)) {
    const texts = detail.map((text) => clean(text, false)).filter((text) => text !== "");
    return texts.length === 0 ? { kind: "missing", why } : { kind: "value", value: texts, type };
  }
  return { kind: "value", value: detail, type };
}

/**
 * Looks a token up. Only a group's own entries count, so that no name reaches anything else.
 * @param language BCP 47 tag: reads a text in it where there is one; null for the text that came first
 */
export function lookUp(
  context: Context,
  name: string,
  type: TokenType | null,
  language: string | null = null,
): Value {
  const { group, key } = partsOf(name);
  if (!isTokenGroup(group)) return { kind: "missing", why: t("thereIsNoGroupGroup", { group }) };
  const details = context[group];
  const first = Object.hasOwn(details, key) ? details[key] : undefined;
  const value = valueOf(language === null ? first : inLanguage(context, name, first, language), type, "");
  if (value.kind === "value") return value;
  const isEmpty = Object.keys(details).length === 0;
  return { ...value, why: t((isEmpty ? missingGroup : missingValue)[group]) };
}

function inLanguage(
  { written }: Context,
  name: string,
  first: Detail | undefined,
  language: string,
): Detail | undefined {
  const known = typeof first === "string" ? ownEntry(written, name) : undefined;
  return known ? readIn({ ...known, text: first }, language).text : first;
}

/** Names are few and looked up all the time. */
const parts = new Map<string, { group: string; key: string }>();
const MOST_NAMES = 2000;

function partsOf(name: string): { group: string; key: string } {
  let known = parts.get(name);
  if (!known) {
    const dot = name.indexOf(".");
    known = { group: name.slice(0, dot), key: name.slice(dot + 1) };
    if (parts.size >= MOST_NAMES) parts.clear();
    parts.set(name, known);
  }
  return known;
}

const missingGroup = {
  case: "thereIsNoCase",
  customer: "theCustomerIsNotKnown",
  organisation: "theCustomerBelongsToNoOrganisation",
  booking: "noBookingWasFound",
  detail: "nothingWasFoundOutside",
  agent: "noAgentIsNamed",
  house: "noHouseFactsAreKept",
  ask: "thisQuestionCannotBeAsked",
  answer: "theCustomerPressedNoAnswer",
} as const satisfies Record<TokenGroup, string>;

const missingValue = {
  case: "theCaseHasNoValueForIt",
  customer: "theCustomerHasNoValueForIt",
  organisation: "theOrganisationHasNoValueForIt",
  booking: "theBookingHasNoValueForIt",
  detail: "nothingWasFoundOutside",
  agent: "theAgentHasNoValueForIt",
  house: "theHouseHasNoValueForIt",
  ask: "thereIsNoSuchQuestion",
  answer: "theCustomerPressedNoAnswer",
} as const satisfies Record<TokenGroup, string>;

const groups: ReadonlySet<string> = new Set(tokenGroups);

function isTokenGroup(name: string): name is TokenGroup {
  return groups.has(name);
}

// Control characters, and the marks that override the direction of what follows them.
const UNPRINTABLE = /[\u0000-\u0009\u000b-\u001f\u007f-\u009f\u202a-\u202e\u2066-\u2069\ufeff]/g;

/** Whatever is changed below: line ends of every kind, tabs, and what is unprintable. */
const UNUSUAL = /[\u0000-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069\ufeff]/;

/** Printable text on one line, or on several for long texts. */
function clean(text: string, keepLines: boolean): string {
  if (!UNUSUAL.test(text)) return text.trim();
  const printable = text
    .replace(/\r\n?|\u0085|\u2028|\u2029/g, "\n")
    .replaceAll("\t", " ")
    .replace(UNPRINTABLE, "");
  return (keepLines ? printable : printable.replace(/\s*\n\s*/g, " ")).trim();
}
