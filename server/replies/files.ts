import type { EntityManager } from "@mikro-orm/postgresql";
import { NotFound } from "../errors";
import type { Viewer } from "../people/viewer";
import { visibleVersions } from "./access";
import { query } from "../db/sql";

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
 * A file of a reply, by its id in documents; also one that the viewer brought for writing, and a logo.
 * @throws NotFound also when its reply is on no shelf of the viewer's
 */
export async function replyFile(em: EntityManager, viewer: Viewer, fileId: number): Promise<FoundFile> {
  // Its bytes are read once it is known that they may be.
  const rows = await query<{ version_id: number; name: string; content_type: string }>(
    em,
    "select version_id, name, content_type from reply_attachments where file_id = ?",
    [fileId],
  );
  const visible = await visibleVersions(
    em,
    viewer,
    rows.map((row) => row.version_id),
  );
  const row = rows.find((one) => visible.has(one.version_id)) ?? (await ownFile(em, viewer, fileId));
  const [file] = row
    ? await query<{ content: Buffer }>(em, "select content from files where id = ?", [fileId])
    : [];
  if (!row || !file) throw new NotFound("There is no such file");
  return { content: file.content, name: row.name, contentType: row.content_type };
}

async function ownFile(
  em: EntityManager,
  viewer: Viewer,
  fileId: number,
): Promise<{ name: string; content_type: string } | undefined> {
  const [row] = await query<{ name: string; content_type: string }>(
    em,
    `select name, content_type from file_uploads where file_id = ? and person_id = ?
     union all
     select 'logo', coalesce(logo_type, 'image/png') from stationery where logo_id = ?
     limit 1`,
    [fileId, viewer.id, fileId],
  );
  return row;
}
