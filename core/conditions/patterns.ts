/**
 * Runs regular expressions: for a pattern, whether it is found in a text; null for one that cannot be used.
 * It is passed in, so that a screen need not load an engine for conditions that match nothing.
 */
export type PatternEngine = (source: string, ignoreCase: boolean) => ((text: string) => boolean) | null;

/** Whether a condition anywhere among passages needs a pattern engine. */
export function needsPatterns(passages: object): boolean {
  return JSON.stringify(passages).includes('"is":"matches"');
}
