import * as z from "zod/mini";
import { standings } from "../clock/answer-times";
import { weekdays, type Weekday } from "../clock/calendar";
import { hoursText, readHours } from "../clock/hours-text";
import { replyChannels } from "../words/named";
import { dayField, idField, words } from "./fields";
import { withinField, zoneField } from "./people";
import { t } from "../words/forms";

const hoursField = z.pipe(
  z.string().check(
    z.maxLength(200, t.error("atMostCharacters", { most: 200 })),
    z.refine((text) => readHours(text) !== null, t.error("writeHoursAs")),
  ),
  z.transform((text: string) => hoursText(readHours(text) ?? [])),
);

/** Business hours, as a lead writes them: hours of each day as text, empty for a closed one; days on which nobody is there. */
export const calendarFormSchema = z
  .strictObject({
    name: words(60, t.error("writeAName")),
    timeZone: zoneField,
    hours: z.strictObject(
      Object.fromEntries(weekdays.map((day) => [day, hoursField])) as Record<Weekday, typeof hoursField>,
    ),
    holidays: z.array(dayField).check(z.maxLength(400, t.error("atMostDaysOfItsOwn", { most: 400 }))),
    country: z.nullable(z.string().check(z.regex(/^[A-Z]{2}$/, t.error("chooseACountry")))),
    region: z.nullable(z.string().check(z.maxLength(20))),
  })
  .check(
    z.refine(({ hours }) => Object.values(hours).some((text) => text !== ""), {
      ...t.error("openOnNoDay"),
      path: ["hours", "mon"],
    }),
  );
export type CalendarInput = z.infer<typeof calendarFormSchema>;

/** How soon which cases are answered; an empty list stands for all. */
export const answerTimeSchema = z.strictObject({
  channels: z.array(z.enum(replyChannels)),
  mailboxes: z.array(idField).check(z.maxLength(200)),
  topics: z.array(words(80, t.error("writeAName"))).check(z.maxLength(200)),
  standings: z.array(z.enum(standings)),
  firstWithin: withinField,
  nextWithin: withinField,
  calendar: z.nullable(idField),
});
export type AnswerTimeInput = z.infer<typeof answerTimeSchema>;

/** What holds where no answer time says otherwise. */
export const houseTimesSchema = z.strictObject({
  calendar: z.nullable(idField),
  reopenDays: z
    .int(t.error("daysFrom0To3650"))
    .check(z.gte(0, t.error("daysFrom0To3650")), z.lte(3650, t.error("daysFrom0To3650"))),
});
export type HouseTimesInput = z.infer<typeof houseTimesSchema>;
