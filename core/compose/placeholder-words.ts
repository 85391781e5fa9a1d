import { safeHref } from "../document/links";
import type { BlankNode, TokenNode } from "../document/types";
import { asksQuestion } from "../questions/question";
import { blankValue, joinChoices } from "../tokens/blanks";
import { formatValue, type Formatted } from "../tokens/format";
import { ownEntry } from "../tokens/own";
import { lookUp } from "../tokens/values";
import type { FillInput } from "./fill-input";
import type { Slip } from "./slip";

/** What stands in the letter for a value that is missing, for the eye and for the checks. */
export function gap(label: string): string {
  return `[${label}]`;
}

/** The words for a token, or why there are none. */
export function fillToken(
  node: TokenNode,
  input: Pick<FillInput, "context" | "style" | "tokens">,
): Formatted {
  const { name } = node.attrs;
  const token = input.tokens.get(name);
  const type = token?.type ?? null;
  const filled = formatValue(
    lookUp(input.context, name, type, input.style.language),
    node.attrs,
    input.style,
  );
  // A question says its words; its value is where it is answered.
  const isAsked = asksQuestion(name) && filled.kind === "text" && !filled.fellBack;
  return isAsked ? { ...filled, text: token?.label ?? name } : filled;
}

/** Where a question is answered; null where its answers stand beside it, or it cannot be asked. */
export function questionHref(node: TokenNode, input: Pick<FillInput, "context">): string | null {
  const value = lookUp(input.context, node.attrs.name, "link");
  return value.kind === "value" && typeof value.value === "string" ? safeHref(value.value) : null;
}

/** The words for a blank, or why there are none. */
export function fillBlank(
  node: BlankNode,
  input: Pick<FillInput, "context" | "style"> & { slip: Pick<Slip, "blanks" | "values"> },
): Formatted {
  const { name } = node.attrs;
  const blank = ownEntry(input.slip.blanks, name);
  const value = blankValue(name, blank, ownEntry(input.slip.values, name), input.context, input.style);
  if (value.kind === "value" && Array.isArray(value.value)) {
    const joined = joinChoices(value.value, blank, input.style.language);
    return formatValue({ ...value, value: joined }, node.attrs, input.style);
  }
  return formatValue(value, node.attrs, input.style);
}
