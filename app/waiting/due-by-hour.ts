import { offsetAt } from "#core/clock/offsets";

const HOUR_MS = 3_600_000;

/** How many hours ahead are told of. */
export const HOURS = 12;

/** How many cases come due within an hour of the clock. */
export interface DueHour {
  /** When the hour is over, in milliseconds since 1970 (UTC). */
  until: number;
  /** What the clock says then, as in 14. */
  hour: string;
  due: number;
}

/**
 * How many cases come due in each of the next hours of the clock, the one that runs first; what is past due is none of them.
 * @param now in milliseconds since 1970 (UTC)
 * @param timeZone IANA zone of the clock
 */
export function dueByHour(
  rows: readonly { answerBy: string | null }[],
  now: number,
  timeZone: string,
): DueHour[] {
  // Hours begin where the clock on the wall has them begin, also where that is at half past.
  const offset = offsetAt(timeZone, now);
  const first = Math.floor((now + offset) / HOUR_MS) * HOUR_MS - offset;
  const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", hourCycle: "h23", timeZone });
  const hours = Array.from({ length: HOURS }, (_, index): DueHour => {
    const until = first + (index + 1) * HOUR_MS;
    return { until, hour: clock.format(until), due: 0 };
  });
  for (const { answerBy } of rows) {
    const due = answerBy === null ? null : Date.parse(answerBy);
    const hour = due === null || due < now ? undefined : hours.find(({ until }) => due < until);
    if (hour) hour.due += 1;
  }
  return hours;
}
