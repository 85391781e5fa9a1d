import { createContext, useContext } from "react";
import type DateEntry from "../../ui/date-entry";
import type { ManyPicker } from "../../ui/many-picker";
import type { useSorted } from "../../ui/sortable";

/** What slips need beside their words. The first look at a case does without: it comes with the stack (`slip-stack.tsx`). */
export interface StackParts {
  useSorted: typeof useSorted;
  DateEntry: typeof DateEntry;
  ManyPicker: typeof ManyPicker;
}

export const StackPartsContext = createContext<StackParts | null>(null);

export function useStackParts(): StackParts {
  const parts = useContext(StackPartsContext);
  if (!parts) throw new Error("A slip is drawn outside of its stack");
  return parts;
}
