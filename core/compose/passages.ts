import type { Condition } from "../conditions/condition";
import { evaluate, valuesOf, type Values } from "../conditions/evaluate";
import type { PatternEngine } from "../conditions/patterns";
import { inWords } from "../conditions/in-words";
import type { PassageRef } from "../document/definition";
import { blankLabel, blankValue } from "../tokens/blanks";
import { ownEntry } from "../tokens/own";
import type { Token } from "../tokens/catalogue";
import type { Context } from "../tokens/context";
import type { Style } from "../tokens/format";
import type { Slip } from "./slip";
import { t } from "../words/letters";

/** Whether a passage stands, and the sentence that says why. */
export interface Decision {
  holds: boolean;
  /** The condition in words: `Refund or change is “change”`. */
  words: string;
  /** The values that decided. */
  seen: string[];
  problems: string[];
}

/** What a person calls a token, a blank or a part of the message. */
export function labelOf(
  name: string,
  slip: Pick<Slip, "blanks">,
  tokens: ReadonlyMap<string, Token>,
): string {
  if (name.startsWith("blank.")) {
    const key = name.slice("blank.".length);
    return blankLabel(key, ownEntry(slip.blanks, key));
  }
  // Called as those who choose it see it.
  if (name === "message.body") return t("theMessagesPart", { part: t("text") });
  if (name.startsWith("message."))
    return t("theMessagesPart", { part: name.slice("message.".length).replaceAll("_", " ") });
  return tokens.get(name)?.label ?? name;
}

/** What the conditions of a slip read: its blanks as they are filled, and the case. */
export function slipValues(
  slip: Pick<Slip, "blanks" | "values">,
  context: Context,
  style: Style,
  patterns: PatternEngine,
): Values {
  const blank = (name: string) =>
    blankValue(name, ownEntry(slip.blanks, name), ownEntry(slip.values, name), context, style);
  return valuesOf(context, blank, patterns);
}

/** Decides every passage of a slip, by id. */
export function decidePassages(
  slip: Pick<Slip, "blanks" | "passages" | "values">,
  context: Context,
  style: Style,
  tokens: ReadonlyMap<string, Token>,
  patterns: PatternEngine,
): Map<string, Decision> {
  const values = slipValues(slip, context, style, patterns);
  return new Map(
    Object.entries(slip.passages).map(([id, passage]) => {
      const verdict = evaluate(passage.when, values);
      return [id, { words: conditionInWords(passage.when, slip, tokens), ...verdict }];
    }),
  );
}

/** Conditions in words, by the condition: they never change while blanks and tokens are called the same. */
const worded = new WeakMap<
  Condition,
  { blanks: Slip["blanks"]; tokens: ReadonlyMap<string, Token>; words: string }
>();

function conditionInWords(
  condition: Condition,
  slip: Pick<Slip, "blanks">,
  tokens: ReadonlyMap<string, Token>,
): string {
  const known = worded.get(condition);
  if (known?.blanks === slip.blanks && known.tokens === tokens) return known.words;
  const words = inWords(condition, (name) => labelOf(name, slip, tokens));
  worded.set(condition, { blanks: slip.blanks, tokens, words });
  return words;
}

/**
 * Whether words under these passages stand: every one must, by its condition or by its opposite.
 * A passage whose condition is not to be had stands, so that nothing vanishes unseen; composing reports it.
 */
export function stands(refs: PassageRef[], decisions: ReadonlyMap<string, Decision>): boolean {
  return refs.every((ref) => {
    const decision = decisions.get(ref.id);
    return decision === undefined ? true : decision.holds !== ref.otherwise;
  });
}
