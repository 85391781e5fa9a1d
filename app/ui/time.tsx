import { tz } from "@date-fns/tz";
import { addDays, startOfDay } from "date-fns";
import { useRouteLoaderData } from "react-router";
import type { DeskData } from "./desk";
import { Hint } from "./hint";
import { t } from "../words/ui";

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

type NearDay = "yesterday" | "today" | "tomorrow";

interface NearDays {
  now: number;
  timeZone: string;
  /** Where yesterday, today, tomorrow and the day after begin. */
  midnights: number[];
}

let latest: NearDays | null = null;

/** The midnights around an instant; a page tells all of its dates by the same one. */
function midnightsAround(now: number, timeZone: string): number[] {
  if (latest?.now !== now || latest.timeZone !== timeZone) {
    const inZone = { in: tz(timeZone) };
    const today = startOfDay(now, inZone);
    latest = { now, timeZone, midnights: [-1, 0, 1, 2].map((days) => +addDays(today, days, inZone)) };
  }
  return latest.midnights;
}

/** Whether an instant is on the day before, the same day or the day after, in a zone, however long those are there. */
export function nearDay(date: number, now: number, timeZone: string): NearDay | null {
  const midnights = midnightsAround(now, timeZone);
  const after = midnights.filter((midnight) => midnight <= date).length;
  return ([null, "yesterday", "today", "tomorrow", null] as const)[after] ?? null;
}

/** The clock and zone that dates are told by: the server's at loading, the agent's own zone. */
export function useClock(): { now: number; timeZone: string } {
  const desk = useRouteLoaderData<DeskData>("ui/desk");
  return { now: Date.parse(desk?.now ?? "1970-01-01T00:00:00Z"), timeZone: desk?.viewer.timeZone ?? "UTC" };
}

const formats = new Map<string, Intl.DateTimeFormat>();

function format(date: number, timeZone: string, options: Intl.DateTimeFormatOptions): string {
  const key = timeZone + JSON.stringify(options);
  let known = formats.get(key);
  if (!known)
    formats.set(key, (known = new Intl.DateTimeFormat("en-GB", { timeZone, hourCycle: "h23", ...options })));
  return known.format(date);
}

export function exactTime(date: number, timeZone: string): string {
  return format(date, timeZone, {
    weekday: "short",
    day: "numeric",
    month: "long",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
    timeZoneName: "short",
  });
}

/** An instant as lists tell it: near ones by distance, others by day. */
export function relativeTime(date: number, now: number, timeZone: string): string {
  const past = now - date;
  if (past >= 0 && past < MINUTE) return t("justNow");
  if (past >= 0 && past < HOUR) return t("pastMinAgo", { past: Math.floor(past / MINUTE) });
  const clock = format(date, timeZone, { hour: "2-digit", minute: "2-digit" });
  const day = nearDay(date, now, timeZone);
  if (day) return t(day, { clock });
  if (Math.abs(past) < 180 * DAY) return format(date, timeZone, { day: "numeric", month: "short" });
  return format(date, timeZone, { day: "numeric", month: "short", year: "numeric" });
}

/** Time left in words: `40 min over`, `2 h 10`, `tomorrow 09:30`. */
export function timeLeft(due: number, now: number, timeZone: string): string {
  const left = due - now;
  if (left < 0) return t("over", { time: span(-left) });
  return isSpan(due, now, timeZone) ? span(left) : relativeTime(due, now, timeZone);
}

/** The same where it stands alone: `40 min over`, `2 h 10 left`, `by tomorrow 09:30`. */
export function timeLeftAlone(due: number, now: number, timeZone: string): string {
  const words = timeLeft(due, now, timeZone);
  if (due < now) return words;
  return isSpan(due, now, timeZone) ? t("left", { time: words }) : t("byTime", { time: words });
}

/** Whether the time until an instant is told as a length: what is farther off is told by its day. */
function isSpan(due: number, now: number, timeZone: string): boolean {
  return due - now < 6 * HOUR || nearDay(due, now, timeZone) === "today";
}

function span(length: number): string {
  if (length < HOUR) return t("minutes", { count: Math.max(1, Math.round(length / MINUTE)) });
  if (length >= 2 * DAY) return t("days", { count: Math.floor(length / DAY) });
  const hours = Math.floor(length / HOUR);
  const minutes = Math.floor((length % HOUR) / MINUTE / 10) * 10;
  return minutes === 0 || hours > 9 ? t("hours", { hours }) : t("hoursAndMinutes", { hours, minutes });
}

/** A date: relative in the text, exact on hover, in the agent's zone. */
export function Time({ at, className }: { at: string; className?: string }) {
  const { now, timeZone } = useClock();
  const date = Date.parse(at);
  return (
    <Hint words={<ExactTime at={date} />}>
      <time dateTime={at} className={className}>
        {relativeTime(date, now, timeZone)}
      </time>
    </Hint>
  );
}

/** An instant in full, in the agent's zone. */
export function ExactTime({ at }: { at: number }) {
  return exactTime(at, useClock().timeZone);
}
