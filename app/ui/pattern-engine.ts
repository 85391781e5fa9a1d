import type { PatternEngine } from "#core/conditions/patterns";
import { fetched } from "./fetched";

/** Until the engine is here no pattern can be tested. */
const notYet: PatternEngine = () => null;

const useEngine = fetched(async () => (await import("#core/conditions/re2")).re2Patterns, { ahead: false });

/**
 * The engine for regular expressions, fetched where one is wanted: it is large, and few replies use it.
 * @returns it, and whether it can be asked: where none is wanted it always can, and knows of none
 */
export function usePatternEngine(wanted: boolean): { patterns: PatternEngine; isReady: boolean } {
  const patterns = useEngine(wanted);
  return { patterns: patterns ?? notYet, isReady: !wanted || patterns !== null };
}
