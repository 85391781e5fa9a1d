import type { EntityManager } from "@mikro-orm/postgresql";
import MailComposer from "nodemailer/lib/mail-composer";
import type MimeNode from "nodemailer/lib/mime-node";
import { flowed } from "#core/mail/flowed";
import { Attachment } from "../db/entities/answering";
import type { Message } from "../db/entities/messages";
import { query } from "../db/sql";

/**
 * Builds the message as it goes over the wire (RFC 5322, MIME): text and HTML as alternatives, pictures
 * related to the HTML by Content-ID, files attached. The same message always has the same Message-ID and date.
 */
export async function buildMime(em: EntityManager, message: Message): Promise<Buffer> {
  const files = await query<{
    name: string;
    content_type: string;
    content_id: string | null;
    content: Buffer;
  }>(
    em,
    `select a.name, a.content_type, a.content_id, f.content from attachments a join files f on f.id = a.file_id
      where a.message_id = ? order by a.position, a.id`,
    [message.id],
  );
  const composer = new MailComposer({
    from: { name: message.fromName ?? "", address: message.fromAddress },
    to: [message.toAddress, ...(message.copies?.to ?? [])],
    ...(message.copies && message.copies.cc.length > 0 ? { cc: message.copies.cc } : {}),
    // Who is copied unseen stands in the envelope alone.
    ...(message.copies?.replyTo == null ? {} : { replyTo: message.copies.replyTo }),
    subject: message.subject,
    messageId: message.messageId ?? "",
    date: message.dueAt ?? message.at,
    ...(message.references.length > 0
      ? { inReplyTo: message.references.at(-1) ?? "", references: message.references }
      : {}),
    // What a program writes by itself says so, and is answered by none (RFC 3834).
    ...(message.kind === "automatic" ? { headers: { "Auto-Submitted": "auto-replied" } } : {}),
    ...(message.kind === "notice" ? { headers: { "Auto-Submitted": "auto-generated" } } : {}),
    text: flowed(message.text),
    textEncoding: "quoted-printable",
    ...(message.html === null ? {} : { html: message.html }),
    attachments: files.map((file) => ({
      filename: file.name,
      contentType: file.content_type,
      content: file.content,
      ...(file.content_id === null ? {} : { cid: file.content_id, contentDisposition: "inline" as const }),
    })),
    // What is sent is what the letter says: nothing is fetched from files or addresses.
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  const root = composer.compile();
  markFlowed(root);
  return root.build();
}

/** Says of the plain text that its lines flow (RFC 3676); the composer has no option for it. */
function markFlowed(node: MimeNode): boolean {
  const kind: unknown = node.getHeader("content-type");
  if (typeof kind === "string" && kind.startsWith("text/plain") && !node.getHeader("content-disposition")) {
    node.setHeader("content-type", "text/plain; charset=utf-8; format=flowed");
    return true;
  }
  return node.childNodes.some(markFlowed);
}

/** The attachments of a message, for screens. */
export async function attachmentsOf(em: EntityManager, messageIds: number[]): Promise<Attachment[]> {
  return em.find(
    Attachment,
    { message: { $in: messageIds } },
    { orderBy: { position: "asc", id: "asc" }, populate: ["file"] },
  );
}
