import { format, isValid, parse } from "date-fns";
import { enGB } from "date-fns/locale/en-GB";
import { useContext, useMemo } from "react";
import { RegionContext } from "./region";

/** How days are kept. */
const KEPT = "yyyy-MM-dd";

/** How a day may be typed beside the usual form of the region, which says whether the month or the day comes first. */
const FORMS = [KEPT, "d.M.yyyy", "d MMM yyyy", "d MMMM yyyy"];

/** A day of the calendar as it is kept: `2027-03-01`. */
export function dayText(day: Date): string {
  return format(day, KEPT);
}

/** How a region writes days in figures. */
export interface DayForm {
  /** In Unicode's letters for dates (UTS 35): `dd/MM/yyyy`. */
  pattern: string;
  /** Whether it writes the month before the day. */
  monthFirst: boolean;
}

/**
 * How a region writes days in figures, by the data that browsers and servers have of it.
 * @param tag BCP 47 tag with the region; a tag of English without one says none, and days are written as they are kept
 */
export function dayForm(tag: string): DayForm {
  const { language, region } = new Intl.Locale(tag);
  if (language === "en" && region === undefined) return { pattern: KEPT, monthFirst: true };
  const parts = new Intl.DateTimeFormat(tag, {
    calendar: "gregory",
    numberingSystem: "latn",
    year: "numeric",
    month: "numeric",
    day: "numeric",
    timeZone: "UTC",
  }).formatToParts(Date.UTC(2027, 2, 1));
  const pattern = parts.map(({ type, value }) => {
    if (type === "year") return "yyyy";
    if (type === "month") return value.length > 1 ? "MM" : "M";
    if (type === "day") return value.length > 1 ? "dd" : "d";
    // Marks of direction have no place in a field.
    return value.replaceAll(/[\u200e\u200f]/g, "").replaceAll(/\p{L}+/gu, "'$&'");
  });
  const order = parts.map(({ type }) => type);
  return { pattern: pattern.join(""), monthFirst: order.indexOf("month") < order.indexOf("day") };
}

/** How the house's region writes days. */
export function useDayForm(): DayForm {
  const tag = useContext(RegionContext);
  return useMemo(() => dayForm(tag), [tag]);
}

/** A day that is kept, as a region writes it; what is no day stays as it is. */
export function writeDay(day: string, { pattern }: DayForm): string {
  const read = parse(day, KEPT, new Date(0));
  return isValid(read) ? format(read, pattern) : day;
}

/**
 * Reads a day as people type it: as the region writes it, else `2027-03-01`, `1.3.2027`, `1 March 2027`.
 * @returns the day, at the beginning of it in the browser’s own zone; null where it is none
 */
export function readDay(typed: string, { pattern, monthFirst }: DayForm): Date | null {
  const inFigures = monthFirst ? "M/d/yyyy" : "d/M/yyyy";
  // `d` and `M` take both digits: `01` is read by them too.
  const usual = pattern.replace("dd", "d").replace("MM", "M");
  for (const form of [usual, ...FORMS, inFigures]) {
    const day = parse(typed.trim(), form, new Date(0), { locale: enGB });
    if (isValid(day) && day.getFullYear() >= 1000) return day;
  }
  return null;
}
