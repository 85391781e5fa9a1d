import type { EntityManager } from "@mikro-orm/postgresql";
import { NotFound } from "../errors";
import type { Viewer } from "../people/viewer";
import { visibleVersions } from "./strip";
import { query } from "../db/sql";

/** A file of a reply, by its id in documents. @throws NotFound also when its reply is on no shelf of the viewer's */
export async function replyFile(
  em: EntityManager,
  viewer: Viewer,
  fileId: number,
): Promise<{ content: Buffer; name: string; contentType: string }> {
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
  const row = rows.find((one) => visible.has(one.version_id));
  if (!row) throw new NotFound("There is no such file");
  return { content: row.content, name: row.name, contentType: row.content_type };
}
