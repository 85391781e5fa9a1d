import { t } from "../words/conditions";
import { yesOrNo } from "../words/named";
import type { Condition, Test } from "./condition";

/**
 * A condition as the words that follow “when”: `booking has a vehicle`, `Refund or change is refund`.
 * @param label what a person calls a name such as `booking.vehicle` or `blank.harbour`
 * @param called what a person calls a value that a name is compared with; null for the value itself
 */
export function inWords(
  condition: Condition,
  label: (name: string) => string,
  called: (name: string, value: string) => string | null = () => null,
): string {
  return words(condition, { label, called }, false);
}

/** Tests of which any is to hold and which ask the same of one value, as a single test of what they compare it with. */
function sameAsked(condition: Condition): Test | null {
  if (!("any" in condition) || condition.any.length < 2) return null;
  const tests = condition.any.filter((one) => "value" in one);
  const [first] = tests;
  if (!first || tests.length < condition.any.length || first.is === "between") return null;
  const isSame = tests.every(
    ({ value, is, to }) => value === first.value && is === first.is && to !== undefined,
  );
  return isSame ? { ...first, to: tests.flatMap(({ to = [] }) => to) } : null;
}

interface Say {
  label: (name: string) => string;
  called: (name: string, value: string) => string | null;
}

function words(condition: Condition, say: Say, inner: boolean): string {
  if ("all" in condition) return joined("both", condition.all, say, inner);
  const several = sameAsked(condition);
  if (several !== null) return testWords(several, say);
  if ("any" in condition) return joined("either", condition.any, say, inner);
  if ("not" in condition) return t("not", { condition: words(condition.not, say, false) });
  return testWords(condition, say);
}

function joined(join: "both" | "either", parts: Condition[], say: Say, inner: boolean): string {
  const text = parts
    .map((part) => words(part, say, parts.length > 1))
    .reduce((first, second) => (first === "" ? second : t(join, { first, second })), "");
  return inner && parts.length > 1 ? t("inBrackets", { condition: text }) : text;
}

function testWords({ value: of, is, to }: Test, { label, called }: Say): string {
  const name = label(of);
  if (is === "present" || is === "missing") return t(is, { name });
  const written = (value: string | number | boolean) =>
    is === "matches" ? `/${String(value)}/` : (quoted(called(of, String(value))) ?? valueInWords(value));
  const values = [to ?? []].flat().map(written);
  if (is === "between") return t(is, { name, from: values[0] ?? "", until: values[1] ?? "" });
  // One that compares with nothing yet ends there.
  const several = is === "one_of" ? values.join(", ") : anyOf(values);
  return t(is, { name, value: several }).trimEnd();
}

/** Of which any will do. */
function anyOf(values: string[]): string {
  return values.reduce((first, second) => (first === "" ? second : t("either", { first, second })), "");
}

function quoted(value: string | null): string | null {
  return value === null ? null : t("quoted", { value });
}

function valueInWords(value: string | number | boolean): string {
  if (typeof value === "boolean") return yesOrNo(value ? "yes" : "no");
  return typeof value === "string" ? t("quoted", { value }) : String(value);
}
