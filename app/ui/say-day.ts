const said = (month: "long" | "short") =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month, year: "numeric", timeZone: "UTC" });
const [inFull, inShort] = [said("long"), said("short")];

/** A day that is kept, as it is said: `1 March 2027`. */
export function sayDay(day: string): string {
  return inFull.format(Date.parse(day));
}

/** The same where there is little room: `1 Mar 2027`. */
export function sayDayShort(day: string): string {
  return inShort.format(Date.parse(day));
}
