import type { EntityManager } from "@mikro-orm/postgresql";
import { Attachment, Draft } from "../db/entities/answering";
import { NotFound } from "../errors";
import { storeFile } from "../files/store";
import type { Viewer } from "../people/viewer";
import { readUpload, type UploadedFile } from "../replies/uploads";

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
  file: UploadedFile,
): Promise<DraftFile> {
  const { name, contentType, content } = await readUpload(file);
  return em.transactional(async (inner) => {
    const draft = await inner.findOne(Draft, { case: { number }, person: viewer.id });
    if (!draft) throw new NotFound("There is no draft to attach it to");
    const position = await inner.count(Attachment, { draft });
    const attachment = inner.create(Attachment, {
      draft,
      file: await storeFile(inner, content),
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
      size: content.byteLength,
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
