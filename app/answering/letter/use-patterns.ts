import { useMemo } from "react";
import { needsPatterns, type PatternEngine } from "#core/conditions/patterns";
import type { OpenCase } from "#server/answering/open";
import { usePatternEngine } from "../../ui/pattern-engine";

/** The engine for the patterns of the replies at hand. Until it is here composing says so, and nothing is sent meanwhile. */
export function usePatterns(open: OpenCase): PatternEngine {
  const wanted = useMemo(
    // The server fetches nothing, and need not look.
    () =>
      typeof document !== "undefined" && needsPatterns([open.strip.replies, open.draft?.slips, open.usual]),
    [open],
  );
  return usePatternEngine(wanted).patterns;
}
