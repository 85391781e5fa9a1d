import type { EntityManager, Knex } from "@mikro-orm/postgresql";
import { createHash } from "node:crypto";

/**
 * Runs plain SQL with bound parameters, in the entity manager's transaction where there is one.
 * Values travel apart from the text, and so stay out of logs and error messages.
 * @param sql with `?` for each value; arrays bind as PostgreSQL arrays; timestamps come back as text
 */
export function query<Row>(em: EntityManager, sql: string, values: readonly unknown[] = []): Promise<Row[]> {
  return run(em, sql, values, {});
}

/**
 * The same for a statement that is asked again and again: each connection keeps it prepared, and so reads and plans it once.
 * Its text is to be one of few.
 */
export function prepared<Row>(
  em: EntityManager,
  sql: string,
  values: readonly unknown[] = [],
): Promise<Row[]> {
  let name = names.get(sql);
  if (name === undefined) {
    name = createHash("sha256").update(sql).digest("hex").slice(0, 32);
    names.set(sql, name);
  }
  return run(em, sql, values, { name });
}

const names = new Map<string, string>();

async function run<Row>(
  em: EntityManager,
  sql: string,
  values: readonly unknown[],
  options: { name?: string },
): Promise<Row[]> {
  const statement = em
    .getConnection()
    .getKnex()
    .raw<{ rows: Row[] }>(sql, values as Knex.RawBinding[])
    .options(options);
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
