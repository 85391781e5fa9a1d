import type { EntityManager } from "@mikro-orm/postgresql";
import { query } from "../db/sql";

const LONGEST = 60;

/** A title as the id of the open formats: small letters, digits and hyphens. */
function keyFrom(title: string): string {
  const plain = title
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .replaceAll("ß", "ss")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, LONGEST)
    .replace(/-+$/, "");
  return plain === "" ? "reply" : plain;
}

/** A key for a new reply that no other has; within the caller's transaction nobody else takes it. */
export async function freeKey(em: EntityManager, title: string): Promise<string> {
  return free(em, "replies", keyFrom(title));
}

/** The same for a shelf. */
export async function freeShelfKey(em: EntityManager, name: string): Promise<string> {
  return free(em, "shelves", keyFrom(name));
}

async function free(em: EntityManager, table: "replies" | "shelves", base: string): Promise<string> {
  await query(em, "select pg_advisory_xact_lock(7422)");
  const rows = await query<{ key: string }>(em, `select key from ${table} where key = ? or key like ?`, [
    base,
    `${base}-%`,
  ]);
  const taken = new Set(rows.map((row) => row.key));
  if (!taken.has(base)) return base;
  let number = 2;
  while (taken.has(`${base}-${number}`)) number += 1;
  return `${base}-${number}`;
}
