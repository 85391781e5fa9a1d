import { reasonOf } from "#core/text/reason";

/** What is still to happen outside, and can be called off. */
export interface Timers {
  /** Does something later; where it fails, the log says why. */
  later: (milliseconds: number, work: () => void | Promise<void>) => void;
  stop: () => void;
}

/** Timers that stop together. */
export function startTimers(): Timers {
  const timers = new Set<NodeJS.Timeout>();
  return {
    later(milliseconds, work) {
      const timer = setTimeout(() => {
        timers.delete(timer);
        Promise.resolve()
          .then(work)
          .catch((error: unknown) => {
            process.stderr.write(`outside: ${reasonOf(error)}\n`);
          });
      }, milliseconds);
      timers.add(timer);
    },
    stop() {
      for (const timer of timers) clearTimeout(timer);
      timers.clear();
    },
  };
}
