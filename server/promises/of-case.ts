import type { EntityManager } from "@mikro-orm/postgresql";
import { prepared } from "../db/sql";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";

/** A promise, with the case that it was made on. Times are ISO 8601 instants. */
export interface PromiseMade {
  id: number;
  case: number;
  label: string;
  customer: string;
  words: string;
  /** A calendar date. */
  by: string;
  who: string;
  at: string;
  /** Null as long as nothing came of it. */
  outcome: "kept" | "withdrawn" | null;
}

/** Of whom promises are. */
type Whose = { case: number } | { customer: number } | { organisation: number };

/** So many are shown at once. */
const MOST = 50;

/** What was promised on a case, to a customer or to anybody of an organisation: what is open first, by its day. @param whose ids */
export async function promisesOf(em: EntityManager, whose: Whose): Promise<PromiseMade[]> {
  const [of, id] =
    "case" in whose
      ? ["m.case_id = ?", whose.case]
      : "customer" in whose
        ? ["c.customer_id = ?", whose.customer]
        : [
            "c.customer_id = any(array(select x.id from customers x where x.organisation_id = ?))",
            whose.organisation,
          ];
  const [rows, { house }] = await Promise.all([
    prepared<Omit<PromiseMade, "label">>(
      em,
      `select m.id, c.number as case, cu.display_name as customer, m.words, to_char(m.by, 'YYYY-MM-DD') as by, p.name as who, m.at, m.outcome
         from cases c join promises m on m.case_id = c.id join customers cu on cu.id = c.customer_id join people p on p.id = m.person_id
        where ${of} order by m.outcome is not null, case when m.outcome is null then m.by end, m.at desc limit ${MOST}`,
      [id],
    ),
    settingsOf(em),
  ]);
  return rows.map((row) => ({
    ...row,
    at: new Date(row.at).toISOString(),
    label: caseNumber(house, row.case),
  }));
}
