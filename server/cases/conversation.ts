import type { EntityManager } from "@mikro-orm/postgresql";
import type { Copies } from "#core/mail/copies";
import type { MailPart } from "#core/mail/parts";
import { splitQuoted } from "#core/mail/quoting";
import { fileName, isProgram } from "#core/text/file-name";
import type { Case } from "../db/entities/cases";
import { Message, type Doubt, type MessageState } from "../db/entities/messages";
import { Attachment } from "../db/entities/answering";
import { NotFound } from "../errors";
import { contentOf } from "../files/store";
import { attachmentsOf } from "../sending/mime";
import { prepared } from "../db/sql";
import { t } from "../words";

/** A file of a message. */
interface MessageFile {
  id: number;
  name: string;
  contentType: string;
  size: number;
  /** Stands as a picture inside the HTML. */
  inline: boolean;
  /** A program, or what may hold one: asked about before it is fetched. */
  isProgram: boolean;
}

/** A message as a conversation shows it. Times are ISO 8601 instants. */
export interface ConversationMessage {
  id: number;
  direction: "in" | "out";
  state: MessageState;
  from: string;
  fromAddress: string;
  toAddress: string;
  /** From an address that is not known to be the customer’s. */
  stranger: boolean;
  /** Where its sender asks answers to go, where that is another address. */
  replyTo: string | null;
  doubts: Doubt[];
  kind: Message["kind"];
  /** Whom it went to besides; null for nobody. */
  copies: Copies | null;
  parts: MailPart[];
  /** Only the beginning of its words is here. */
  cut: boolean;
  subject: string;
  written: string;
  quoted: string;
  hasHtml: boolean;
  hasRaw: boolean;
  at: string;
  dueAt: string | null;
  refusal: string | null;
  attempts: number;
  /** When the other side said that it has arrived; null where nothing says so. */
  deliveredAt: string | null;
  files: MessageFile[];
  /** The standing answer that sent it, and what it answers; null for what did not go by one that is there still. */
  byRule: { id: number; name: string; message: number; should: boolean | null } | null;
}

/** So many of the latest messages are shown; each page of earlier ones has so many more. */
const RECENT = 20;
const A_PAGE = 50;
/** Most pages of earlier messages that are shown at once. */
export const MOST_PAGES = 20;
/** So much of a message's words is shown, in UTF-16 units; the raw message has all. */
const SHOWN = 100_000;

interface MessageRow {
  id: number;
  direction: "in" | "out";
  state: MessageState;
  from_name: string | null;
  from_address: string;
  to_address: string;
  reply_to: string | null;
  doubts: Doubt[] | null;
  kind: Message["kind"];
  copies: Copies | null;
  parts: MailPart[] | null;
  cut: boolean;
  subject: string;
  text: string;
  has_html: boolean;
  has_raw: boolean;
  at: string;
  due_at: string | null;
  refusal: string | null;
  attempts: number;
  delivered_at: string | null;
  known: boolean;
  /** How many messages the case has. */
  total: number;
  files: Omit<MessageFile, "isProgram">[];
  by_rule: ConversationMessage["byRule"];
}

/**
 * The conversation of a case, oldest first: its latest messages, and so many pages of earlier ones.
 * @returns with how many earlier ones there are
 */
export async function conversation(
  em: EntityManager,
  subject: Case,
  pages: number,
): Promise<{ messages: ConversationMessage[]; earlier: number }> {
  const rows = await prepared<MessageRow>(
    em,
    `select m.id, m.direction, m.state, m.from_name, m.from_address, m.to_address, m.reply_to, m.doubts, m.kind, m.copies, m.parts, m.cut or length(m.text) > ${SHOWN} as cut,
              m.subject, left(m.text, ${SHOWN}) as text, m.html is not null as has_html, m.raw_id is not null as has_raw,
              m.at, m.due_at, m.refusal, m.attempts, m.delivered_at,
              ? or exists (select 1 from customer_addresses a where a.customer_id = ? and a.address = m.from_address) as known,
              (select count(*)::int from messages where case_id = ? and state <> 'called back') as total,
              (select coalesce(jsonb_agg(jsonb_build_object('id', a.id, 'name', a.name, 'contentType', a.content_type, 'size', f.size,
                        'inline', a.content_id is not null) order by a.position, a.id), '[]')
                 from attachments a join files f on f.id = a.file_id where a.message_id = m.id) as files,
              case when m.direction = 'out' and m.kind = 'automatic' then (select jsonb_build_object('id', r.id, 'name', r.name, 'message', d.message_id, 'should', k.should)
                 from case_notices n join standing_done d on d.id = n.done_id join standing_rules r on r.id = d.rule_id
                 left join standing_marks k on k.rule_id = r.id and k.message_id = d.message_id where n.message_id = m.id limit 1) end as by_rule
         from messages m where m.case_id = ? and m.state <> 'called back' order by m.at desc, m.id desc limit ?`,
    // Who brings a buyer’s words is no stranger there.
    [
      subject.forwarder != null,
      subject.customer.id,
      subject.id,
      subject.id,
      RECENT + A_PAGE * Math.min(pages, MOST_PAGES),
    ],
  );
  const total = rows[0]?.total ?? 0;
  const messages = rows.reverse().map((row): ConversationMessage => {
    const { written, quoted } =
      row.direction === "in" ? splitQuoted(row.text) : { written: row.text, quoted: "" };
    return {
      id: row.id,
      direction: row.direction,
      state: row.state,
      from: row.from_name ?? row.from_address,
      fromAddress: row.from_address,
      toAddress: row.to_address,
      stranger: row.direction === "in" && !row.known,
      replyTo: subject.forwarder == null ? row.reply_to : null,
      doubts: row.doubts ?? [],
      kind: row.kind,
      copies: row.copies,
      parts: row.parts ?? [],
      cut: row.cut,
      subject: row.subject,
      written,
      quoted,
      hasHtml: row.has_html,
      hasRaw: row.has_raw,
      at: new Date(row.at).toISOString(),
      dueAt: row.due_at === null ? null : new Date(row.due_at).toISOString(),
      refusal: row.refusal,
      attempts: row.attempts,
      deliveredAt: row.delivered_at === null ? null : new Date(row.delivered_at).toISOString(),
      files: row.files.map((file) => ({
        ...file,
        name: fileName(file.name),
        isProgram: isProgram(file.name),
      })),
      byRule: row.by_rule,
    };
  });
  return { messages, earlier: total - messages.length };
}

/** The HTML of a message as it came. @throws NotFound */
export async function messageHtml(
  em: EntityManager,
  id: number,
): Promise<{ html: string; files: { contentId: string; id: number; size: number }[] }> {
  const message = await em.findOne(Message, { id });
  if (message?.html == null) throw new NotFound(t("thisMessageHasNoFormattedText"));
  const files = await attachmentsOf(em, [id]);
  return {
    html: message.html,
    files: files.flatMap((file) =>
      file.contentId == null ? [] : [{ contentId: file.contentId, id: file.id, size: file.file.size }],
    ),
  };
}

/** The raw message. @throws NotFound */
export async function messageRaw(em: EntityManager, id: number): Promise<{ content: Buffer; name: string }> {
  const message = await em.findOne(Message, { id }, { fields: ["raw", "case.number"] });
  if (!message?.raw) throw new NotFound(t("theRawMessageIsNotKept"));
  return { content: await contentOf(em, message.raw.id), name: `${message.case.number}-${id}.eml` };
}

/** A file of a message or of a draft of one's own. @throws NotFound */
export async function attachedFile(
  em: EntityManager,
  personId: number,
  id: number,
): Promise<{ content: Buffer; name: string; contentType: string }> {
  const attachment = await em.findOne(Attachment, {
    id,
    $or: [{ message: { $ne: null } }, { draft: { person: personId } }],
  });
  if (!attachment) throw new NotFound(t("thereIsNoSuchFile"));
  const { file, name, contentType } = attachment;
  return { content: await contentOf(em, file.id), name, contentType };
}
