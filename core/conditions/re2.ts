import { RE2JS, RE2JSSyntaxException } from "re2js";
import { MAX_PATTERN_LENGTH } from "./condition";
import type { PatternEngine } from "./patterns";
import { t } from "../words/conditions";

const MOST_KEPT = 1000;
const compiled = new Map<string, RE2JS | null>();

/**
 * Regular expressions by RE2JS, which matches in time linear in the text whatever the pattern
 * (R. Cox, “Regular Expression Matching Can Be Simple And Fast”, 2007). Longer patterns than
 * MAX_PATTERN_LENGTH, and those that do not parse, cannot be used.
 */
export const re2Patterns: PatternEngine = (source, ignoreCase) => {
  const key = `${ignoreCase ? "i" : "-"}${source}`;
  let pattern = compiled.get(key);
  if (pattern === undefined) {
    pattern = compile(source, ignoreCase);
    if (compiled.size >= MOST_KEPT) compiled.clear();
    compiled.set(key, pattern);
  }
  const usable = pattern;
  return usable && ((text) => usable.matcher(text).find());
};

re2Patterns.problem = (source) => {
  if (source.length > MAX_PATTERN_LENGTH) return t("itIsLongerThan", { most: MAX_PATTERN_LENGTH });
  try {
    RE2JS.compile(source);
    return null;
  } catch (error) {
    if (!(error instanceof RE2JSSyntaxException)) throw error;
    const what = error.getDescription();
    const part = error.getPattern() ?? "";
    const at = source.indexOf(part);
    // Where all of it is said to be wrong, its end is where something is missing.
    const sign = /^missing closing (.*)$/.exec(what)?.[1];
    if (sign !== undefined) return t("itLacksAClosing", { sign });
    return at < 0 || part === "" ? what : t("problemAtCharacter", { problem: what, part, at: at + 1 });
  }
};

function compile(source: string, ignoreCase: boolean): RE2JS | null {
  if (source.length > MAX_PATTERN_LENGTH) return null;
  try {
    return RE2JS.compile(source, ignoreCase ? RE2JS.CASE_INSENSITIVE : 0);
  } catch {
    return null; // Told to the writer by whoever evaluates it.
  }
}
