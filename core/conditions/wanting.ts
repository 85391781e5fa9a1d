import type { Condition } from "./condition";
import { evaluate, type Values } from "./evaluate";

/** Whether a condition is decided whatever is still unanswered; else the names of the blanks that it waits for. */
type Decided = boolean | ReadonlySet<string>;

/**
 * The blanks that a condition waits for: those without an answer on which its outcome still depends
 * (Kleene's three-valued logic: what is false anyway is not kept open by what else it joins).
 * @param unanswered whether a blank, by its name, is still to be answered
 * @returns names of blanks, without `blank.`; empty where the condition is decided
 */
export function wanting(
  condition: Condition,
  values: Values,
  unanswered: (blank: string) => boolean,
): ReadonlySet<string> {
  const decided = decide(condition, values, unanswered);
  return typeof decided === "boolean" ? new Set() : decided;
}

function decide(condition: Condition, values: Values, unanswered: (blank: string) => boolean): Decided {
  if ("all" in condition) return join(condition.all, false, values, unanswered);
  if ("any" in condition) return join(condition.any, true, values, unanswered);
  if ("not" in condition) {
    const inner = decide(condition.not, values, unanswered);
    return typeof inner === "boolean" ? !inner : inner;
  }
  const { value } = condition;
  const blank = value.startsWith("blank.") ? value.slice("blank.".length) : null;
  if (blank !== null && unanswered(blank)) return new Set([blank]);
  return evaluate(condition, values).holds;
}

/** @param settles the part's outcome that settles the whole */
function join(
  parts: Condition[],
  settles: boolean,
  values: Values,
  unanswered: (blank: string) => boolean,
): Decided {
  const outcomes = parts.map((part) => decide(part, values, unanswered));
  if (outcomes.includes(settles)) return settles;
  const waiting = outcomes.flatMap((outcome) => (typeof outcome === "boolean" ? [] : [...outcome]));
  return waiting.length > 0 ? new Set(waiting) : !settles;
}
