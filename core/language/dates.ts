/** A date that is written in a text. */
interface WrittenDate {
  index: number;
  words: string;
}

/** How months are called, short and long, in a language. */
const months = new Map<string, Map<string, number>>();

function monthNames(language: string): Map<string, number> {
  const known = months.get(language);
  if (known) return known;
  const names = new Map<string, number>();
  for (const tag of new Set([language, "en"])) {
    for (const style of ["long", "short"] as const) {
      const format = new Intl.DateTimeFormat(tag, { month: style, day: "numeric", timeZone: "UTC" });
      for (let month = 0; month < 12; month += 1) {
        const name = format
          .formatToParts(Date.UTC(2001, month, 15))
          .find((part) => part.type === "month")
          ?.value.toLowerCase()
          .replace(/\.$/, "");
        if (name && !names.has(name)) names.set(name, month);
      }
    }
  }
  months.set(language, names);
  return names;
}

const ISO = /\b(\d{4})-(\d{2})-(\d{2})\b/g;
const DOTTED = /\b(\d{1,2})[./](\d{1,2})[./](\d{4})\b/g;
const DAY_FIRST = /\b(\d{1,2})(?:st|nd|rd|th|er|\.)?\s+(?:de\s+)?(\p{L}{3,})\.?,?\s+(?:de\s+)?(\d{4})\b/gu;
const MONTH_FIRST = /(?<!\p{L})(\p{L}{3,})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})\b/gu;

/**
 * Dates in a text that lie before a day. Only dates with a year count; of 03/04/2026 both readings must have passed.
 * @param language BCP 47 tag, for the names of months
 * @param now ISO 8601 instant
 */
export function outOfDate(text: string, language: string, now: string): WrittenDate[] {
  const today = now.slice(0, 10);
  return writtenDates(text, language).filter(({ days }) => days.every((day) => day < today));
}

/**
 * Dates with a year in a text, in its order.
 * @param language BCP 47 tag, for the names of months
 */
export function writtenDates(text: string, language: string): (WrittenDate & { days: string[] })[] {
  if (!/\d{4}/.test(text)) return [];
  const names = monthNames(language);
  const found: (WrittenDate & { days: string[] })[] = [];
  const look = (match: RegExpMatchArray, dates: (string | null)[]) => {
    const days = dates.filter((date) => date !== null);
    if (days.length > 0) found.push({ index: match.index ?? 0, words: match[0], days });
  };
  for (const match of text.matchAll(ISO))
    look(match, [iso(Number(match[1]), Number(match[2]) - 1, Number(match[3]))]);
  for (const match of text.matchAll(DOTTED)) {
    const [first, second, year] = [Number(match[1]), Number(match[2]), Number(match[3])];
    look(match, [iso(year, second - 1, first), iso(year, first - 1, second)]);
  }
  const named = (match: RegExpMatchArray, day: string | undefined, month: string | undefined) => {
    const number = names.get((month ?? "").toLowerCase());
    if (number !== undefined) look(match, [iso(Number(match[3]), number, Number(day))]);
  };
  for (const match of text.matchAll(DAY_FIRST)) named(match, match[1], match[2]);
  for (const match of text.matchAll(MONTH_FIRST)) named(match, match[2], match[1]);
  return found.sort((a, b) => a.index - b.index);
}

/** A calendar date as text; null for one that no calendar has. */
function iso(year: number, month: number, day: number): string | null {
  const date = new Date(Date.UTC(year, month, day));
  const real = date.getUTCFullYear() === year && date.getUTCMonth() === month && date.getUTCDate() === day;
  return real ? date.toISOString().slice(0, 10) : null;
}
