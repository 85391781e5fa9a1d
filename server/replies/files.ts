import type { EntityManager } from "@mikro-orm/postgresql";
import { NotFound } from "../errors";
import type { Viewer } from "../people/viewer";
import { visibleVersions } from "./access";
import { query } from "../db/sql";

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
  const rows = await query<{ version_id: number; name: string; content_type: string; content: Buffer }>(
    em,
    `select a.version_id, a.name, a.content_type, f.content from reply_attachments a join files f on f.id = a.file_id where a.file_id = ?`,
    [fileId],
  );
  const visible = await visibleVersions(
    em,
    viewer,
    rows.map((row) => row.version_id),
  );
  const row = rows.find((one) => visible.has(one.version_id)) ?? (await ownFile(em, viewer, fileId));
  if (!row) throw new NotFound("There is no such file");
  return { content: row.content, name: row.name, contentType: row.content_type };
}

async function ownFile(
  em: EntityManager,
  viewer: Viewer,
  fileId: number,
): Promise<{ name: string; content_type: string; content: Buffer } | undefined> {
  const [row] = await query<{ name: string; content_type: string; content: Buffer }>(
    em,
    `select u.name, u.content_type, f.content from file_uploads u join files f on f.id = u.file_id where u.file_id = ? and u.person_id = ?
     union all
     select 'logo', coalesce(p.logo_type, 'image/png'), f.content from stationery p join files f on f.id = p.logo_id where p.logo_id = ?
     limit 1`,
    [fileId, viewer.id, fileId],
  );
  return row;
}
