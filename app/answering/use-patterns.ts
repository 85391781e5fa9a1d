import { useEffect, useState } from "react";
import { needsPatterns, type PatternEngine } from "#core/conditions/patterns";
import type { OpenCase } from "#server/answering/open";

/** Until the engine is here, no pattern can be tested; composing says so, and nothing is sent meanwhile. */
const notYet: PatternEngine = () => null;

/** The engine for regular expressions, loaded only where a reply at hand uses one: it is large. */
export function usePatterns(open: OpenCase): PatternEngine {
  const [engine, setEngine] = useState<PatternEngine>(() => notYet);
  useEffect(() => {
    if (!needsPatterns([open.strip.replies, open.draft?.slips, open.usual])) return;
    let current = true;
    void import("#core/conditions/re2").then(({ re2Patterns }) => {
      if (current) setEngine(() => re2Patterns);
    });
    return () => {
      current = false;
    };
  }, [open]);
  return engine;
}
