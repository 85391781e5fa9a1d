import type { ReactNode } from "react";
import { Checkbox } from "../ui/checkbox";
import { Popover } from "../ui/popover";

/** How a part of the sentence looks that opens where it stands: a long one breaks as words do. */
export const PART =
  "border-b border-ink box-decoration-clone text-left hover:bg-wash data-[state=open]:bg-wash";

/** A part of the sentence, and what it opens. */
export function Part({
  label,
  words,
  className = "",
  children,
}: {
  label: string;
  words: string;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Popover
      words={words === "" ? "…" : words}
      label={`${label}: ${words}`}
      align="start"
      opener={PART}
      inline
      className={`gap-2 ${className}`}
    >
      {children}
    </Popover>
  );
}

/** Several of few, by ticking them; none stands for any. */
export function Ticks<Value extends string | number>({
  all,
  chosen,
  onChange,
}: {
  all: readonly { value: Value; words: string }[];
  chosen: readonly Value[];
  onChange: (next: Value[]) => void;
}) {
  return all.map(({ value, words }) => (
    <label key={value} className="flex items-center gap-2">
      <Checkbox
        checked={chosen.includes(value)}
        onChange={(on) => onChange(on ? [...chosen, value] : chosen.filter((one) => one !== value))}
      />
      {words}
    </label>
  ));
}
