import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { NotFound } from "../errors";
import { StoredFile } from "../db/entities/files";
import { digestOf } from "../digest";
import { t } from "../words";

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
  const known = await em.findOne(StoredFile, { sha256 }, { lockMode: LockMode.PESSIMISTIC_READ });
  if (known) return known;
  // Two that bring the same at once: the second waits here, and finds the first one’s.
  return em.upsert(
    StoredFile,
    { sha256, size: content.byteLength, content },
    { onConflictFields: ["sha256"], onConflictAction: "merge", onConflictMergeFields: ["sha256"] },
  );
}

/** The bytes of a file that may be read. @throws NotFound */
export async function contentOf(em: EntityManager, id: number): Promise<Buffer> {
  const file = await em.findOne(StoredFile, { id });
  const content = await file?.content.load();
  if (!content) throw new NotFound(t("thereIsNoSuchFile"));
  return Buffer.from(content);
}
