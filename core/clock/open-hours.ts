import { weekdays, type Calendar } from "./calendar";
import type { HolidaysOf } from "./holidays";
import { localDate, offsetsBetween } from "./offsets";

/** A stretch of time. Instants in milliseconds since 1970 (UTC). */
export interface Span {
  from: number;
  /** The first instant that is not of it. */
  until: number;
}

/** A stretch in which somebody is there. */
export interface OpenSpan extends Span {
  /** The local date that it falls on. */
  date: string;
}

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;

/** A local date as text, of an instant read as if the wall stood in UTC. */
const dateOf = (wall: number) => new Date(wall).toISOString().slice(0, 10);

/** Milliseconds since midnight. */
function timeOf(written: string): number {
  const [hours = 0, minutes = 0] = written.split(":").map(Number);
  return (hours * 60 + minutes) * MINUTE_MS;
}

/** Spans in order of time, those that touch or overlap as one; empty ones are left out. */
export function joined(spans: readonly Span[]): Span[] {
  const result: Span[] = [];
  for (const { from, until } of [...spans].sort((a, b) => a.from - b.from)) {
    if (from >= until) continue;
    const last = result.at(-1);
    if (last && from <= last.until) last.until = Math.max(last.until, until);
    else result.push({ from, until });
  }
  return result;
}

/** What is left of a span without others. @param without in order of time, without overlaps */
export function* left<S extends Span>(span: S, without: readonly Span[]): Generator<S> {
  let { from } = span;
  for (const other of without) {
    if (other.until <= from) continue;
    if (other.from >= span.until) break;
    if (other.from > from) yield { ...span, from, until: other.from };
    from = other.until;
    if (from >= span.until) return;
  }
  yield { ...span, from };
}

/** When somebody is there, by the clock on the wall: an hour that is passed twice counts twice, one that is skipped not at all. */
export class OpenHours {
  readonly timeZone: string;
  readonly #hours: Span[][];
  readonly #holidays: ReadonlySet<string>;

  /** @param publicHolidays those that a country has besides the calendar’s own */
  constructor(
    calendar: Calendar,
    private readonly publicHolidays: HolidaysOf,
  ) {
    this.timeZone = calendar.time_zone;
    this.#hours = weekdays.map((day) =>
      joined(
        (calendar.hours[day] ?? []).map(([from, until]) => ({ from: timeOf(from), until: timeOf(until) })),
      ),
    );
    this.#holidays = new Set(calendar.holidays);
  }

  /** What a day is kept for as a holiday: its name, "" for one of the calendar’s own, null for no holiday. */
  holiday(date: string): string | null {
    return this.publicHolidays(Number(date.slice(0, 4))).get(date) ?? (this.#holidays.has(date) ? "" : null);
  }

  /** Hours of a local date as the wall tells them, in milliseconds since its midnight; none on a holiday. */
  hoursOn(date: string): readonly Span[] {
    return this.holiday(date) === null ? this.#usual(date) : [];
  }

  /** Whether a local date would be open, were it no holiday. */
  isUsual(date: string): boolean {
    return this.#usual(date).length > 0;
  }

  #usual(date: string): readonly Span[] {
    return this.#hours[(new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7] ?? [];
  }

  /** The local date at an instant. */
  dateAt(at: number): string {
    return localDate(this.timeZone, at);
  }

  isOpen(at: number): boolean {
    return !this.spans(at, at + 1).next().done;
  }

  /** When somebody is there between two instants, in order of time. */
  *spans(from: number, until: number): Generator<OpenSpan> {
    for (const stretch of offsetsBetween(this.timeZone, from, until)) {
      const { offset } = stretch;
      const first = Math.floor((stretch.from + offset) / DAY_MS) * DAY_MS;
      for (let midnight = first; midnight < stretch.until + offset; midnight += DAY_MS) {
        const date = dateOf(midnight);
        for (const hours of this.hoursOn(date)) {
          const opens = Math.max(midnight + hours.from - offset, stretch.from);
          const closes = Math.min(midnight + hours.until - offset, stretch.until);
          if (opens < closes) yield { from: opens, until: closes, date };
        }
      }
    }
  }

  /** For how long somebody is there between two instants, in milliseconds. @param pauses time that does not count */
  openBetween(from: number, until: number, pauses: readonly Span[] = []): number {
    const without = joined(pauses);
    let sum = 0;
    for (const span of this.spans(from, until))
      for (const counted of left(span, without)) sum += counted.until - counted.from;
    return sum;
  }
}
