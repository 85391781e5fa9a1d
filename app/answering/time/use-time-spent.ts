import { useEffect } from "react";

/** Who has done nothing for so long does something else. */
const IDLE_MS = 60_000;
const TICK_MS = 1000;
const TELL_SECONDS = 30;

/** What counts as doing something. */
const DOINGS = ["keydown", "pointerdown", "pointermove", "wheel", "touchstart"] as const;

/** Tells the server, every half minute and on leaving, how long a case was in sight, and how long something was done on it. */
export function useTimeSpent(number: number): void {
  useEffect(() => {
    let [open, active] = [0, 0];
    let [last, done] = [performance.now(), performance.now()];
    const count = () => {
      const now = performance.now();
      const seconds = (now - last) / TICK_MS;
      last = now;
      // A machine that slept was not at work.
      if (document.visibilityState === "hidden" || seconds > TELL_SECONDS) return;
      open += seconds;
      if (now - done < IDLE_MS) active += seconds;
    };
    const tell = () => {
      const told = { open: Math.round(open), active: Math.round(Math.min(open, active)) };
      if (told.open === 0) return;
      open -= told.open;
      active -= told.active;
      // What could not be told is only not counted.
      fetch(`/cases/${number}/time`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify(told),
        keepalive: true,
      }).catch(() => undefined);
    };
    const tick = () => {
      count();
      if (open >= TELL_SECONDS) tell();
    };
    const doing = () => {
      done = performance.now();
    };
    // What is left is told when the page is hidden: it may never be seen again.
    const hidden = () => {
      if (document.visibilityState === "hidden") {
        open += Math.min(TELL_SECONDS, (performance.now() - last) / TICK_MS);
        last = performance.now();
        tell();
      } else last = performance.now();
    };
    const timer = setInterval(tick, TICK_MS);
    for (const one of DOINGS) document.addEventListener(one, doing, { passive: true, capture: true });
    document.addEventListener("visibilitychange", hidden);
    return () => {
      clearInterval(timer);
      for (const one of DOINGS) document.removeEventListener(one, doing, { capture: true });
      document.removeEventListener("visibilitychange", hidden);
      count();
      tell();
    };
  }, [number]);
}
