const formats = new Map<string, Intl.DateTimeFormat>();

/** How far a zone is ahead of UTC at an instant, in milliseconds. */
function offset(at: number, timeZone: string): number {
  let format = formats.get(timeZone);
  if (!format) {
    format = new Intl.DateTimeFormat("en-US", {
      timeZone,
      hourCycle: "h23",
      year: "numeric",
      month: "numeric",
      day: "numeric",
      hour: "numeric",
      minute: "numeric",
      second: "numeric",
    });
    formats.set(timeZone, format);
  }
  const parts = Object.fromEntries(format.formatToParts(at).map((part) => [part.type, Number(part.value)]));
  const { year = 0, month = 1, day = 1, hour = 0, minute = 0, second = 0 } = parts;
  return Date.UTC(year, month - 1, day, hour, minute, second) - Math.floor(at / 1000) * 1000;
}

/**
 * The instant at which a day begins in a zone.
 * @param date ISO 8601 calendar date
 * @param timeZone IANA name
 */
export function startOfDay(date: string, timeZone: string): Date {
  const midnight = Date.parse(`${date}T00:00:00Z`);
  const first = midnight - offset(midnight, timeZone);
  // The offset may be another one at that instant, where clocks change between the two.
  return new Date(midnight - offset(first, timeZone));
}
