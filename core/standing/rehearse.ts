import { KeptCounts } from "./counts";
import { decide, type Decision, type Standing } from "./decide";
import type { Incoming } from "./message";
import type { Occasion } from "./occasion";

/**
 * Decides on messages one after the other, keeping the counts as it goes: what would have been done, had the rules been there.
 * @returns what decides on the next message, and on what happened to its case; they are to come in order of time
 */
export function rehearsal(
  standing: Omit<Standing, "counts" | "occasion">,
): (message: Incoming, occasion?: Occasion) => Decision {
  const counts = new KeptCounts();
  return (message, occasion) => {
    const decision = decide(message, { ...standing, counts, ...(occasion ? { occasion } : {}) });
    for (const one of decision.done) counts.note(one);
    return decision;
  };
}
