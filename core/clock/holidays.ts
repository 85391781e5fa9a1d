import Holidays from "date-holidays";
import { t } from "../words/clock";

/** The holidays of a year, by their local dates (`2026-12-25`), with what each is called. */
export type HolidaysOf = (year: number) => ReadonlyMap<string, string>;

const DAY_MS = 86_400_000;

/** No holidays at all. */
export const noHolidays: HolidaysOf = () => new Map();

/**
 * The public holidays of a country, in the language that they are kept in.
 * @param country ISO 3166-1 code of two letters
 * @param region its part, as `date-holidays` names it (mostly ISO 3166-2 without the country): `SCT`, `BY`, or `BY-A` of one within
 * @returns the holidays, or what is wrong with country or region, in words
 */
export function publicHolidays(
  country: string,
  region?: string,
): { ok: true; of: HolidaysOf } | { ok: false; in: "country" | "region"; message: string } {
  const known = new Holidays();
  const code = country.toUpperCase();
  if (!Object.hasOwn(known.getCountries(), code))
    return { ok: false, in: "country", message: t("noHolidaysOfCountry", { country }) };
  const [state, within] = (region ?? "").toUpperCase().split("-");
  const states = (known.getStates(code) as Record<string, string> | undefined) ?? {};
  if (state) {
    const parts = (known.getRegions(code, state) as Record<string, string> | undefined) ?? {};
    if (!Object.hasOwn(states, state) || (within && !Object.hasOwn(parts, within))) {
      const regions = Object.keys(states).join(", ");
      const said = { country: code, region: region ?? "" };
      const message =
        regions === "" ? t("noHolidaysOfAnyRegion", said) : t("noHolidaysOfRegion", { ...said, regions });
      return { ok: false, in: "region", message };
    }
  }
  const place = { country: code, ...(state ? { state } : {}), ...(within ? { region: within } : {}) };
  const holidays = new Holidays(place, { types: ["public"] });
  const years = new Map<number, ReadonlyMap<string, string>>();
  const of = (year: number) => {
    let found = years.get(year);
    if (!found) years.set(year, (found = datesOf(holidays, year)));
    return found;
  };
  return { ok: true, of };
}

/** The regions of a country that have holidays of their own, by name. @param country ISO 3166-1 code of two letters */
export function regionsOf(country: string): { code: string; name: string }[] {
  const states = new Holidays().getStates(country.toUpperCase()) as Record<string, string> | undefined;
  return Object.entries(states ?? {})
    .map(([code, name]) => ({ code, name }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** The days that a year's holidays take; one of several days takes each. */
function datesOf(holidays: Holidays, year: number): ReadonlyMap<string, string> {
  const dates = new Map<string, string>();
  for (const { date, start, end, name } of holidays.getHolidays(year)) {
    const days = Math.max(1, Math.round((end.getTime() - start.getTime()) / DAY_MS));
    const first = Date.parse(`${date.slice(0, 10)}T00:00:00Z`);
    for (let day = 0; day < days; day += 1)
      dates.set(new Date(first + day * DAY_MS).toISOString().slice(0, 10), name);
  }
  return dates;
}
