import { useHotkeys } from "react-hotkeys-hook";
import { shortcuts, type HeardName, type Shortcut } from "./shortcuts";

/** What somebody types in where a key was pressed, a field or an open list; null where the key is the screen's. */
function fieldOf({ target }: KeyboardEvent): Element | null {
  return target instanceof Element
    ? target.closest("input, textarea, [contenteditable=true], [role=combobox], [role=listbox], [role=menu]")
    : null;
}

interface Options {
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
 * @returns a ref: set on an element, the shortcut is heard within it only
 */
export function useShortcut(
  name: HeardName,
  onKey: (event: KeyboardEvent) => void,
  { enabled = true, capture = false, also = false }: Options = {},
) {
  const { keys, typing }: Shortcut = shortcuts[name];
  return useHotkeys<HTMLElement>(keys ?? [], onKey, {
    useKey: keys?.every((one) => /(^|\+)[a-z/]$/.test(one)) ?? false,
    preventDefault: !also,
    enableOnFormTags: true,
    enableOnContentEditable: true,
    // It is looked at before anything of the key is prevented.
    ignoreEventWhen: (event) => !enabled || (typing === undefined && fieldOf(event) !== null),
    eventListenerOptions: { capture },
  });
}
