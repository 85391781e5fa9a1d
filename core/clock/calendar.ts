import * as z from "zod/mini";
import { isTimeZone } from "../tokens/context";
import { t } from "../words/clock";

/** The days of a week, as calendars name them. */
export const weekdays = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"] as const;
export type Weekday = (typeof weekdays)[number];

const timeField = z.string().check(z.regex(/^(?:(?:[01]\d|2[0-3]):[0-5]\d|24:00)$/, t.error("aTimeAsIn")));

/** From when until when, as the clock on the wall tells it; `24:00` ends a day. */
const rangeSchema = z
  .tuple([timeField, timeField])
  .check(z.refine(([from, until]) => from < until, t.error("endsBeforeItBegins")));

/**
 * When somebody is there to answer: hours of each day of the week (a day left out is closed, ranges may overlap), days on which
 * nobody is, the holidays of a country, and the IANA time zone that all of them are told in.
 */
export const calendarSchema = z.strictObject({
  time_zone: z.string().check(z.refine(isTimeZone, t.error("noSuchTimeZone"))),
  hours: z.partialRecord(z.enum(weekdays), z.array(rangeSchema).check(z.maxLength(24))),
  holidays: z._default(z.array(z.iso.date(t.error("aDayAsIn"))).check(z.maxLength(2000)), []),
  country: z.optional(z.string().check(z.regex(/^[A-Za-z]{2}$/, t.error("twoLettersOfACountry")))),
  region: z.optional(z.string().check(z.minLength(1), z.maxLength(20))),
});
export type Calendar = z.infer<typeof calendarSchema>;
