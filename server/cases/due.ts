import type { EntityManager } from "@mikro-orm/postgresql";
import { INTERFACE_LANGUAGE } from "#core/words/words-of";
import { isOurs, type CaseState } from "#core/words/case-states";
import { answerTimeFor, standingOf } from "#core/clock/answer-times";
import { dueAt, dueWords, type Due } from "#core/clock/due";
import { localDate } from "#core/clock/offsets";
import type { OpenHours, Span } from "#core/clock/open-hours";
import type { Case } from "../db/entities/cases";
import { Customer } from "../db/entities/customers";
import { query } from "../db/sql";
import { saidOn } from "./said";
import { ALWAYS_OPEN, settingsOf } from "../house/settings";

const MINUTE_MS = 60_000;

interface Waits {
  since: Date;
  /** Whether it is the first answer of the case that somebody waits for. */
  isFirst: boolean;
}

/**
 * By when a case is to be answered: by what its answer time gives, over open hours, without the time in which it was not
 * ours; a forwarder's deadline counts where it is earlier.
 * @returns null where nobody would be there for so long
 */
export async function answerBy(
  em: EntityManager,
  subject: Case,
  waits: Waits,
  now: Date,
): Promise<Date | null> {
  const { due } = await dueOf(em, subject, waits, now);
  const deadline = subject.forwarded?.dueAt ? Date.parse(subject.forwarded.dueAt) : null;
  if (deadline !== null && deadline > waits.since.getTime() && (due === null || deadline < due.at))
    return new Date(deadline);
  return due && new Date(due.at);
}

/**
 * By when a waiting case is to be answered as things are now: after a change of what it is reckoned by.
 * @returns null where nobody waits
 */
export async function dueAnew(em: EntityManager, subject: Case, now: Date): Promise<Date | null> {
  if (subject.waitingSince == null) return null;
  const { answered } = await saidOn(em, subject.id);
  return answerBy(em, subject, { since: subject.waitingSince, isFirst: !answered }, now);
}

/** Why a case is to be answered by when it is, a line each; empty where nobody waits. */
export async function whyDue(em: EntityManager, subject: Case, now: Date): Promise<string[]> {
  if (subject.waitingSince == null || subject.answerBy == null) return [];
  const { answered } = await saidOn(em, subject.id);
  const waits = { since: subject.waitingSince, isFirst: !answered };
  const { due, hours } = await dueOf(em, subject, waits, now);
  // An outside deadline has reasons of its own.
  if (due?.at !== subject.answerBy.getTime()) return [];
  return dueWords(due, hours.timeZone, INTERFACE_LANGUAGE);
}

async function dueOf(
  em: EntityManager,
  subject: Case,
  { since, isFirst }: Waits,
  now: Date,
): Promise<{ due: Due | null; hours: OpenHours }> {
  const { clock, house } = await settingsOf(em);
  const today = localDate(house.timeZone, now.getTime());
  const customer = await em.findOneOrFail(
    Customer,
    { id: subject.customer.id },
    { populate: ["organisation"] },
  );
  const found = answerTimeFor(clock.answerTimes, {
    channel: subject.channel,
    mailbox: subject.mailbox?.id ?? null,
    topic: subject.topic ?? null,
    standing: standingOf(contractOf(customer), today),
  });
  const calendar = found ? found.calendar : clock.calendar;
  const hours = (calendar === null ? undefined : clock.hours.get(calendar)) ?? ALWAYS_OPEN;
  const within = found
    ? isFirst
      ? found.firstWithin
      : found.nextWithin
    : (clock.ofTeam.get(subject.team.id) ?? 0);
  const pauses = await pausesOf(em, subject, since, now);
  return { due: dueAt(hours, since.getTime(), within * MINUTE_MS, pauses), hours };
}

function contractOf({ organisation }: Customer): { contractUntil: string | null } | null {
  return organisation == null ? null : { contractUntil: organisation.contractUntil ?? null };
}

/** When a case was not ours since an instant. */
async function pausesOf(em: EntityManager, subject: Case, since: Date, now: Date): Promise<Span[]> {
  const rows = await query<{ status: CaseState; from: string; until: string | null }>(
    em,
    `select status, at as from, lead(at) over (order by id) as until from case_states where case_id = ?`,
    [subject.id],
  );
  return rows
    .filter(({ status }) => !isOurs(status))
    .map(({ from, until }) => ({
      from: Math.max(Date.parse(from), since.getTime()),
      until: until === null ? now.getTime() : Date.parse(until),
    }))
    .filter(({ from, until }) => from < until);
}
