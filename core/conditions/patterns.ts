/**
 * Runs regular expressions: for a pattern, whether it is found in a text; null for one that cannot be used.
 * It is passed in, so that a screen need not load an engine for conditions that match nothing.
 */
export interface PatternEngine {
  (source: string, ignoreCase: boolean): ((text: string) => boolean) | null;
  /** What is wrong with a pattern that cannot be used, and where, in words; left out where an engine does not tell. */
  problem?: (source: string) => string | null;
}

/** Whether a condition anywhere among passages needs a pattern engine. */
export function needsPatterns(passages: object): boolean {
  return JSON.stringify(passages).includes('"is":"matches"');
}
