import type { EntityManager } from "@mikro-orm/postgresql";
import { query } from "../db/sql";
import { INCOMING, INCOMING_FROM, type IncomingRow } from "./incoming";

/** The message by which a case is read when something happens to it, and how it stands. */
export interface Latest extends IncomingRow {
  is_somebodys: boolean;
}

/** The latest message of a case from its customer, else of ours; null where there is none, or the case was joined to another. */
export async function latestOf(em: EntityManager, caseId: number): Promise<Latest | null> {
  const [row] = await query<Latest>(
    em,
    `select ${INCOMING}, c.assignee_id is not null as is_somebodys from ${INCOMING_FROM}
      where c.id = ? and c.joined_to_id is null and m.kind <> 'pressed' and m.state <> 'called back'
      order by m.direction = 'in' desc, m.at desc, m.id desc limit 1`,
    [caseId],
  );
  return row ?? null;
}
