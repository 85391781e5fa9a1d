import type { EntityManager } from "@mikro-orm/postgresql";
import type { Case } from "../db/entities/cases";
import { holding, prepared, query } from "../db/sql";
import type { Settings } from "../house/settings";

/** Somebody whom a letter may go to besides. */
interface FoundPerson {
  address: string;
  name: string | null;
  is: "customer" | "colleague";
  /** Their team, or their organisation; null for none. */
  of: string | null;
}

/** Most that are offered at once. */
const MOST_FOUND = 12;

/** People whom a letter may go to besides, by what is typed of their name or address: customers, those of an organisation, colleagues. */
export async function findPeople(em: EntityManager, text: string): Promise<FoundPerson[]> {
  const wanted = text.trim();
  if (wanted === "") return [];
  const like = holding(wanted);
  return query(
    em,
    `select * from (
       select p.email as address, p.name, 'colleague' as is, t.name as of, 0 as rank from people p join teams t on t.id = p.team_id
        where p.active and (p.name ilike ? or p.email ilike ?)
       union all
       select a.address, cu.display_name, 'customer', o.name, 1 from customer_addresses a
         join customers cu on cu.id = a.customer_id left join organisations o on o.id = cu.organisation_id
        where a.channel = 'email' and (cu.display_name ilike ? or a.address ilike ? or o.name ilike ?)
     ) found order by rank, lower(name) limit ${MOST_FOUND}`,
    [like, like, like, like, like],
  );
}

/**
 * Addresses that are nothing new on a case: the customer's, those of their organisation, colleagues', ours, and of whoever
 * wrote or was written to there.
 */
export async function familiarOn(
  em: EntityManager,
  subject: Case,
  { mailboxes }: Settings,
): Promise<string[]> {
  const { customer } = subject;
  const rows = await prepared<{ address: string }>(
    em,
    `select email as address from people where active
      union select a.address from customer_addresses a join customers cu on cu.id = a.customer_id
             where a.channel = 'email' and (cu.id = ? or cu.organisation_id = ?)
      union select x.address from messages m cross join lateral (
               select m.from_address as address union all select m.to_address
               union all select jsonb_array_elements_text(m.copies->'to') union all select jsonb_array_elements_text(m.copies->'cc')) x
             where m.case_id = ? and m.channel = 'email'`,
    [customer.id, customer.organisation?.id ?? null, subject.id],
  );
  return [...new Set([...mailboxes, ...rows.map((one) => one.address)])];
}
