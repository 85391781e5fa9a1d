import type { EntityManager } from "@mikro-orm/postgresql";
import { query } from "../db/sql";

/** What the messages of a case say of for whom it waits. */
export interface Said {
  /** When the oldest message was written to us after our last one; null for none. What programs wrote waits for no answer. */
  since: Date | null;
  /** Whether we ever wrote to the customer; what we forwarded answers nobody. */
  answered: boolean;
}

/** Since when somebody waits for an answer on a case, by its messages as they are kept. */
export async function saidOn(em: EntityManager, caseId: number): Promise<Said> {
  const [row] = await query<{ since: string | null; answered: boolean }>(
    em,
    `with ours as (select max(at) as at from messages
                    where case_id = ? and direction = 'out' and kind = 'message' and state not in ('called back', 'refused'))
     select (select min(m.at) from messages m, ours where m.case_id = ? and m.direction = 'in' and m.kind in ('message', 'pressed')
                and m.at > coalesce(ours.at, '-infinity')) as since,
            (select at is not null from ours) as answered`,
    [caseId, caseId],
  );
  return { since: row?.since ? new Date(row.since) : null, answered: row?.answered ?? false };
}
