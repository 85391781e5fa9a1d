import type { CaseState } from "#core/words/case-states";
import type { EntityManager } from "@mikro-orm/postgresql";
import { holding, query } from "../db/sql";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";

/** A case as it is offered for joining, or for a message. */
export interface FoundCase {
  number: number;
  label: string;
  subject: string;
  customer: string;
  status: CaseState;
}

/** Most that are offered at once. */
const MOST_FOUND = 12;

/**
 * Cases by what is typed of their number, subject or customer, the latest first; where nothing is typed, those of the same
 * customer.
 * @param beside the case that is looked at, which is not among them
 */
export async function findCases(em: EntityManager, beside: number, text: string): Promise<FoundCase[]> {
  const wanted = text.trim();
  const digits = /(\d{1,9})$/.exec(wanted)?.[1];
  const { house } = await settingsOf(em);
  const rows = await query<Omit<FoundCase, "label">>(
    em,
    `select c.number, c.subject, cu.display_name as customer, c.status from cases c join customers cu on cu.id = c.customer_id
      where c.number <> ? and c.joined_to_id is null
        and ${
          wanted === ""
            ? "c.customer_id = (select customer_id from cases where number = ?)"
            : "(c.number = ? or c.subject ilike ? or cu.display_name ilike ?)"
        }
      order by c.updated_at desc limit ${MOST_FOUND}`,
    wanted === "" ? [beside, beside] : [beside, Number(digits ?? -1), holding(wanted), holding(wanted)],
  );
  return rows.map((row) => ({ ...row, label: caseNumber(house, row.number) }));
}
