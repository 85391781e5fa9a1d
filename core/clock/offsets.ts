import { tzOffset, tzScan } from "@date-fns/tz";

/** A stretch of time in which a zone keeps one offset. Instants in milliseconds since 1970 (UTC). */
export interface OffsetStretch {
  from: number;
  /** The first instant that is not of it. */
  until: number;
  /** What is added to UTC for the clock on the wall, in milliseconds. */
  offset: number;
}

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;

/** Years that were asked for, by zone; there are few. */
const known = new Map<string, OffsetStretch[]>();

/** What is added to UTC for the clock on the wall of a zone at an instant, in milliseconds. */
export function offsetAt(timeZone: string, at: number): number {
  return tzOffset(timeZone, new Date(at)) * MINUTE_MS;
}

/** The calendar date that the wall of a zone shows at an instant. */
export function localDate(timeZone: string, at: number): string {
  return new Date(at + offsetAt(timeZone, at)).toISOString().slice(0, 10);
}

/** The offsets of a year (UTC), one after the other. @param timeZone IANA zone */
function ofYear(timeZone: string, year: number): OffsetStretch[] {
  const key = `${timeZone} ${year}`;
  const found = known.get(key);
  if (found) return found;
  const [start, end] = [Date.UTC(year, 0, 1), Date.UTC(year + 1, 0, 1)];
  // What looks for changes does so by the hour; some fall on the half.
  const changes = tzScan(timeZone, { start: new Date(start), end: new Date(end) })
    .map(({ date }) => changeWithin(timeZone, date.getTime() - HOUR_MS, date.getTime()))
    .filter((at) => at > start && at < end);
  const stretches = [start, ...changes].map((from, index) => ({
    from,
    until: changes[index] ?? end,
    offset: offsetAt(timeZone, from),
  }));
  known.set(key, stretches);
  return stretches;
}

/** The first minute in an hour at which a zone has the offset of its end. */
function changeWithin(timeZone: string, from: number, until: number): number {
  const after = offsetAt(timeZone, until);
  let at = until;
  while (at > from && offsetAt(timeZone, at - MINUTE_MS) === after) at -= MINUTE_MS;
  return at;
}

/** The offsets that a zone has between two instants, one after the other, cut to them. */
export function* offsetsBetween(timeZone: string, from: number, until: number): Generator<OffsetStretch> {
  for (let year = new Date(from).getUTCFullYear(); Date.UTC(year, 0, 1) < until; year += 1)
    for (const stretch of ofYear(timeZone, year)) {
      const cut = { from: Math.max(stretch.from, from), until: Math.min(stretch.until, until) };
      if (cut.from < cut.until) yield { ...cut, offset: stretch.offset };
    }
}
