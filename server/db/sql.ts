import type { EntityManager, Knex } from "@mikro-orm/postgresql";

/**
 * Runs plain SQL with bound parameters, in the entity manager's transaction where there is one.
 * Values travel apart from the text, and so stay out of logs and error messages.
 * @param sql with `?` for each value; arrays bind as PostgreSQL arrays; timestamps come back as text
 */
export async function query<Row>(
  em: EntityManager,
  sql: string,
  values: readonly unknown[] = [],
): Promise<Row[]> {
  const statement = em
    .getConnection()
    .getKnex()
    .raw<{ rows: Row[] }>(sql, values as Knex.RawBinding[]);
  const transaction = em.getTransactionContext<Knex.Transaction>();
  const { rows } = await (transaction ? statement.transacting(transaction) : statement);
  return rows;
}

/** A query with `:name` parameters as one with `?`, and its values in their order. */
export function named(sql: string, values: Record<string, unknown>): [string, unknown[]] {
  const list: unknown[] = [];
  const text = sql.replace(/(?<!:):([a-z]+)\b/g, (whole, name: string) => {
    if (!Object.hasOwn(values, name)) return whole;
    list.push(values[name]);
    return "?";
  });
  return [text, list];
}
