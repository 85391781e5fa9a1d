import type { Context } from "../tokens/context";
import { plain } from "../tokens/format";
import { lookUp, valueOf, type Value } from "../tokens/values";
import { MAX_MATCHED_LENGTH, type Condition, type Test } from "./condition";
import type { PatternEngine } from "./patterns";
import { t } from "../words/conditions";

/** Where a condition finds its values. */
export interface Values {
  /** The value of a full name: `group.key`, `blank.NAME` or `message.PART`. */
  value(name: string): Value;
  /** ISO 8601 instant that “now” means. */
  now: string;
  /** What runs regular expressions. */
  patterns: PatternEngine;
}

export interface Verdict {
  holds: boolean;
  /** The values that decided, as `name: value`, for the trace. */
  seen: string[];
  /** Tests that could not be made, such as a regular expression that does not parse. */
  problems: string[];
}

/** Values of a context together with those of blanks. */
export function valuesOf(context: Context, blank: (name: string) => Value, patterns: PatternEngine): Values {
  return {
    patterns,
    now: context.now,
    value(name) {
      if (name.startsWith("blank.")) return blank(name.slice("blank.".length));
      if (name.startsWith("message.")) return messageValue(context, name.slice("message.".length));
      return lookUp(context, name, null);
    },
  };
}

function messageValue(context: Context, part: string): Value {
  const message: Record<string, string | boolean | undefined> = context.message;
  return valueOf(
    Object.hasOwn(message, part) ? message[part] : undefined,
    "long_text",
    t("theMessageDoesNotSay"),
  );
}

/**
 * Whether a condition holds. A missing value satisfies no comparison but `missing`, `differs` and `lacks`.
 * @throws never; what cannot be tested does not hold, and is reported.
 */
export function evaluate(condition: Condition, values: Values): Verdict {
  if ("all" in condition) return joined(condition.all, values, (parts) => parts.every((part) => part.holds));
  if ("any" in condition) return joined(condition.any, values, (parts) => parts.some((part) => part.holds));
  if ("not" in condition) {
    const inner = evaluate(condition.not, values);
    return { ...inner, holds: inner.problems.length === 0 && !inner.holds };
  }
  return evaluateTest(condition, values);
}

function joined(parts: Condition[], values: Values, join: (parts: Verdict[]) => boolean): Verdict {
  const verdicts = parts.map((part) => evaluate(part, values));
  return {
    holds: join(verdicts),
    seen: [...new Set(verdicts.flatMap((verdict) => verdict.seen))],
    problems: verdicts.flatMap((verdict) => verdict.problems),
  };
}

function evaluateTest(test: Test, values: Values): Verdict {
  const found = values.value(test.value);
  const seen = [
    `${test.value}: ${found.kind === "missing" ? t("isMissing") : shortened(plain(found.value), MOST_SEEN)}`,
  ];
  if (test.is === "matches") {
    const pattern = values.patterns(String(test.to), test.ignore_case ?? false);
    if (!pattern)
      return {
        holds: false,
        seen,
        problems: [t("notARegularExpression", { pattern: String(test.to) })],
      };
    return {
      holds:
        found.kind === "value" &&
        each(found.value).some((text) => pattern(shortened(text, MAX_MATCHED_LENGTH))),
      seen,
      problems: [],
    };
  }
  return { holds: holds(test, found, values.now), seen, problems: [] };
}

/** As much of a value as tells which it was. */
const MOST_SEEN = 300;

/** A text's beginning, with a sign where it goes on: a pattern for its end does not find one there. */
function shortened(text: string, most: number): string {
  return text.length <= most ? text : `${text.slice(0, most - 1)}…`;
}

function holds(test: Test, found: Value, now: string): boolean {
  if (test.is === "present") return found.kind === "value";
  if (test.is === "missing") return found.kind === "missing";
  if (found.kind === "missing") return test.is === "differs" || test.is === "lacks";
  const fold = (text: string) => (test.ignore_case ? text.toLocaleLowerCase("en") : text);
  const texts = each(found.value).map(fold);
  const to = (Array.isArray(test.to) ? test.to : [test.to ?? ""]).map((one) => fold(plainScalar(one)));
  const [first = "", second = ""] = to;
  const list = Array.isArray(found.value);
  switch (test.is) {
    case "equals":
      return same(texts, first, found, list);
    case "differs":
      return !same(texts, first, found, list);
    case "contains":
      return list ? texts.includes(first) : texts.some((text) => text.includes(first));
    case "lacks":
      return list ? !texts.includes(first) : !texts.some((text) => text.includes(first));
    case "starts":
      return texts.some((text) => text.startsWith(first));
    case "ends":
      return texts.some((text) => text.endsWith(first));
    case "one_of":
      return texts.some((text) => to.includes(text));
    case "less":
      return compare(found, first, now) < 0;
    case "at_most":
      return compare(found, first, now) <= 0;
    case "more":
      return compare(found, first, now) > 0;
    case "at_least":
      return compare(found, first, now) >= 0;
    case "before":
      return compare(found, first, now) < 0;
    case "after":
      return compare(found, first, now) > 0;
    case "between":
      return compare(found, first, now) >= 0 && compare(found, second, now) <= 0;
    default:
      return false;
  }
}

function same(texts: string[], to: string, found: Value & { kind: "value" }, list: boolean): boolean {
  if (list) return texts.length === 1 && texts[0] === to;
  const number = toNumber(found.value);
  return number !== null && to.trim() !== "" && Number.isFinite(Number(to))
    ? number === Number(to)
    : texts[0] === to;
}

function plainScalar(value: string | number | boolean): string {
  return plain(value);
}

function each(value: (Value & { kind: "value" })["value"]): string[] {
  return Array.isArray(value) ? value : [plain(value)];
}

/** Order of a value and a comparison text as numbers, else as instants; NaN (which satisfies nothing) when neither. */
function compare(found: Value & { kind: "value" }, to: string, now: string): number {
  const number = toNumber(found.value);
  if (number !== null && to.trim() !== "" && Number.isFinite(Number(to))) return number - Number(to);
  if (typeof found.value !== "string") return Number.NaN;
  return Date.parse(clock(found.value)) - Date.parse(clock(to === "now" ? now : to));
}

function clock(text: string): string {
  return /^\d{2}:\d{2}$/.test(text) ? `1970-01-01T${text}:00Z` : text;
}

function toNumber(value: (Value & { kind: "value" })["value"]): number | null {
  if (typeof value === "number") return value;
  if (typeof value === "object" && "amount" in value) return value.amount;
  if (typeof value !== "string" || value.trim() === "") return null;
  const number = Number(value);
  return Number.isFinite(number) ? number : null;
}
