import type { EntityManager } from "@mikro-orm/postgresql";
import { Attachment } from "../db/entities/answering";
import { FileUpload, ReplyAttachment, Stationery } from "../db/entities/library";
import { contentOf } from "../files/store";
import { NotFound } from "../errors";
import type { Viewer } from "../people/viewer";
import { visibleVersions } from "../access/replies";
import { t } from "../words";

/** The files of a version `v`, in their order, as documents name them. */
export const FILES_OF_VERSION = `(select coalesce(jsonb_agg(jsonb_build_object('id', a.file_id::text, 'name', a.name,
    'contentType', a.content_type, 'size', f.size) order by a.position), '[]')
   from reply_attachments a join files f on f.id = a.file_id where a.version_id = v.id)`;

interface FoundFile {
  content: Buffer;
  name: string;
  contentType: string;
}

/**
 * A file of a reply, by its id in documents; also one that the viewer brought or has on an answer under way, and a logo.
 * @throws NotFound also when its reply is on no shelf of the viewer's
 */
export async function replyFile(em: EntityManager, viewer: Viewer, fileId: number): Promise<FoundFile> {
  // Its bytes are read once it is known that they may be.
  const known = await em.find(ReplyAttachment, { file: fileId });
  const visible = await visibleVersions(
    em,
    viewer,
    known.map(({ version }) => version.id),
  );
  const found = known.find(({ version }) => visible.has(version.id)) ?? (await ownFile(em, viewer, fileId));
  if (!found) throw new NotFound(t("thereIsNoSuchFile"));
  return { content: await contentOf(em, fileId), name: found.name, contentType: found.contentType };
}

async function ownFile(
  em: EntityManager,
  viewer: Viewer,
  fileId: number,
): Promise<{ name: string; contentType: string } | null> {
  const upload = await em.findOne(FileUpload, { file: fileId, person: viewer.id });
  if (upload) return upload;
  // An answer under way may have come from a colleague, with files that they brought.
  const onDraft = await em.findOne(Attachment, { file: fileId, draft: { person: viewer.id } });
  if (onDraft) return onDraft;
  const stationery = await em.findOne(Stationery, { logo: fileId });
  return stationery && { name: "logo", contentType: stationery.logoType ?? "image/png" };
}
