import { RadioGroup as Radix } from "radix-ui";
import { useId, type ReactNode } from "react";

interface Props {
  /** What is chosen, for who does not see it. */
  label: string;
  value: string;
  options: readonly { value: string; words: ReactNode; disabled?: boolean }[];
  onChange: (value: string) => void;
  className?: string;
}

/** One of few, all of them in sight: the arrow keys go along. */
export function RadioGroup({ label, value, options, onChange, className = "" }: Props) {
  const id = useId();
  return (
    <Radix.Root aria-label={label} value={value} onValueChange={onChange} className={className}>
      {options.map((one, index) => (
        <label key={one.value} htmlFor={`${id}${index}`} className="flex items-center gap-2 py-0.5">
          <Radix.Item
            id={`${id}${index}`}
            value={one.value}
            disabled={one.disabled ?? false}
            className="inline-flex size-4 shrink-0 items-center justify-center rounded-full border border-board bg-sheet disabled:opacity-50"
          >
            <Radix.Indicator className="size-2 rounded-full bg-accent" />
          </Radix.Item>
          <span>{one.words}</span>
        </label>
      ))}
    </Radix.Root>
  );
}
