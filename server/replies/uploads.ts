import type { EntityManager } from "@mikro-orm/postgresql";
import { FileUpload } from "../db/entities/library";
import { fileTypeFromBuffer } from "file-type";
import { MAX_ATTACHMENT_BYTES } from "#core/checks/second-look";
import type { AttachmentRef } from "#core/compose/slip";
import { isPicture } from "#core/text/file-name";
import { Unusable } from "../errors";
import { storeFile } from "../files/store";
import type { Viewer } from "../people/viewer";
import { t } from "../words";

/** What a browser hands over. */
export interface UploadedFile {
  name: string;
  type: string;
  content: Buffer;
}

/** A file's name without its path, and its kind by its bytes where they tell it. @throws Unusable */
async function readUpload(
  file: UploadedFile,
): Promise<{ name: string; contentType: string; content: Buffer }> {
  const name = file.name.replace(/^.*[\\/]/, "").slice(0, 200) || "file";
  if (file.content.byteLength === 0) throw new Unusable(t("nameIsEmpty", { name }));
  if (file.content.byteLength > MAX_ATTACHMENT_BYTES) throw new Unusable(t("nameIsLargerThan20Mb", { name }));
  const told = await fileTypeFromBuffer(file.content);
  // Pictures are told by their bytes; what only calls itself one is not shown as one.
  const claimed = file.type === "" || file.type.startsWith("image/") ? "application/octet-stream" : file.type;
  return { name, contentType: told?.mime ?? claimed, content: file.content };
}

/**
 * Keeps a file that somebody brings for a reply, a signature or stationery.
 * @param picture whether it is to stand in the words
 * @throws Unusable when it is empty, too large, or no picture where one is wanted
 */
export async function uploadFile(
  em: EntityManager,
  viewer: Viewer,
  upload: UploadedFile,
  picture: boolean,
): Promise<AttachmentRef> {
  const { name, contentType, content } = await readUpload(upload);
  if (picture && !isPicture(contentType)) throw new Unusable(t("nameIsNoPictureThatMail", { name }));
  return em.transactional(async (inner) => {
    const file = await storeFile(inner, content);
    await inner.upsert(
      FileUpload,
      { person: viewer.id, file: file.id, name, contentType },
      {
        onConflictFields: ["person", "file"],
        onConflictAction: "merge",
        onConflictMergeFields: ["name", "contentType"],
      },
    );
    return { id: String(file.id), name, contentType, size: content.byteLength };
  });
}
