import type { EntityManager } from "@mikro-orm/postgresql";
import type { Case } from "../db/entities/cases";
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
  subject.waitingSince = since;
  subject.answerBy = since && new Date(since.getTime() + within * 60_000);
  subject.status = since ? "waiting for us" : answered ? "waiting for the customer" : "set aside";
  subject.updatedAt = now;
}

/** A case waits for us again, as it did before its last answer was called back. */
export async function waitAgain(em: EntityManager, subject: Case, now: Date): Promise<void> {
  const { since, within } = await waitsSince(em, subject.id);
  subject.waitingSince = since ?? now;
  subject.answerBy = new Date(subject.waitingSince.getTime() + within * 60_000);
  subject.status = "waiting for us";
  subject.updatedAt = now;
}
