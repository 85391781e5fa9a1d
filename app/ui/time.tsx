import { useRouteLoaderData } from "react-router";
import type { DeskData } from "./desk";
import { Hint } from "./hint";

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

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

/** The day of an instant in a zone, for comparing. */
export function dayOf(date: number, timeZone: string): string {
  return format(date, timeZone, { year: "numeric", month: "2-digit", day: "2-digit" });
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
  if (past >= 0 && past < MINUTE) return "just now";
  if (past >= 0 && past < HOUR) return `${Math.floor(past / MINUTE)} min ago`;
  const clock = format(date, timeZone, { hour: "2-digit", minute: "2-digit" });
  if (dayOf(date, timeZone) === dayOf(now, timeZone)) return `today ${clock}`;
  if (dayOf(date, timeZone) === dayOf(now - DAY, timeZone)) return `yesterday ${clock}`;
  if (dayOf(date, timeZone) === dayOf(now + DAY, timeZone)) return `tomorrow ${clock}`;
  if (Math.abs(past) < 180 * DAY) return format(date, timeZone, { day: "numeric", month: "short" });
  return format(date, timeZone, { day: "numeric", month: "short", year: "numeric" });
}

/** Time left in words: `40 min over`, `2 h 10`, `tomorrow 09:30`. */
export function timeLeft(due: number, now: number, timeZone: string): string {
  const left = due - now;
  if (left < 0) return `${span(-left)} over`;
  if (dayOf(due, timeZone) === dayOf(now, timeZone) || left < 6 * HOUR) return span(left);
  return relativeTime(due, now, timeZone);
}

function span(length: number): string {
  if (length < HOUR) return `${Math.max(1, Math.round(length / MINUTE))} min`;
  if (length >= 2 * DAY) return `${Math.floor(length / DAY)} days`;
  const hours = Math.floor(length / HOUR);
  const minutes = Math.floor((length % HOUR) / MINUTE / 10) * 10;
  return minutes === 0 || hours > 9 ? `${hours} h` : `${hours} h ${minutes}`;
}

/** A date: relative in the text, exact on hover, in the agent's zone. */
export function Time({ at, className }: { at: string; className?: string }) {
  const { now, timeZone } = useClock();
  const date = Date.parse(at);
  return (
    <Hint words={exactTime(date, timeZone)}>
      <time dateTime={at} className={className}>
        {relativeTime(date, now, timeZone)}
      </time>
    </Hint>
  );
}
