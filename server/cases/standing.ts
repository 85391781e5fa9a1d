import type { EntityManager } from "@mikro-orm/postgresql";
import type { CaseState } from "#core/words/case-states";
import type { Case } from "../db/entities/cases";
import { query } from "../db/sql";
import { answerBy } from "./due";
import { saidOn, type Said } from "./said";

/** Brings a case into a state; what it was set aside as, and why, is over. The caller writes what the unit of work holds. */
export function setState(subject: Case, state: CaseState): void {
  const asideAs = state === "set aside" ? ("nothing to answer" as const) : null;
  Object.assign(subject, { status: state, asideAs, stateReason: null });
}

/** The same where it waits for nobody: no time runs. */
export function setStill(subject: Case, state: CaseState, now: Date): void {
  setState(subject, state);
  Object.assign(subject, { waitingSince: null, answerBy: null, updatedAt: now });
}

/** Sets from its messages for whom a case waits, and since when. The caller writes what the unit of work holds. */
export async function restate(em: EntityManager, subject: Case, now: Date): Promise<void> {
  const { since, answered } = await saidOn(em, subject.id);
  if (since) return waits(em, subject, { since, answered }, now);
  setStill(subject, answered ? "waiting on the customer" : "set aside", now);
}

/** A case waits for us as it did before its last answer was called back: that it waited for the customer never was. */
export async function waitAgain(em: EntityManager, subject: Case, now: Date): Promise<void> {
  await query(
    em,
    `delete from case_states where status = 'waiting on the customer' and id = (select max(id) from case_states where case_id = ?)`,
    [subject.id],
  );
  const { since, answered } = await saidOn(em, subject.id);
  await waits(em, subject, { since: since ?? now, answered }, now);
}

/** A case is ours again where nobody waits for an answer: no time runs. */
export async function takeUp(em: EntityManager, subject: Case, now: Date): Promise<void> {
  const { since, answered } = await saidOn(em, subject.id);
  if (since) return waits(em, subject, { since, answered }, now);
  setStill(subject, "open", now);
}

/**
 * Somebody wrote, and the case waits for us; its time runs from the oldest message without an answer, unless the case was
 * settled or set aside meanwhile. Writes what the unit of work holds; the caller does so once more.
 */
export async function awaitAnswer(em: EntityManager, subject: Case, now: Date): Promise<void> {
  if (subject.waitingSince === null) {
    // What was just made has no messages that are kept.
    await em.flush();
    const { since, answered } = await saidOn(em, subject.id);
    // Where nobody dealt with what was written before, its time goes on.
    const goesOn = subject.status === "waiting on the customer";
    return waits(em, subject, { since: (goesOn ? since : null) ?? now, answered }, now);
  }
  setState(subject, subject.status === "new" ? "new" : "open");
  subject.updatedAt = now;
}

/** Since an instant a case waits for us. */
async function waits(
  em: EntityManager,
  subject: Case,
  { since, answered }: Said & { since: Date },
  now: Date,
): Promise<void> {
  const isNew = !answered && subject.assignee == null && ["new", "set aside"].includes(subject.status);
  setState(subject, isNew ? "new" : "open");
  Object.assign(subject, { waitingSince: since, updatedAt: now });
  subject.answerBy = await answerBy(em, subject, { since, isFirst: !answered }, now);
}
