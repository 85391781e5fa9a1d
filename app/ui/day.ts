import { format, isValid, parse } from "date-fns";
import { enGB } from "date-fns/locale/en-GB";

/** How a day may be typed; the first is how it is kept and shown. */
const FORMS = ["yyyy-MM-dd", "d.M.yyyy", "d/M/yyyy", "d MMM yyyy", "d MMMM yyyy"];

/** A day of the calendar as it is kept: `2027-03-01`. */
export function dayText(day: Date): string {
  return format(day, "yyyy-MM-dd");
}

/** A day that is kept, as it is said: `1 March 2027`. */
export function sayDay(day: string): string {
  return format(parse(day, "yyyy-MM-dd", new Date(0)), "d MMMM yyyy", { locale: enGB });
}

/**
 * Reads a day as people type it: `2027-03-01`, `1.3.2027`, `1 March 2027`.
 * @returns the day, at the beginning of it in the browser’s own zone; null where it is none
 */
export function readDay(typed: string): Date | null {
  for (const form of FORMS) {
    const day = parse(typed.trim(), form, new Date(0), { locale: enGB });
    if (isValid(day) && day.getFullYear() >= 1000) return day;
  }
  return null;
}
