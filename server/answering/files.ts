import type { EntityManager } from "@mikro-orm/postgresql";
import { Attachment, type Draft } from "../db/entities/answering";
import { StoredFile } from "../db/entities/files";
import { FileUpload } from "../db/entities/library";
import { Unusable } from "../errors";
import type { Viewer } from "../people/viewer";
import { t } from "../words";

/** So many files may go with an answer. */
export const MOST_FILES = 100;

/**
 * Makes a draft's files those given, in their order. What is taken off stays the viewer's to put back.
 * @param ids of files that the viewer brought, or that the draft has already
 * @throws Unusable where one is neither
 */
export async function placeFiles(
  em: EntityManager,
  viewer: Viewer,
  draft: Draft,
  ids: number[],
): Promise<void> {
  const before = await em.find(Attachment, { draft }, { orderBy: { position: "asc", id: "asc" } });
  if (before.length === ids.length && before.every(({ file }, at) => file.id === ids[at])) return;
  const here = new Map(before.map(({ file, name, contentType }) => [file.id, { name, contentType }]));
  const brought = await em.find(FileUpload, { person: viewer.id, file: { $in: ids } });
  for (const { file, name, contentType } of brought)
    if (!here.has(file.id)) here.set(file.id, { name, contentType });
  const placed = ids.map((id) => ({ id, ...here.get(id) }));
  for (const { file, name, contentType } of before)
    if (!ids.includes(file.id))
      await em.upsert(
        FileUpload,
        { person: viewer.id, file: file.id, name, contentType },
        { onConflictFields: ["person", "file"], onConflictAction: "ignore" },
      );
  await em.nativeDelete(Attachment, { draft });
  for (const [position, { id, name, contentType }] of placed.entries()) {
    if (name === undefined || contentType === undefined) throw new Unusable(t("aFileOfThisAnswerIs"));
    em.create(Attachment, { draft, file: em.getReference(StoredFile, id), name, contentType, position });
  }
  await em.flush();
}
