import { Check, Minus } from "lucide-react";
import { Checkbox as Radix } from "radix-ui";

interface Props {
  /** `mixed` where some of many are. */
  checked: boolean | "mixed";
  onChange: (checked: boolean) => void;
  /** Name for who does not see it; where a `label` element names it, left out. */
  label?: string;
  disabled?: boolean;
  tabIndex?: number;
  className?: string;
}

/** A box to tick. */
export function Checkbox({
  checked,
  onChange,
  label,
  disabled = false,
  tabIndex = 0,
  className = "",
}: Props) {
  return (
    <Radix.Root
      checked={checked === "mixed" ? "indeterminate" : checked}
      disabled={disabled}
      tabIndex={tabIndex}
      onCheckedChange={(next) => onChange(next === true)}
      {...(label === undefined ? {} : { "aria-label": label })}
      className={`inline-flex size-4 shrink-0 items-center justify-center rounded-[2px] border border-board bg-sheet align-[-3px] data-[state=checked]:border-accent data-[state=checked]:bg-accent data-[state=indeterminate]:border-accent data-[state=indeterminate]:bg-accent disabled:opacity-50 ${className}`}
    >
      <Radix.Indicator className="text-on-accent">
        {checked === "mixed" ? (
          <Minus size={12} strokeWidth={3.5} aria-hidden="true" />
        ) : (
          <Check size={12} strokeWidth={3.5} aria-hidden="true" />
        )}
      </Radix.Indicator>
    </Radix.Root>
  );
}
