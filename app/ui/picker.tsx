import { Command } from "cmdk";
import { Popover as Radix } from "radix-ui";
import { useState } from "react";
import { LIST_INPUT, LIST_ITEM } from "./list";
import { OPENER, OpenerSign } from "./opener";
import type { Option } from "./select";

/** Options under a heading. */
export interface PickerGroup {
  heading: string;
  options: readonly Option[];
}

interface Props {
  /** Name for who does not see it. */
  label: string;
  value: string;
  groups: readonly PickerGroup[];
  /** What is shown for the value. */
  words: string;
  onChange: (value: string) => void;
  className?: string;
}

/** One of many: searched by typing, gone along with the arrow keys, taken with Enter. */
export function Picker({ label, value, groups, words, onChange, className = "lined-field" }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Radix.Root open={open} onOpenChange={setOpen}>
      <Radix.Trigger
        role="combobox"
        aria-label={label}
        aria-expanded={open}
        className={`${OPENER} ${className}`}
      >
        <span className="truncate">{words}</span>
        <OpenerSign />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          align="start"
          sideOffset={2}
          collisionPadding={8}
          className="z-50 w-72 border border-board bg-sheet text-sm shadow-md outline-none"
        >
          <Command label={label} defaultValue={value} loop>
            <Command.Input placeholder="Find" className={LIST_INPUT} />
            <Command.List label={label} className="max-h-72 overflow-y-auto py-1">
              <Command.Empty className="px-3 py-2 text-soft">Nothing is called like that.</Command.Empty>
              {groups.map(({ heading, options }) => (
                <Command.Group
                  key={heading}
                  heading={heading}
                  className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-0.5 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-soft"
                >
                  {options.map(([one, said]) => (
                    <Command.Item
                      key={one}
                      value={one}
                      keywords={[said, heading]}
                      onSelect={() => {
                        setOpen(false);
                        onChange(one);
                      }}
                      className={`${LIST_ITEM} ${one === value ? "border-l-accent font-semibold" : ""}`}
                    >
                      {said}
                    </Command.Item>
                  ))}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
