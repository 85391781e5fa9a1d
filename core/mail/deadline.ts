import { en, de, es, fr, type Chrono, type ParsedComponents } from "chrono-node";
import { TZDate } from "@date-fns/tz";
import { primary } from "../language/tag";

/** What reads dates as people write them, by language. */
const readers: Record<string, Chrono> = { de: de.casual, es: es.casual, fr: fr.casual };

/**
 * The instant that words name, as “28 November 2026, 18:00” or “tomorrow at noon”: a day without a time is over at its end,
 * a time without a zone is told where the house is.
 * @param language BCP 47 tag of the words
 * @param now what “today” is
 * @param timeZone IANA zone of the house
 * @returns an ISO 8601 instant; null where they name none
 */
export function readDeadline(words: string, language: string, now: Date, timeZone: string): string | null {
  // Days before months, as nearly everybody writes them.
  for (const reader of [readers[primary(language)], en.GB]) {
    const [found, ...more] = reader?.parse(words, { instant: now }, { forwardDate: true }) ?? [];
    if (found && more.length === 0) return instantOf(found.start, timeZone);
  }
  return null;
}

function instantOf(start: ParsedComponents, timeZone: string): string {
  if (start.isCertain("timezoneOffset")) return start.date().toISOString();
  const get = (part: "year" | "month" | "day" | "hour" | "minute") => start.get(part) ?? 0;
  const [hour, minute] = start.isCertain("hour") ? [get("hour"), get("minute")] : [23, 59];
  const local = new TZDate(get("year"), get("month") - 1, get("day"), hour, minute, timeZone);
  return new Date(local.getTime()).toISOString();
}
