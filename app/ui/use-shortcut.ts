import type { RefObject } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { shortcuts, type HeardName, type Shortcut } from "./shortcuts";

/** What somebody types in where a key was pressed, a field or an open list; null where the key is the screen's. */
function fieldOf({ target }: KeyboardEvent): Element | null {
  return target instanceof Element
    ? target.closest("input, textarea, [contenteditable=true], [role=combobox], [role=listbox], [role=menu]")
    : null;
}

/** Whether a key is heard where something hears all keys by itself: what has the attribute `data-own-keys`. */
function isOwn({ target }: KeyboardEvent): boolean {
  return target instanceof Element && target.closest("[data-own-keys]") !== null;
}

function isWithin({ target }: KeyboardEvent, element: HTMLElement | null): boolean {
  return element !== null && target instanceof Node && element.contains(target);
}

interface Options {
  /** Where it is heard; everywhere, by default. */
  within?: RefObject<HTMLElement | null>;
  /** False while it does nothing: the key keeps its usual meaning. */
  enabled?: boolean;
  /** Whether it is heard before what has the focus hears the key. */
  capture?: boolean;
  /** Whether the key does what it usually does besides. */
  also?: boolean;
}

/**
 * Listens for a shortcut of the table, by the letter that the key produces and not by its place on the keyboard.
 * @param onKey called with the event; the key’s own meaning is prevented then
 */
export function useShortcut(
  name: HeardName,
  onKey: (event: KeyboardEvent) => void,
  { within, enabled = true, capture = false, also = false }: Options = {},
): void {
  const { keys, typing }: Shortcut = shortcuts[name];
  useHotkeys(keys ?? [], onKey, {
    useKey: keys?.every((one) => /(^|\+)[a-z/]$/.test(one)) ?? false,
    preventDefault: !also,
    enableOnFormTags: true,
    enableOnContentEditable: true,
    // It is looked at before anything of the key is prevented.
    ignoreEventWhen: (event) =>
      !enabled ||
      isOwn(event) ||
      (within !== undefined && !isWithin(event, within.current)) ||
      (typing === undefined && fieldOf(event) !== null),
    eventListenerOptions: { capture },
  });
}
