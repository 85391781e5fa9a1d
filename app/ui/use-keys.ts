import { useEffect, useEffectEvent } from "react";

/** What somebody types in where a key was pressed, a field or an open list; null where the key is the screen's. */
export function fieldOf({ target }: KeyboardEvent): Element | null {
  return target instanceof Element
    ? target.closest("input, textarea, [role=combobox], [role=listbox]")
    : null;
}

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
