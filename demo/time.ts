/** Minutes by which a zone is ahead of UTC at an instant. */
function offsetMinutes(at: Date, timeZone: string): number {
  const parts = new Intl.DateTimeFormat("en-US", {
    timeZone,
    hourCycle: "h23",
    year: "numeric",
    month: "numeric",
    day: "numeric",
    hour: "numeric",
    minute: "numeric",
  }).formatToParts(at);
  const part = (type: string) => Number(parts.find((one) => one.type === type)?.value);
  const local = Date.UTC(part("year"), part("month") - 1, part("day"), part("hour"), part("minute"));
  return Math.round((local - Math.floor(at.getTime() / 60_000) * 60_000) / 60_000);
}

/** The instant of a clock time so many days from an instant's day, both told in a zone. */
export function clockTime(now: Date, day: number, clock: string, timeZone: string): string {
  const [hour = 0, minute = 0] = clock.split(":").map(Number);
  const here = new Date(now.getTime() + offsetMinutes(now, timeZone) * 60_000);
  const local = Date.UTC(here.getUTCFullYear(), here.getUTCMonth(), here.getUTCDate() + day, hour, minute);
  const guess = new Date(local - offsetMinutes(new Date(local), timeZone) * 60_000);
  return guess.toISOString();
}
