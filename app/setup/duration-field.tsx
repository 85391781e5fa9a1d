import { useState } from "react";
import { Select } from "../ui/select";
import { t } from "../words/setup";

const UNITS = () =>
  [
    ["1440", t("days")],
    ["60", t("hours")],
    ["1", t("minutes")],
  ] as const;
type Unit = ReturnType<typeof UNITS>[number][0];

/** The largest unit in which minutes are a whole number. */
function unitOf(minutes: number): Unit {
  return UNITS().find(([unit]) => minutes > 0 && minutes % Number(unit) === 0)?.[0] ?? "1";
}

interface Props {
  label: string;
  /** In minutes; not a number while none is written. */
  value: number;
  onChange: (minutes: number) => void;
  invalid: boolean;
}

/** A length of time in the unit that people say it in. */
export function DurationField({ label, value, onChange, invalid }: Props) {
  const [unit, setUnit] = useState(() => unitOf(value));
  const amount = value / Number(unit);
  return (
    <span className="flex items-baseline gap-2 text-base">
      <input
        aria-label={label}
        aria-invalid={invalid}
        className="lined-field w-14"
        type="number"
        min={1}
        step="any"
        value={Number.isNaN(amount) ? "" : Number(amount.toFixed(2))}
        onChange={(event) => onChange(Math.round(event.target.valueAsNumber * Number(unit)))}
      />
      <Select
        label={t("labelUnit", { label })}
        value={unit}
        options={UNITS()}
        onChange={(next) => {
          setUnit(next);
          onChange(Math.round(amount * Number(next)));
        }}
      />
    </span>
  );
}
