import { KeptCounts } from "./counts";
import { decide, type Decision, type Standing } from "./decide";
import type { Incoming } from "./message";

/**
 * Decides on messages one after the other, keeping the counts as it goes: what would have been done, had the rules been there.
 * @returns what decides on the next message; they are to come in order of time
 */
export function rehearsal(standing: Omit<Standing, "counts">): (message: Incoming) => Decision {
  const counts = new KeptCounts();
  return (message) => {
    const decision = decide(message, { ...standing, counts });
    for (const one of decision.done) counts.note(one);
    return decision;
  };
}
