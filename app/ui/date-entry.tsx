import { CalendarDays } from "lucide-react";
import { Popover as Radix } from "radix-ui";
import { lazy, Suspense, useId, useState } from "react";
import { dayText, readDay, useDayForm, writeDay } from "./day";
import { t } from "../words/ui";

const fetchCalendar = () => import("./calendar");
const Calendar = lazy(fetchCalendar);

export interface DateProps {
  /** Name for who does not see it; where a `label` element names it, left out. */
  label?: string;
  /** The day as it is kept, `2027-03-01`; empty for none. */
  value: string;
  /** Called with a day that was typed or chosen, or with nothing once the field is emptied. */
  onChange: (value: string) => void;
  /** The days between which it must lie, as they are kept. */
  min?: string | undefined;
  max?: string | undefined;
  disabled?: boolean;
  placeholder?: string;
  required?: boolean;
  className?: string;
}

/** A day: typed in any usual way, or chosen from a month. What is no day is said at once, and stays to be mended. */
export default function DateEntry({
  label,
  value,
  onChange,
  min,
  max,
  disabled = false,
  placeholder,
  required = false,
  className = "lined-field w-28",
}: DateProps) {
  const own = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const form = useDayForm();
  const shown = typed ?? writeDay(value, form);
  const example = writeDay("2027-03-01", form);
  const day = readDay(shown, form);
  const kept = day && dayText(day);
  const problem =
    shown.trim() === ""
      ? null
      : kept === null
        ? t("thatIsNoDay", { example })
        : min && kept < min
          ? t("notBefore", { day: writeDay(min, form) })
          : max && kept > max
            ? t("notAfter", { day: writeDay(max, form) })
            : null;
  return (
    <span className="inline-flex items-center gap-1">
      <input
        aria-label={label}
        aria-invalid={problem !== null}
        aria-describedby={problem ? `${own}-problem` : undefined}
        inputMode="numeric"
        autoComplete="off"
        aria-required={required}
        className={className}
        disabled={disabled}
        placeholder={placeholder ?? example}
        value={shown}
        // It is there when the hand gets to it.
        onFocus={() => void fetchCalendar()}
        onChange={(event) => {
          const words = event.target.value;
          const next = readDay(words, form);
          setTyped(words);
          if (next) onChange(dayText(next));
          else if (words.trim() === "") onChange("");
        }}
        onBlur={() => {
          // What is no day stays, with what is wrong with it.
          if (day || shown.trim() === "") setTyped(null);
        }}
      />
      <Radix.Root open={open} onOpenChange={setOpen}>
        <Radix.Trigger
          aria-label={label ? t("chooseLabel", { label: label.toLowerCase() }) : t("chooseADay")}
          disabled={disabled}
          className="flex size-6 items-center justify-center text-soft hover:text-ink disabled:opacity-50"
        >
          <CalendarDays size={16} aria-hidden="true" />
        </Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            align="end"
            sideOffset={4}
            collisionPadding={8}
            aria-label={label ?? t("aDay")}
            className="z-50 min-h-72 min-w-60 border border-board bg-sheet p-3 shadow-md outline-none"
          >
            <Suspense fallback={null}>
              <Calendar
                chosen={day ?? undefined}
                earliest={(min && readDay(min, form)) || undefined}
                latest={(max && readDay(max, form)) || undefined}
                onChoose={(next) => {
                  setTyped(null);
                  setOpen(false);
                  onChange(next ? dayText(next) : "");
                }}
              />
            </Suspense>
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
      {problem && (
        <span id={`${own}-problem`} role="alert" className="text-sm text-stop">
          {problem}
        </span>
      )}
    </span>
  );
}
