import { t } from "../words/clock";
import { joined, left, type OpenHours, type Span } from "./open-hours";
import { localDate, offsetsBetween } from "./offsets";

/** What had a part in when an answer is due: the days that counted, then what else. Instants in milliseconds since 1970 (UTC), dates local. */
type Reason =
  | { kind: "open"; date: string; from: number; until: number; counted: number }
  | { kind: "holiday"; date: string; name: string }
  | { kind: "pause"; from: number; until: number }
  | { kind: "clocks"; at: number; change: number };

/** When an answer is due. */
export interface Due {
  /** Milliseconds since 1970 (UTC). */
  at: number;
  /** Open time that was counted until then, in milliseconds: what was given for the answer. */
  counted: number;
  reasons: Reason[];
}

/** Further ahead nobody looks. */
export const MOST_YEARS = 20;
const YEAR_MS = 366 * 86_400_000;
const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;
/** So many days are told one by one. */
const TOLD_DAYS = 7;

/**
 * When an answer is due: once so much open, not paused time has passed. Time used up at closing is due at closing, not at the
 * next opening; an answer for which no time is given is due at once.
 * @param since since when somebody waits, in milliseconds since 1970 (UTC)
 * @param within the time given, in milliseconds
 * @param pauses time that does not count; they may overlap
 * @returns null where so much time does not pass within twenty years
 */
export function dueAt(
  hours: OpenHours,
  since: number,
  within: number,
  pauses: readonly Span[] = [],
): Due | null {
  if (within <= 0) return { at: since, counted: 0, reasons: [] };
  const without = joined(pauses);
  const days = new Map<string, Reason & { kind: "open" }>();
  let counted = 0;
  for (const span of hours.spans(since, since + MOST_YEARS * YEAR_MS))
    for (const { from, until, date } of left(span, without)) {
      const taken = Math.min(until - from, within - counted);
      counted += taken;
      const day = days.get(date);
      if (day) Object.assign(day, { until: from + taken, counted: day.counted + taken });
      else days.set(date, { kind: "open", date, from, until: from + taken, counted: taken });
      if (counted < within) continue;
      const at = from + taken;
      return {
        at,
        counted,
        reasons: [...days.values(), ...besides(hours, { from: since, until: at }, without)],
      };
    }
  return null;
}

/** What besides its hours made a stretch of time longer or shorter. */
function besides(hours: OpenHours, whole: Span, pauses: readonly Span[]): Reason[] {
  const reasons: Reason[] = [];
  const last = hours.dateAt(whole.until);
  for (let day = Date.parse(hours.dateAt(whole.from)); day <= Date.parse(last); day += DAY_MS) {
    const date = new Date(day).toISOString().slice(0, 10);
    const name = hours.isUsual(date) ? hours.holiday(date) : null;
    if (name !== null) reasons.push({ kind: "holiday", date, name });
  }
  for (const { from, until } of pauses)
    if (from < whole.until && until > whole.from) reasons.push({ kind: "pause", from, until });
  let before: number | null = null;
  for (const { from, offset } of offsetsBetween(hours.timeZone, whole.from, whole.until)) {
    const change = offset - (before ?? offset);
    if (change !== 0 && (hours.isOpen(from - 1) || hours.isOpen(from)))
      reasons.push({ kind: "clocks", at: from, change });
    before = offset;
  }
  return reasons;
}

/** So much time, in words: “4 h 30 min”. @param time in milliseconds */
function durationWords(time: number): string {
  const minutes = Math.round(time / MINUTE_MS);
  const hours = Math.floor(minutes / 60);
  if (hours === 0) return t("minutes", { count: minutes });
  return minutes % 60 === 0
    ? t("hoursOnly", { hours })
    : t("hoursAndMinutes", { hours, minutes: minutes % 60 });
}

/**
 * Why an answer is due when it is, a line each: days that counted, those that did not, pauses, changes of the clock.
 * @param timeZone IANA zone in which times are told
 * @param language BCP 47 tag, of the names of days
 */
export function dueWords(due: Due, timeZone: string, language: string): string[] {
  if (due.reasons.length === 0) return [t("dueAtOnce")];
  const dayOf = new Intl.DateTimeFormat(language, {
    ...{ weekday: "long", day: "numeric", month: "long", year: "numeric" },
    timeZone: "UTC",
  });
  const clock = new Intl.DateTimeFormat(language, { hour: "2-digit", minute: "2-digit", timeZone });
  const moment = new Intl.DateTimeFormat(language, { dateStyle: "medium", timeStyle: "short", timeZone });
  const localDay = new Intl.DateTimeFormat(language, {
    ...{ weekday: "long", day: "numeric", month: "long", year: "numeric" },
    timeZone,
  });
  const day = (date: string) => dayOf.format(Date.parse(date));
  const said = (reason: Reason): string => {
    switch (reason.kind) {
      case "open": {
        // What ends a day is told as its end, not as the beginning of the next.
        const endsDay = reason.date !== localDate(timeZone, reason.until);
        const until = endsDay ? t("endOfDay") : clock.format(reason.until);
        return t("openOn", {
          day: day(reason.date),
          from: clock.format(reason.from),
          until,
          time: durationWords(reason.counted),
        });
      }
      case "holiday":
        return t("closedFor", { day: day(reason.date), holiday: reason.name || t("aHoliday") });
      case "pause":
        return t("pausedFrom", { from: moment.format(reason.from), until: moment.format(reason.until) });
      case "clocks": {
        const time = durationWords(Math.abs(reason.change));
        const values = { day: localDay.format(reason.at), time };
        return reason.change > 0 ? t("clocksGoForward", values) : t("clocksGoBack", values);
      }
    }
  };
  const open = due.reasons.filter((reason) => reason.kind === "open");
  const untold = open.slice(TOLD_DAYS);
  const words = due.reasons.filter((reason) => !untold.some((one) => one === reason)).map(said);
  if (untold.length === 0) return words;
  const time = durationWords(untold.reduce((sum, { counted }) => sum + counted, 0));
  return words.toSpliced(TOLD_DAYS, 0, t("daysLikeThat", { count: untold.length, time }));
}
