import type { Condition } from "../conditions/condition";
import type { Blanks } from "../tokens/blanks";
import { ownEntry } from "../tokens/own";

/**
 * Whether a condition can be seen to hold never: it asks a choice for something that is not offered,
 * or one value for two different things at once. What cannot be decided counts as possible.
 */
export function isUnsatisfiable(condition: Condition, blanks: Blanks): boolean {
  if ("any" in condition) return condition.any.every((part) => isUnsatisfiable(part, blanks));
  if ("not" in condition) return false;
  if ("all" in condition) {
    if (condition.all.some((part) => isUnsatisfiable(part, blanks))) return true;
    const wanted = new Map<string, string>();
    return condition.all.some((part) => {
      if (!("value" in part)) return false;
      const present = condition.all.some(
        (other) => "value" in other && other.value === part.value && other.is === "missing",
      );
      if (present && part.is !== "missing" && part.is !== "differs" && part.is !== "lacks") return true;
      if (part.is !== "equals") return false;
      const known = wanted.get(part.value);
      wanted.set(part.value, String(part.to));
      return known !== undefined && known !== String(part.to);
    });
  }
  const blank = condition.value.startsWith("blank.")
    ? ownEntry(blanks, condition.value.slice("blank.".length))
    : undefined;
  if (blank?.kind !== "choice" || condition.ignore_case) return false;
  if (condition.is === "equals") return !blank.options.includes(String(condition.to));
  if (condition.is === "contains" && blank.many) return !blank.options.includes(String(condition.to));
  if (condition.is === "one_of" && Array.isArray(condition.to))
    return !condition.to.some((one) => blank.options.includes(String(one)));
  return false;
}
