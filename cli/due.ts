import { z } from "zod";
import { calendarSchema } from "#core/clock/calendar";
import { MOST_YEARS, dueAt, dueWords } from "#core/clock/due";
import { noHolidays, publicHolidays } from "#core/clock/holidays";
import { OpenHours } from "#core/clock/open-hours";
import { INTERFACE_LANGUAGE } from "#core/words/words-of";
import { Failure } from "./failure";
import { readChecked } from "./read";

const MINUTE_MS = 60_000;

/** An instant with its offset, as in 2026-11-25T10:00:00Z. */
export const instantOption = z.iso.datetime({
  offset: true,
  error: "is an instant with its offset, as in 2026-11-25T10:00:00Z or 2026-11-25T10:00:00+01:00",
});

const pausesSchema = z
  .array(
    z
      .tuple([instantOption, instantOption])
      .refine(([from, until]) => Date.parse(from) <= Date.parse(until), "it ends before it begins"),
  )
  .max(100_000);

export interface DueOptions {
  calendar: string;
  since: string;
  within: number;
  pauses?: string;
}

/**
 * When an answer is due, and why.
 * @throws Failure when a file cannot be read, or nobody is there for so long
 */
export async function due({ calendar, since, within, pauses }: DueOptions): Promise<object> {
  const read = await readChecked(calendar, calendarSchema);
  const holidays =
    read.country === undefined
      ? ({ ok: true, of: noHolidays } as const)
      : publicHolidays(read.country, read.region);
  if (!holidays.ok) throw new Failure(`${calendar}: ${holidays.in}: ${holidays.message}`);
  if (read.region !== undefined && read.country === undefined)
    throw new Failure(`${calendar}: region: a region is one of a country; say which`);
  const paused = pauses === undefined ? [] : await readChecked(pauses, pausesSchema);
  const spans = paused.map(([from, until]) => ({ from: Date.parse(from), until: Date.parse(until) }));
  const found = dueAt(new OpenHours(read, holidays.of), Date.parse(since), within * MINUTE_MS, spans);
  if (!found)
    throw new Failure(`${calendar}: it is not open for ${within} minutes within ${MOST_YEARS} years`);
  return {
    due: new Date(found.at).toISOString(),
    open_minutes: found.counted / MINUTE_MS,
    why: dueWords(found, read.time_zone, INTERFACE_LANGUAGE),
  };
}
