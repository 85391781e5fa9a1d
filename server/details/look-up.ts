import type { EntityManager } from "@mikro-orm/postgresql";
import { referenceIn } from "#core/details/source";
import { BOOKINGS } from "#core/tokens/catalogue";
import { Case, CaseLookup, DetailField, DetailSource } from "../db/entities/cases";
import { query } from "../db/sql";
import { notify } from "../events/notify";
import { settingsOf } from "../house/settings";
import { queue } from "../queue/boss";
import { askSource } from "./ask";

const MINUTE_MS = 60_000;

/**
 * References that words name are a case's, of each source of which it has none yet, and are looked up. In the caller's
 * transaction; writes what the unit of work holds.
 * @returns the reference of a booking that is new on it; null for none
 */
export async function noteReferences(
  em: EntityManager,
  caseId: number,
  words: string,
): Promise<string | null> {
  const { sources } = await settingsOf(em);
  await em.flush();
  let booking: string | null = null;
  let fresh = false;
  for (const { key, pattern } of sources) {
    const reference = pattern === null ? null : referenceIn(pattern, words);
    if (reference === null) continue;
    const added = await query<{ id: number }>(
      em,
      `insert into case_lookups (case_id, source, reference)
       select id, ?, ? from cases where id = ? and (booking_reference is null or ? <> '${BOOKINGS}')
       on conflict (case_id, source) do nothing returning id`,
      [key, reference, caseId, key],
    );
    if (added.length === 0) continue;
    fresh = true;
    if (key !== BOOKINGS) continue;
    booking = reference;
    await query(em, "update cases set booking_reference = ? where id = ?", [reference, caseId]);
  }
  if (fresh) await queue(em, "look-up", { case: caseId });
  return booking;
}

/**
 * Asks each source of a case whose answer is not there or is older than it may be, and keeps what they say; open screens are
 * told. What was said before is kept where a source cannot be asked.
 * @returns false where asking again may help
 */
export async function lookUp(em: EntityManager, caseId: number, now: Date): Promise<boolean> {
  const subject = await em.findOne(Case, { id: caseId });
  if (!subject) return true;
  const sources = await em.find(DetailSource, {});
  const all = await em.find(DetailField, {});
  const known = await em.find(CaseLookup, { case: caseId });
  const booking = subject.bookingReference;
  if (booking != null && !known.some(({ source }) => source === BOOKINGS))
    known.push(
      em.create(CaseLookup, {
        ...{ case: subject, source: BOOKINGS, reference: booking, data: null, problem: null },
        ...{ fetchedAt: null, readAt: null },
      }),
    );
  const asked = known.flatMap((lookup) => {
    const source = sources.find(({ key }) => key === lookup.source);
    return source && (lookup.problem !== null || isOld(lookup.fetchedAt ?? null, source.cacheMinutes, now))
      ? [{ lookup, source }]
      : [];
  });
  const done = await Promise.all(
    asked.map(async ({ lookup, source }) => {
      const fields = all.filter((field) => field.source.id === source.id);
      const reference = source.key === BOOKINGS ? (booking ?? lookup.reference) : lookup.reference;
      const answer = await askSource(source, fields, reference);
      const isGone = answer.data === null && answer.gone;
      if (answer.data !== null) Object.assign(lookup, { data: answer.data, readAt: now });
      else if (isGone || lookup.reference !== reference) Object.assign(lookup, { data: null, readAt: null });
      Object.assign(lookup, { problem: answer.problem, reference, fetchedAt: now });
      return answer.problem === null || isGone;
    }),
  );
  await em.flush();
  if (asked.length > 0) await notify(em, { case: subject.number, kind: "details" });
  return done.every(Boolean);
}

/** Whether what was said is to be asked anew. @param at when it was asked last */
export function isOld(at: Date | null, cacheMinutes: number, now: Date): boolean {
  return at === null || now.getTime() - at.getTime() > cacheMinutes * MINUTE_MS;
}

/** Has a case's sources asked anew where what they said is old: whoever opened it does not wait for that. */
export async function refreshOld(em: EntityManager, caseId: number): Promise<void> {
  await em.transactional((inner) => queue(inner, "look-up", { case: caseId }));
}
