import { Command } from "cmdk";
import { useState } from "react";
import { LIST_ITEM, SearchedList } from "./searched-list";
import type { Option } from "./select";
import { t } from "../words/ui";

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
    <SearchedList
      label={label}
      words={<span className="truncate">{words}</span>}
      open={open}
      onOpen={setOpen}
      className={className}
      begin={value}
      input={{ placeholder: t("find") }}
      none={t("nothingIsCalledLikeThat")}
    >
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
    </SearchedList>
  );
}
