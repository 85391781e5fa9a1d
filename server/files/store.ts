import type { EntityManager } from "@mikro-orm/postgresql";
import { createHash } from "node:crypto";
import { StoredFile } from "../db/entities/cases";
import { NotFound } from "../errors";

/** Keeps bytes, once however often they come. Part of the caller's transaction. */
export async function storeFile(em: EntityManager, content: Buffer): Promise<StoredFile> {
  const sha256 = createHash("sha256").update(content).digest("hex");
  const id = await em.execute<{ id: number }[]>(
    `insert into files (sha256, size, content) values (?, ?, ?)
     on conflict (sha256) do update set sha256 = excluded.sha256 returning id`,
    [sha256, content.byteLength, content],
  );
  return em.getReference(StoredFile, id[0]?.id ?? 0);
}

/** The bytes of a file. @throws NotFound */
export async function fileContent(em: EntityManager, id: number): Promise<Buffer> {
  const rows = await em.execute<{ content: Buffer }[]>("select content from files where id = ?", [id]);
  const [row] = rows;
  if (!row) throw new NotFound("There is no such file");
  return row.content;
}
