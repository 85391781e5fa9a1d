import type { EntityManager, Knex } from "@mikro-orm/postgresql";
import type { ClientBase, QueryResultRow } from "pg";
import { digestOf } from "../digest";

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

/** The pattern of `like` for whatever has a text in it. */
export function holding(text: string): string {
  return `%${exactly(text)}%`;
}

/** The pattern of `like` for a text and no other. */
export function exactly(text: string): string {
  return text.replace(/[\\%_]/g, "\\$&");
}

/** What of the pool is asked for: a connection, for one statement. */
interface Pool {
  acquireConnection(): Promise<ClientBase>;
  releaseConnection(connection: ClientBase): Promise<void>;
}

/**
 * The same for a statement that is asked again and again: each connection keeps it prepared, and so reads and plans it once.
 * Its text is to be one of few.
 */
export async function prepared<Row>(
  em: EntityManager,
  sql: string,
  values: readonly unknown[] = [],
): Promise<Row[]> {
  // A transaction's connection is the transaction's to hand out.
  if (em.isInTransaction()) return query(em, sql, values);
  let statement = statements.get(sql);
  if (statement === undefined) {
    let count = 0;
    const text = sql.replace(/\?/g, () => `$${(count += 1)}`);
    statement = { text, name: digestOf(Buffer.from(text)).slice(0, 32) };
    statements.set(sql, statement);
  }
  const pool = em.getConnection().getKnex().client as Pool;
  const connection = await pool.acquireConnection();
  try {
    const { rows } = await connection.query<Row & QueryResultRow>({ ...statement, values: [...values] });
    return rows;
  } finally {
    await pool.releaseConnection(connection);
  }
}

/** The same for a question that one row answers, always. */
export async function preparedOne<Row>(
  em: EntityManager,
  sql: string,
  values: readonly unknown[] = [],
): Promise<Row> {
  const [row] = await prepared<Row>(em, sql, values);
  if (row === undefined) throw new Error("PostgreSQL answered a question for one row with none");
  return row;
}

/** By their text with `?`. */
const statements = new Map<string, { text: string; name: string }>();

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
