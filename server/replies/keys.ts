import type { EntityManager } from "@mikro-orm/postgresql";
import { Reply, Shelf } from "../db/entities/library";
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
  return free(em, Reply, keyFrom(title));
}

/** The same for a shelf. */
export async function freeShelfKey(em: EntityManager, name: string): Promise<string> {
  return free(em, Shelf, keyFrom(name));
}

async function free(em: EntityManager, of: typeof Reply | typeof Shelf, base: string): Promise<string> {
  await query(em, "select pg_advisory_xact_lock(7422)");
  const like = { $or: [{ key: base }, { key: { $like: `${base}-%` } }] };
  const found =
    of === Reply
      ? await em.find(Reply, like, { fields: ["key"] })
      : await em.find(Shelf, like, { fields: ["key"] });
  const taken = new Set(found.map(({ key }) => key));
  if (!taken.has(base)) return base;
  let number = 2;
  while (taken.has(`${base}-${number}`)) number += 1;
  return `${base}-${number}`;
}
