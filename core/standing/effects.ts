import * as z from "zod/mini";
import { setStates } from "../words/case-states";
import { t } from "../words/standing";

/** Words by which cases are found among others: so many on a case, and so long. */
export const MOST_TAGS = 20;
export const tagSchema = z.string().check(
  z.trim(),
  z.minLength(1, t.error("aTagHasWords")),
  z.maxLength(40, t.error("aTagIsShorter")),
  z.refine((text) => !text.includes(","), t.error("aTagHasNoComma")),
);

/** What else happens to a case that a rule is for. What is left out stays as it is. */
export const effectsSchema = z.strictObject({
  state: z.optional(z.enum(setStates)),
  topic: z.optional(z.string().check(z.trim(), z.minLength(1), z.maxLength(100))),
  /** By their ids. */
  owner: z.optional(z.int()),
  team: z.optional(z.int()),
  tags: z.optional(z.array(tagSchema).check(z.maxLength(MOST_TAGS))),
});
export type Effects = z.infer<typeof effectsSchema>;

/**
 * What of that happens now: what a person is to see first stays with us, so that a state comes only with a letter that goes.
 * @param does what the rule does
 */
export function effectsOf(effects: Effects, does: "send" | "prepare" | "instead" | "held"): Effects {
  if (does === "held") return {};
  if (does === "send") return effects;
  const { state: _state, ...rest } = effects;
  return rest;
}

/** Tags of a case with those of others beside them: each once, in their order, however it is written. */
export function withTags(tags: readonly string[], more: readonly string[]): string[] {
  const known = new Map<string, string>();
  for (const tag of [...tags, ...more]) {
    const key = tag.trim().toLocaleLowerCase("en");
    if (key !== "" && !known.has(key)) known.set(key, tag.trim());
  }
  return [...known.values()].slice(0, MOST_TAGS);
}
