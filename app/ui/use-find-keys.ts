import { useEffect, useRef, type RefObject } from "react";
import { useShortcut } from "./use-shortcut";

interface Found {
  /** What the list that is shown was searched for. */
  searched: string;
  /** Puts the hand on what was found, or on the list as it is. */
  toList: () => void;
  /** Opens the first that was found. */
  open: () => void;
  /** Empties the field and shows the whole list again. */
  clear: () => void;
}

/**
 * The keys of a search over a list: ↓ and Enter act on what was found for the words that are there, and never on what
 * the list showed before; Escape empties it, then goes back to the list.
 * @param field that is typed in
 */
export function useFindKeys(
  field: RefObject<HTMLInputElement | null>,
  { searched, toList, open, clear }: Found,
): void {
  const acts = useRef({ toList, open });
  const waiting = useRef<{ words: string; act: keyof typeof acts.current } | null>(null);
  useEffect(() => {
    acts.current = { toList, open };
    // The list is drawn before the hand goes there.
    const { words, act } = waiting.current ?? {};
    if (act === undefined || words !== searched.trim()) return;
    waiting.current = null;
    acts.current[act]();
  });
  const actOn = (act: keyof typeof acts.current) => {
    const words = field.current?.value.trim() ?? "";
    if (words === searched.trim()) acts.current[act]();
    else waiting.current = { words, act };
  };
  const within = field;
  useShortcut("foundDown", () => actOn("toList"), { within });
  useShortcut("foundOpen", () => actOn("open"), { within });
  useShortcut(
    "foundLeave",
    () => {
      waiting.current = null;
      if (field.current?.value) clear();
      else toList();
    },
    { within },
  );
}
