import type { EntityManager } from "@mikro-orm/postgresql";
import type { Case } from "../db/entities/cases";
import { Team } from "../db/entities/people";
import { query } from "../db/sql";

/**
 * Since when somebody waits for an answer on a case: since the oldest message that was written to us after our last one.
 * What programs wrote waits for none, and what we forwarded answers none.
 * @returns with the time that the case's team has for an answer, in minutes, and whether we ever wrote
 */
async function waitsSince(
  em: EntityManager,
  caseId: number,
): Promise<{ since: Date | null; within: number; answered: boolean }> {
  const [row] = await query<{ since: string | null; within: number; answered: boolean }>(
    em,
    `with ours as (select max(at) as at from messages
                    where case_id = ? and direction = 'out' and kind = 'message' and state not in ('called back', 'refused'))
     select (select min(m.at) from messages m, ours where m.case_id = c.id and m.direction = 'in' and m.kind in ('message', 'pressed')
                and m.at > coalesce(ours.at, '-infinity')) as since,
            t.answer_within as within, (select at is not null from ours) as answered
       from cases c join teams t on t.id = c.team_id where c.id = ?`,
    [caseId, caseId],
  );
  return {
    since: row?.since ? new Date(row.since) : null,
    within: row?.within ?? 0,
    answered: row?.answered ?? false,
  };
}

/** Sets from its messages for whom a case waits, and since when. The caller writes what the unit of work holds. */
export async function restate(em: EntityManager, subject: Case, now: Date): Promise<void> {
  const { since, within, answered } = await waitsSince(em, subject.id);
  if (since) return waits(subject, since, within, now);
  const status = answered ? ("waiting for the customer" as const) : ("set aside" as const);
  Object.assign(subject, { status, waitingSince: null, answerBy: null, updatedAt: now });
}

/** A case waits for us again, as it did before its last answer was called back. */
export async function waitAgain(em: EntityManager, subject: Case, now: Date): Promise<void> {
  const { since, within } = await waitsSince(em, subject.id);
  waits(subject, since ?? now, within, now);
}

/** The case waits for us again; its time runs from the oldest message without an answer. The caller writes what the unit of work holds. */
export async function awaitAnswer(em: EntityManager, subject: Case, now: Date): Promise<void> {
  if (subject.waitingSince === null) {
    const { answerWithin } = await em.findOneOrFail(Team, { id: subject.team.id });
    return waits(subject, now, answerWithin, now);
  }
  subject.status = "waiting for us";
  subject.updatedAt = now;
}

/** Since an instant a case waits for us. @param within minutes that its team has for an answer */
function waits(subject: Case, since: Date, within: number, now: Date): void {
  const answerBy = new Date(since.getTime() + within * 60_000);
  Object.assign(subject, { status: "waiting for us", waitingSince: since, answerBy, updatedAt: now });
}
