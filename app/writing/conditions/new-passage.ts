import type { Test } from "#core/conditions/condition";
import type { Blanks } from "#core/tokens/blanks";
import type { Token } from "#core/tokens/catalogue";
import type { Content } from "#server/replies/content";

/** What a new condition asks: the first choice of a blank that has choices, else whether there is a booking or a first name. */
export function firstTest(blanks: Blanks, tokens: ReadonlyMap<string, Token>): Test {
  for (const [name, blank] of Object.entries(blanks)) {
    if (blank.kind === "yes_no") return { value: `blank.${name}`, is: "equals", to: true };
    if (blank.kind === "choice")
      return { value: `blank.${name}`, is: blank.many ? "contains" : "equals", to: blank.options[0] ?? "" };
  }
  const value = [...tokens.keys()].find((name) => name.startsWith("booking.")) ?? "customer.first_name";
  return { value, is: "present" };
}

/** An id for a new passage that no other has. */
export function freePassage(passages: Content["passages"]): string {
  let number = Object.keys(passages).length + 1;
  while (Object.hasOwn(passages, `p${number}`)) number += 1;
  return `p${number}`;
}
