import type { EntityManager } from "@mikro-orm/postgresql";
import { StoredFile } from "../db/entities/cases";
import { query } from "../db/sql";
import { digestOf } from "./digest";

/** Bytes with what they are recognised by (`digestOf`), worked out where they were read. */
export interface Digested {
  content: Buffer;
  sha256: string;
}

/** Keeps bytes, once however often they come. Part of the caller's transaction. */
export function storeFile(em: EntityManager, content: Buffer): Promise<StoredFile> {
  return storeDigested(em, { content, sha256: digestOf(content) });
}

/** The same for bytes whose digest is known. */
export async function storeDigested(em: EntityManager, { content, sha256 }: Digested): Promise<StoredFile> {
  const [known] = await query<{ id: number }>(em, "select id from files where sha256 = ? for share", [
    sha256,
  ]);
  if (known) return em.getReference(StoredFile, known.id);
  const id = await query<{ id: number }>(
    em,
    `insert into files (sha256, size, content) values (?, ?, ?)
     on conflict (sha256) do update set sha256 = excluded.sha256 returning id`,
    [sha256, content.byteLength, content],
  );
  return em.getReference(StoredFile, id[0]?.id ?? 0);
}
