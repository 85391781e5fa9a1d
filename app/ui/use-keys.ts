import { useEffect, useEffectEvent } from "react";

/**
 * Hears the keys of the whole window. What hears them knows what the screen shows from the moment that it shows it: a
 * key pressed right after a change never meets the state before.
 * @param capture whether it hears them before the element that has the focus
 */
export function useKeys(onKey: (event: KeyboardEvent) => void, capture = false): void {
  const latest = useEffectEvent(onKey);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => latest(event);
    window.addEventListener("keydown", listen, capture);
    return () => window.removeEventListener("keydown", listen, capture);
  }, [capture]);
}
