import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import type { AnswerTimeInput, CalendarInput, HouseTimesInput } from "#core/forms/answer-times";
import { weekdays, type Weekday } from "#core/clock/calendar";
import { dueAt } from "#core/clock/due";
import { hoursText, readHours } from "#core/clock/hours-text";
import { publicHolidays, regionsOf } from "#core/clock/holidays";
import { AnswerTime, Calendar } from "../db/entities/calendars";
import { House } from "../db/entities/people";
import { Mailbox } from "../db/entities/mailboxes";
import { topicsOf } from "../cases/topics";
import { query } from "../db/sql";
import { idSchema } from "../edge";
import { NotFound, Unusable } from "../errors";
import { requireRole, type Viewer } from "../people/viewer";
import { queue } from "../queue/boss";
import { ALWAYS_OPEN, openHoursOf } from "./settings";
import { t } from "../words";

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;
/** So many coming holidays are told of a calendar. */
const TOLD_HOLIDAYS = 6;

/** Business hours, as a lead changes them. */
export interface CalendarRow extends CalendarInput {
  id: number;
  /** The next days on which it would be open, were they no holidays. */
  coming: { date: string; name: string }[];
}

/** An answer time, as a lead changes it. */
export interface AnswerTimeRow extends AnswerTimeInput {
  id: number;
  /** When the first answer to what is written now would be due; null where nobody would be there. */
  due: string | null;
}

/** All by what answers are due. */
export interface AnswerTimes {
  calendars: CalendarRow[];
  times: AnswerTimeRow[];
  house: HouseTimesInput & { timeZone: string };
  mailboxes: { id: number; address: string }[];
  topics: string[];
}

/** Reads by what answers are due. @throws NotAllowed unless lead */
export async function listAnswerTimes(em: EntityManager, viewer: Viewer, now: Date): Promise<AnswerTimes> {
  requireRole(viewer, "lead");
  const calendars = await em.find(Calendar, {}, { orderBy: { name: "asc" } });
  const times = await em.find(AnswerTime, {}, { orderBy: { position: "asc", id: "asc" } });
  const house = await em.findOneOrFail(House, { id: 1 });
  const mailboxes = await em.find(Mailbox, {}, { orderBy: { address: "asc" } });
  const topics = await topicsOf(em);
  return {
    calendars: calendars.map((one) => calendarRow(one, now)),
    times: times.map((one) => {
      const calendar = calendars.find((known) => known.id === one.calendar?.id);
      const hours = calendar ? openHoursOf(calendar) : ALWAYS_OPEN;
      const due = dueAt(hours, now.getTime(), one.firstWithin * MINUTE_MS);
      const { id, channels, mailboxes: to, topics: about, standings, firstWithin, nextWithin } = one;
      return {
        id,
        channels: channels as AnswerTimeInput["channels"],
        ...{ mailboxes: to, topics: about, standings: standings as AnswerTimeInput["standings"] },
        ...{ firstWithin, nextWithin, calendar: one.calendar?.id ?? null },
        due: due && new Date(due.at).toISOString(),
      };
    }),
    house: {
      ...{ calendar: house.calendar?.id ?? null, reopenDays: house.reopenDays, timeZone: house.timeZone },
    },
    mailboxes: mailboxes.map(({ id, address }) => ({ id, address })),
    topics,
  };
}

function calendarRow(calendar: Calendar, now: Date): CalendarRow {
  const hours = openHoursOf(calendar);
  const coming: CalendarRow["coming"] = [];
  for (let at = now.getTime(); at < now.getTime() + 366 * DAY_MS; at += DAY_MS) {
    const date = hours.dateAt(at);
    const name = hours.isUsual(date) ? hours.holiday(date) : null;
    if (name !== null && coming.at(-1)?.date !== date) coming.push({ date, name });
    if (coming.length === TOLD_HOLIDAYS) break;
  }
  return {
    ...{ id: calendar.id, name: calendar.name, timeZone: calendar.timeZone },
    hours: Object.fromEntries(weekdays.map((day) => [day, hoursText(calendar.hours[day] ?? [])])) as Record<
      Weekday,
      string
    >,
    ...{ holidays: calendar.holidays, country: calendar.country ?? null, region: calendar.region ?? null },
    coming,
  };
}

/**
 * Keeps business hours; what waits is due by them from then on.
 * @param id null for new ones
 * @throws NotAllowed unless lead; NotFound; Unusable where another has its name, or country or region is not known
 */
export async function saveCalendar(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  input: CalendarInput,
): Promise<number> {
  requireRole(viewer, "lead");
  const { country, region } = input;
  const known = country === null ? null : publicHolidays(country, region ?? undefined);
  if (known?.ok === false) throw new Unusable(known.message, known.in);
  return em.transactional(async (inner) => {
    const other = await inner.findOne(Calendar, { name: input.name });
    if (other && other.id !== id) throw new Unusable(t("otherHoursHaveThisName"), "name");
    const hours = Object.fromEntries(weekdays.map((day) => [day, readHours(input.hours[day]) ?? []]));
    const holidays = [...new Set(input.holidays)].sort();
    const set = { ...input, hours, holidays, region: country === null ? null : region };
    const calendar = id === null ? inner.create(Calendar, set) : await inner.findOne(Calendar, { id });
    if (!calendar) throw new NotFound(t("thereAreNoSuchHours"));
    if (id !== null) Object.assign(calendar, set);
    await inner.flush();
    await queue(inner, "reckon-due", {});
    return calendar.id;
  });
}

/** Takes business hours away. @throws NotAllowed unless lead; NotFound; Unusable where something counts by them */
export async function removeCalendar(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const times = await inner.count(AnswerTime, { calendar: id });
    const houses = await inner.count(House, { calendar: id });
    if (times + houses > 0) throw new Unusable(t("somethingCountsByTheseHours"));
    if ((await inner.nativeDelete(Calendar, { id })) === 0) throw new NotFound(t("thereAreNoSuchHours"));
  });
}

/**
 * Keeps how soon some cases are answered; a new one is tried first.
 * @throws NotAllowed unless lead; NotFound; Unusable where mailbox or hours are gone
 */
export async function saveAnswerTime(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  { calendar: hours, ...input }: AnswerTimeInput,
): Promise<number> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const calendar = hours === null ? null : await inner.findOne(Calendar, { id: hours });
    if (hours !== null && calendar === null) throw new Unusable(t("thereAreNoSuchHours"), "calendar");
    const known = await inner.count(Mailbox, { id: { $in: input.mailboxes } });
    if (known < new Set(input.mailboxes).size) throw new Unusable(t("aMailboxIsGone"), "mailboxes");
    let time = id === null ? null : await inner.findOne(AnswerTime, { id });
    if (id !== null && time === null) throw new NotFound(t("thereIsNoSuchAnswerTime"));
    if (time) Object.assign(time, input, { calendar });
    else {
      await query(inner, "update answer_times set position = position + 1");
      time = inner.create(AnswerTime, { ...input, calendar, position: 0 });
    }
    await inner.flush();
    await queue(inner, "reckon-due", {});
    return time.id;
  });
}

/** Takes an answer time away. @throws NotAllowed unless lead; NotFound */
export async function removeAnswerTime(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    if ((await inner.nativeDelete(AnswerTime, { id })) === 0)
      throw new NotFound(t("thereIsNoSuchAnswerTime"));
    await queue(inner, "reckon-due", {});
  });
}

export const orderSchema = z.strictObject({ ids: z.array(idSchema).max(1000) });

/** Puts the answer times into the order in which they are tried; those that are not named come last. @throws NotAllowed unless lead */
export async function orderAnswerTimes(em: EntityManager, viewer: Viewer, ids: number[]): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const known = await inner.find(AnswerTime, {}, { orderBy: { position: "asc", id: "asc" } });
    const place = (id: number) => (ids.includes(id) ? ids.indexOf(id) : ids.length);
    for (const [position, time] of known.sort((a, b) => place(a.id) - place(b.id)).entries())
      time.position = position;
    await inner.flush();
    await queue(inner, "reckon-due", {});
  });
}

/** Keeps what holds where no answer time says otherwise. @throws NotAllowed unless lead; Unusable where the hours are gone */
export async function saveHouseTimes(
  em: EntityManager,
  viewer: Viewer,
  { calendar: hours, reopenDays }: HouseTimesInput,
): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const calendar = hours === null ? null : await inner.findOne(Calendar, { id: hours });
    if (hours !== null && calendar === null) throw new Unusable(t("thereAreNoSuchHours"), "calendar");
    const house = await inner.findOneOrFail(House, { id: 1 });
    Object.assign(house, { calendar, reopenDays });
    await inner.flush();
    await queue(inner, "reckon-due", {});
  });
}

/** The regions of a country that have holidays of their own. @throws NotAllowed unless lead */
export function holidayRegions(viewer: Viewer, country: string): { code: string; name: string }[] {
  requireRole(viewer, "lead");
  return regionsOf(country);
}
