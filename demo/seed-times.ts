import type { EntityManager } from "@mikro-orm/postgresql";
import { dueAnew } from "../server/cases/due";
import { AnswerTime, Calendar } from "../server/db/entities/calendars";
import { Case } from "../server/db/entities/cases";

const HOUR = 60;

/** The hours of the ticket office, and how soon which cases are answered. */
export function seedTimes(em: EntityManager, timeZone: string, now: Date): void {
  const year = now.getUTCFullYear();
  const office = em.create(Calendar, {
    name: "Ticket office",
    timeZone,
    hours: {
      ...{ mon: [["08:00", "18:00"]], tue: [["08:00", "18:00"]], wed: [["08:00", "18:00"]] },
      ...{ thu: [["08:00", "18:00"]], fri: [["08:00", "18:00"]], sat: [["09:00", "13:00"]] },
    },
    holidays: [`${year}-12-25`, `${year}-12-26`, `${year + 1}-01-01`],
    country: null,
    region: null,
  });
  const all = { channels: [], mailboxes: [], topics: [], standings: [] };
  em.create(AnswerTime, {
    ...{ ...all, standings: ["contract"], position: 0, calendar: null },
    ...{ firstWithin: 12 * HOUR, nextWithin: 6 * HOUR },
  });
  em.create(AnswerTime, {
    ...{ ...all, topics: ["season cards"], position: 1, calendar: office },
    ...{ firstWithin: 16 * HOUR, nextWithin: 8 * HOUR },
  });
}

/** By when the demo's waiting cases are to be answered. Writes what the unit of work holds. */
export async function seedDue(em: EntityManager, now: Date): Promise<void> {
  const waiting = await em.find(
    Case,
    { waitingSince: { $ne: null } },
    { populate: ["customer.organisation"] },
  );
  for (const subject of waiting) {
    const { organisation } = subject.customer;
    if (
      subject.waitingSince == null ||
      (organisation?.contractUntil == null && subject.topic !== "season cards")
    )
      continue;
    subject.answerBy = await dueAnew(em, subject, now);
  }
  await em.flush();
}
