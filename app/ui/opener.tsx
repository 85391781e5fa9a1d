import { ChevronDown } from "lucide-react";

/** How what opens a list stands on its line: its words, and the sign at the end. */
export const OPENER = "inline-flex items-center justify-between gap-2 text-left";

/** That something opens. */
export function OpenerSign() {
  return <ChevronDown size={14} aria-hidden="true" className="shrink-0 text-soft" />;
}
