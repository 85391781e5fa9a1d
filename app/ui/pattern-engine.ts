import { useEffect, useState } from "react";
import type { PatternEngine } from "#core/conditions/patterns";

/** Until the engine is here no pattern can be tested. */
const notYet: PatternEngine = () => null;

let fetched: PatternEngine | null = null;

/**
 * The engine for regular expressions, fetched where one is wanted: it is large, and few replies use it.
 * @returns it, and whether it can be asked: where none is wanted it always can, and knows of none
 */
export function usePatternEngine(wanted: boolean): { patterns: PatternEngine; isReady: boolean } {
  // A function in a state would be called.
  const [{ patterns }, setEngine] = useState({ patterns: fetched });
  useEffect(() => {
    if (!wanted || patterns) return;
    let current = true;
    void import("#core/conditions/re2").then(({ re2Patterns }) => {
      fetched = re2Patterns;
      if (current) setEngine({ patterns: re2Patterns });
    });
    return () => {
      current = false;
    };
  }, [wanted, patterns]);
  return { patterns: patterns ?? notYet, isReady: !wanted || patterns !== null };
}
