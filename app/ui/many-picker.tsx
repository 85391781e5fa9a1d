import { Command } from "cmdk";
import { Check } from "lucide-react";
import { Popover as Radix } from "radix-ui";
import { useState } from "react";
import { LIST_INPUT, LIST_ITEM } from "./list";
import { OPENER, OpenerSign } from "./opener";

interface Props {
  /** Name for who does not see it. */
  label: string;
  value: readonly string[];
  /** What can be chosen; what is chosen besides stays. */
  options: readonly string[];
  onChange: (value: string[]) => void;
  /** Shown while nothing is chosen. */
  placeholder: string;
  /** Whether what nobody has used yet can be written. */
  open?: boolean;
  disabled?: boolean;
  className?: string;
}

/** Several of many: searched by typing, put on and taken off with Enter. */
export function ManyPicker({
  label,
  value,
  options,
  onChange,
  placeholder,
  open: takesNew = false,
  disabled = false,
  className = "lined-field",
}: Props) {
  const [typed, setTyped] = useState("");
  const fresh = typed.trim();
  const all = [...new Set([...value, ...options])];
  const isNew = takesNew && fresh !== "" && !all.some((one) => one.toLowerCase() === fresh.toLowerCase());
  const toggle = (one: string) =>
    onChange(value.includes(one) ? value.filter((other) => other !== one) : [...value, one]);
  return (
    <Radix.Root onOpenChange={() => setTyped("")}>
      <Radix.Trigger
        role="combobox"
        aria-label={`${label}: ${value.join(", ") || "none"}`}
        disabled={disabled}
        className={`${OPENER} disabled:opacity-50 ${className}`}
      >
        <span className={value.length === 0 ? "truncate text-soft" : "[overflow-wrap:anywhere]"}>
          {value.join(", ") || placeholder}
        </span>
        <OpenerSign />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          align="start"
          sideOffset={2}
          collisionPadding={8}
          aria-label={label}
          className="z-50 w-64 border border-board bg-sheet text-sm shadow-md outline-none"
        >
          <Command label={label} loop>
            <Command.Input
              value={typed}
              onValueChange={setTyped}
              maxLength={80}
              placeholder={takesNew ? "Find, or write a new one" : "Find"}
              className={LIST_INPUT}
            />
            <Command.List label={label} className="max-h-64 overflow-y-auto py-1">
              {!isNew && (
                <Command.Empty className="px-3 py-2 text-soft">There is none like that.</Command.Empty>
              )}
              {all.map((one) => (
                <Command.Item
                  key={one}
                  value={one}
                  onSelect={() => toggle(one)}
                  className={`${LIST_ITEM} flex items-center justify-between`}
                >
                  {one}
                  {value.includes(one) && <Check size={14} aria-label="chosen" className="shrink-0" />}
                </Command.Item>
              ))}
              {isNew && (
                <Command.Item
                  value={`new ${fresh}`}
                  keywords={[fresh]}
                  onSelect={() => {
                    toggle(fresh);
                    setTyped("");
                  }}
                  className={LIST_ITEM}
                >
                  “{fresh}”, a new one
                </Command.Item>
              )}
            </Command.List>
          </Command>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
