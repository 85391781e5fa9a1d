import { defineEntity, p, type InferEntity } from "@mikro-orm/core";
import type { Calendar as Hours } from "#core/clock/calendar";

/** Business hours: when somebody is there to answer. */
export const Calendar = defineEntity({
  name: "Calendar",
  tableName: "calendars",
  properties: {
    id: p.integer().primary(),
    name: p.text().unique(),
    /** IANA zone that the hours and holidays are told in. */
    timeZone: p.text(),
    hours: p.json<Hours["hours"]>(),
    /** Local dates of its own. */
    holidays: p.json<string[]>().defaultRaw("'[]'"),
    /** ISO 3166-1 alpha-2: whose public holidays are kept besides. */
    country: p.string().length(2).nullable(),
    region: p.text().nullable(),
  },
});
export type Calendar = InferEntity<typeof Calendar>;

/** Within what time cases are answered: the first that a case fits. Empty lists stand for all. */
export const AnswerTime = defineEntity({
  name: "AnswerTime",
  tableName: "answer_times",
  properties: {
    id: p.integer().primary(),
    position: p.integer(),
    channels: p.array().defaultRaw("'{}'"),
    /** Ids of mailboxes. */
    mailboxes: p
      .array((id) => Number(id))
      .columnType("int[]")
      .defaultRaw("'{}'"),
    topics: p.array().defaultRaw("'{}'"),
    standings: p.array().defaultRaw("'{}'"),
    /** Minutes for the first answer. */
    firstWithin: p.integer(),
    /** Minutes for each later one. */
    nextWithin: p.integer(),
    /** Null for all hours of all days. */
    calendar: () => p.manyToOne(Calendar).nullable(),
  },
});
export type AnswerTime = InferEntity<typeof AnswerTime>;
