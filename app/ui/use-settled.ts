import { useEffect, useRef } from "react";
import { useBlocker, useNavigate } from "react-router";

/** Going on waits so long at most for what was typed. */
const PATIENCE_MS = 2000;

interface Settles {
  isUnsaved: boolean;
  flush(): Promise<boolean>;
  retry(): void;
  leave(pageGoes: boolean): void;
}

/**
 * Has a screen left only when what was typed there is saved, or after two seconds: then it is kept in the browser, and
 * the person is told. Tries again what could not be saved as soon as the window is looked at again.
 */
export function useSettledBeforeLeaving(saver: () => Settles | null, onKept: () => void): void {
  const navigate = useNavigate();
  /** Going on has been settled: nothing holds it up any more. */
  const letGo = useRef(false);
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      !letGo.current && currentLocation.pathname !== nextLocation.pathname && (saver()?.isUnsaved ?? false),
  );
  const waiting = useRef(false);
  const latest = useRef(blocker);
  useEffect(() => {
    latest.current = blocker;
    // The blocker is another object with each drawing: what it waits for is waited for once.
    if (blocker.state !== "blocked" || waiting.current) return;
    waiting.current = true;
    const to = blocker.location;
    const patience = new Promise<boolean>((done) => setTimeout(() => done(false), PATIENCE_MS));
    void Promise.race([saver()?.flush() ?? true, patience]).then((saved) => {
      waiting.current = false;
      letGo.current = true;
      if (!saved) onKept();
      // What was loaded anew meanwhile has forgotten where somebody wanted to go.
      if (latest.current.state === "blocked") latest.current.proceed();
      else void navigate(to);
    });
  }, [blocker, saver, onKept, navigate]);
  useEffect(() => {
    const leave = () => saver()?.leave(true);
    const look = () => {
      if (document.visibilityState === "visible") saver()?.retry();
      else leave();
    };
    window.addEventListener("pagehide", leave);
    window.addEventListener("focus", look);
    document.addEventListener("visibilitychange", look);
    return () => {
      window.removeEventListener("pagehide", leave);
      window.removeEventListener("focus", look);
      document.removeEventListener("visibilitychange", look);
    };
  }, [saver]);
}
