import { t } from "../words/conditions";
import { yesOrNo } from "../words/named";
import type { Condition, Test } from "./condition";

/**
 * A condition as the words that follow “when”: `booking has a vehicle`, `Refund or change is refund`.
 * @param label what a person calls a name such as `booking.vehicle` or `blank.harbour`
 */
export function inWords(condition: Condition, label: (name: string) => string): string {
  return words(condition, label, false);
}

function words(condition: Condition, label: (name: string) => string, inner: boolean): string {
  if ("all" in condition) return joined("both", condition.all, label, inner);
  if ("any" in condition) return joined("either", condition.any, label, inner);
  if ("not" in condition) return t("not", { condition: words(condition.not, label, false) });
  return testWords(condition, label(condition.value));
}

function joined(
  join: "both" | "either",
  parts: Condition[],
  label: (name: string) => string,
  inner: boolean,
): string {
  const text = parts
    .map((part) => words(part, label, parts.length > 1))
    .reduce((first, second) => (first === "" ? second : t(join, { first, second })), "");
  return inner && parts.length > 1 ? t("inBrackets", { condition: text }) : text;
}

function testWords({ is, to }: Test, name: string): string {
  if (is === "present" || is === "missing") return t(is, { name });
  const written = is === "matches" ? (value: unknown) => `/${String(value)}/` : valueInWords;
  const values = [to ?? []].flat().map(written);
  if (is === "between") return t(is, { name, from: values[0] ?? "", until: values[1] ?? "" });
  // One that compares with nothing yet ends there.
  return t(is, { name, value: values.join(", ") }).trimEnd();
}

function valueInWords(value: string | number | boolean): string {
  if (typeof value === "boolean") return yesOrNo(value ? "yes" : "no");
  return typeof value === "string" ? t("quoted", { value }) : String(value);
}
