import { TZDate, tz } from "@date-fns/tz";
import { addDays, addHours, endOfDay } from "date-fns";
import { DateField } from "../ui/date-field";
import { Select, type Option } from "../ui/select";
import { t } from "../words/standing";

/** How long a rule is to be on. */
export type Until =
  | { kind: "ever" | "two hours" | "today" | "tomorrow" }
  /** Until a day and a time of it, as they are kept: `2026-12-24`, `18:00`; the day is empty while none is chosen. */
  | { kind: "then"; day: string; time: string }
  /** An ISO 8601 instant that was set before. */
  | { kind: "instant"; at: string };

interface Clock {
  now: number;
  timeZone: string;
}

/** The instant until which a rule is on; null for no end. @param clock by which days end */
export function untilOf(until: Until, { now, timeZone }: Clock): string | null {
  const inZone = { in: tz(timeZone) };
  switch (until.kind) {
    case "ever":
      return null;
    case "two hours":
      return addHours(now, 2).toISOString();
    case "today":
      return new Date(+endOfDay(now, inZone)).toISOString();
    case "tomorrow":
      return new Date(+endOfDay(addDays(now, 1, inZone), inZone)).toISOString();
    case "then": {
      const [year = NaN, month = NaN, day = NaN] = until.day.split("-").map(Number);
      const [hour = NaN, minute = NaN] = until.time.split(":").map(Number);
      const at = new TZDate(year, month - 1, day, hour, minute, timeZone);
      return Number.isNaN(+at) ? null : new Date(+at).toISOString();
    }
    case "instant":
      return until.at;
  }
}

/** Chooses how long a rule is to be on. */
export function UntilChoice({ until, onChange }: { until: Until; onChange: (until: Until) => void }) {
  const kinds: Option<Until["kind"]>[] = [
    ["ever", t("untilSwitchedOff")],
    ["two hours", t("forTwoHours")],
    ["today", t("untilTheEndOfToday")],
    ["tomorrow", t("untilTheEndOfTomorrow")],
    ["then", t("untilThen")],
    ...(until.kind === "instant" ? [["instant", t("untilTheSameTime")] as const] : []),
  ];
  return (
    <span className="flex flex-wrap items-baseline gap-2 text-sm">
      <Select
        label={t("howLongItIsOn")}
        value={until.kind}
        options={kinds}
        onChange={(kind) => {
          if (kind === "then") onChange({ kind, day: "", time: "18:00" });
          else if (kind !== "instant") onChange({ kind });
        }}
      />
      {until.kind === "then" && (
        <>
          <DateField
            label={t("dayOfItsEnd")}
            value={until.day}
            onChange={(day) => onChange({ ...until, day })}
          />
          <input
            type="time"
            aria-label={t("timeOfItsEnd")}
            value={until.time}
            className="lined-field"
            onChange={(event) => onChange({ ...until, time: event.target.value })}
          />
        </>
      )}
    </span>
  );
}
