import type { EntityManager } from "@mikro-orm/postgresql";
import { nameCandidates } from "#core/checks/names";
import { query } from "../db/sql";

/**
 * Names of other customers and organisations that occur in a text.
 * @param customerId the customer whom the letter is for; their own name and organisation do not count
 */
export async function otherNames(em: EntityManager, text: string, customerId: number): Promise<string[]> {
  const keys = nameCandidates(text);
  if (keys.length === 0) return [];
  const rows = await query<{ name: string }>(
    em,
    `select distinct cu.display_name as name from customers cu
      where cu.name_key = any(?) and cu.id <> ? and cu.name_key <> coalesce((select name_key from customers where id = ?), '')
      union
     select o.name from organisations o where o.name_key = any(?)
        and o.id is distinct from (select organisation_id from customers where id = ?)`,
    [keys, customerId, customerId, keys, customerId],
  );
  return rows.map((row) => row.name);
}
