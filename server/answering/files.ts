import type { EntityManager } from "@mikro-orm/postgresql";
import { fileTypeFromBuffer } from "file-type";
import { MAX_ATTACHMENT_BYTES } from "#core/checks/second-look";
import { Attachment, Draft } from "../db/entities/answering";
import { NotFound, Unusable } from "../errors";
import { storeFile } from "../files/store";
import type { Viewer } from "../people/viewer";

/** A file of a draft: its id in documents and letters, and that of the attachment itself. */
export interface DraftFile {
  id: string;
  attachmentId: number;
  name: string;
  contentType: string;
  size: number;
}

/**
 * Adds a file to the viewer's draft. Its kind is told by its bytes where they tell it, not by what the browser says.
 * @throws NotFound when there is no draft; Unusable when it is empty or too large
 */
export async function attachToDraft(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  file: { name: string; type: string; content: Buffer },
): Promise<DraftFile> {
  const name = file.name.replace(/^.*[\\/]/, "").slice(0, 200) || "file";
  if (file.content.byteLength === 0) throw new Unusable(`${name} is empty`);
  if (file.content.byteLength > MAX_ATTACHMENT_BYTES) throw new Unusable(`${name} is larger than 20 MB`);
  const told = await fileTypeFromBuffer(file.content);
  return em.transactional(async (inner) => {
    const draft = await inner.findOne(Draft, { case: { number }, person: viewer.id });
    if (!draft) throw new NotFound("There is no draft to attach it to");
    const contentType = told?.mime ?? (file.type || "application/octet-stream");
    const position = await inner.count(Attachment, { draft });
    const attachment = inner.create(Attachment, {
      draft,
      file: await storeFile(inner, file.content),
      name,
      contentType,
      position,
    });
    await inner.flush();
    return {
      id: String(attachment.file.id),
      attachmentId: attachment.id,
      name,
      contentType,
      size: file.content.byteLength,
    };
  });
}

/** Takes a file off the viewer's draft. @throws NotFound */
export async function detachFromDraft(
  em: EntityManager,
  viewer: Viewer,
  attachmentId: number,
): Promise<void> {
  const gone = await em.nativeDelete(Attachment, { id: attachmentId, draft: { person: viewer.id } });
  if (gone === 0) throw new NotFound("There is no such file on a draft of yours");
}
