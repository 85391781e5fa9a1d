import { Command } from "cmdk";
import { Check } from "lucide-react";
import { useState } from "react";
import { LIST_ITEM, SearchedList } from "./searched-list";
import { t } from "../words/ui";

interface Props {
  /** Name for who does not see it. */
  label: string;
  value: readonly string[];
  /** What can be chosen; what is chosen besides stays. */
  options: readonly string[];
  onChange: (value: string[]) => void;
  /** Shown while nothing is chosen. */
  placeholder: string;
  /** What is chosen, in words; else by commas. */
  words?: string;
  /** What one is called; else it reads as it is. */
  nameOf?: (one: string) => string;
  className?: string;
  /** Whether what nobody has used yet can be written. */
  open?: boolean;
  disabled?: boolean;
}

/** Several of many: searched by typing, put on and taken off with Enter. */
export function ManyPicker({
  label,
  value,
  options,
  onChange,
  placeholder,
  words = value.join(", "),
  nameOf,
  className = "lined-field",
  open: takesNew = false,
  disabled = false,
}: Props) {
  const [typed, setTyped] = useState("");
  const fresh = typed.trim();
  const all = [...new Set([...value, ...options])];
  const isNew = takesNew && fresh !== "" && !all.some((one) => one.toLowerCase() === fresh.toLowerCase());
  const toggle = (one: string) =>
    onChange(value.includes(one) ? value.filter((other) => other !== one) : [...value, one]);
  return (
    <SearchedList
      label={label}
      openerLabel={`${label}: ${words || "none"}`}
      words={
        <span className={value.length === 0 ? "truncate text-soft" : "[overflow-wrap:anywhere]"}>
          {words || placeholder}
        </span>
      }
      onOpen={() => setTyped("")}
      disabled={disabled}
      className={className}
      input={{
        value: typed,
        onValueChange: setTyped,
        maxLength: 80,
        placeholder: takesNew ? t("findOrWriteANewOne") : t("find"),
      }}
      none={isNew ? null : t("thereIsNoneLikeThat")}
    >
      {all.map((one) => (
        <Command.Item
          key={one}
          value={one}
          keywords={[nameOf?.(one) ?? one]}
          onSelect={() => toggle(one)}
          className={`${LIST_ITEM} flex items-center justify-between`}
        >
          {nameOf?.(one) ?? one}
          {value.includes(one) && <Check size={14} aria-label={t("chosen")} className="shrink-0" />}
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
          {t("freshANewOne", { fresh })}
        </Command.Item>
      )}
    </SearchedList>
  );
}
