import type { EntityManager } from "@mikro-orm/postgresql";
import { createHash } from "node:crypto";
import { StoredFile } from "../db/entities/cases";
import { query } from "../db/sql";

/** By what bytes are recognised: SHA-256, in hexadecimal digits. */
export function digestOf(content: Buffer): string {
  return createHash("sha256").update(content).digest("hex");
}

/** Keeps bytes, once however often they come. Part of the caller's transaction. */
export async function storeFile(em: EntityManager, content: Buffer): Promise<StoredFile> {
  const sha256 = digestOf(content);
  const id = await query<{ id: number }>(
    em,
    `insert into files (sha256, size, content) values (?, ?, ?)
     on conflict (sha256) do update set sha256 = excluded.sha256 returning id`,
    [sha256, content.byteLength, content],
  );
  return em.getReference(StoredFile, id[0]?.id ?? 0);
}
