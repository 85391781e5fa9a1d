import type { Condition, Operator, Test } from "./condition";

/**
 * A condition as the words that follow “when”: `booking has a vehicle`, `Refund or change is refund`.
 * @param label what a person calls a name such as `booking.vehicle` or `blank.harbour`
 */
export function inWords(condition: Condition, label: (name: string) => string): string {
  return words(condition, label, false);
}

function words(condition: Condition, label: (name: string) => string, inner: boolean): string {
  if ("all" in condition) return list(condition.all, "and", label, inner);
  if ("any" in condition) return list(condition.any, "or", label, inner);
  if ("not" in condition) return `not (${words(condition.not, label, false)})`;
  return testWords(condition, label(condition.value));
}

function list(parts: Condition[], word: string, label: (name: string) => string, inner: boolean): string {
  const text = parts.map((part) => words(part, label, parts.length > 1)).join(` ${word} `);
  return inner && parts.length > 1 ? `(${text})` : text;
}

const phrases: Record<Operator, string> = {
  present: "is known",
  missing: "is not known",
  equals: "is",
  differs: "is not",
  contains: "contains",
  lacks: "does not contain",
  starts: "starts with",
  ends: "ends with",
  matches: "matches",
  one_of: "is one of",
  less: "is less than",
  at_most: "is at most",
  more: "is more than",
  at_least: "is at least",
  before: "is before",
  after: "is after",
  between: "is between",
};

function testWords(test: Test, name: string): string {
  const phrase = phrases[test.is];
  const to = test.to;
  if (to === undefined) return `${name} ${phrase}`;
  if (test.is === "between" && Array.isArray(to))
    return `${name} ${phrase} ${valueInWords(to[0])} and ${valueInWords(to[1])}`;
  if (Array.isArray(to)) return `${name} ${phrase} ${to.map(valueInWords).join(", ")}`;
  return `${name} ${phrase} ${test.is === "matches" ? `/${String(to)}/` : valueInWords(to)}`;
}

function valueInWords(value: string | number | boolean | undefined): string {
  if (typeof value === "boolean") return value ? "yes" : "no";
  return typeof value === "string" ? `“${value}”` : String(value);
}
