import type { EntityManager } from "@mikro-orm/postgresql";
import { splitQuoted } from "#core/mail/quoting";
import type { Case } from "../db/entities/cases";
import { CaseEvent, Message, type Doubt, type MessageState } from "../db/entities/cases";
import { CustomerAddress } from "../db/entities/customers";
import { NotFound } from "../errors";
import { attachmentsOf } from "../sending/mime";
import { query } from "../db/sql";

/** A file of a message. */
interface MessageFile {
  id: number;
  name: string;
  contentType: string;
  size: number;
  /** Stands as a picture inside the HTML. */
  inline: boolean;
}

/** A message as a conversation shows it. Times are ISO 8601 instants. */
export interface ConversationMessage {
  id: number;
  direction: "in" | "out";
  state: MessageState;
  from: string;
  fromAddress: string;
  /** From an address that is not known to be the customer’s. */
  stranger: boolean;
  /** Where its sender asks answers to go, where that is another address. */
  replyTo: string | null;
  doubts: Doubt[];
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
  files: MessageFile[];
}

/** One thing that happened on a case, in words. */
export interface HistoryEntry {
  id: number;
  at: string;
  who: string | null;
  what: string;
}

const RECENT = 20;

/** The conversation of a case, oldest first: its latest messages, or all of them. */
export async function conversation(
  em: EntityManager,
  subject: Case,
  all: boolean,
): Promise<{ messages: ConversationMessage[]; earlier: number }> {
  const where = { case: subject, state: { $ne: "called back" as const } };
  const total = await em.count(Message, where);
  const found = await em.find(Message, where, {
    orderBy: { at: "desc", id: "desc" },
    ...(all ? {} : { limit: RECENT }),
  });
  const own = await em.find(CustomerAddress, { customer: subject.customer }, { fields: ["address"] });
  const known = new Set(own.map((one) => one.address));
  const files = await attachmentsOf(
    em,
    found.map((message) => message.id),
  );
  const messages = found.reverse().map((message): ConversationMessage => {
    const { written, quoted } =
      message.direction === "in" ? splitQuoted(message.text) : { written: message.text, quoted: "" };
    return {
      id: message.id,
      direction: message.direction,
      state: message.state,
      from: message.fromName ?? message.fromAddress,
      fromAddress: message.fromAddress,
      stranger: message.direction === "in" && !known.has(message.fromAddress),
      replyTo: message.replyTo ?? null,
      doubts: message.doubts ?? [],
      cut: message.cut,
      subject: message.subject,
      written,
      quoted,
      hasHtml: message.html != null,
      hasRaw: message.raw != null,
      at: message.at.toISOString(),
      dueAt: message.dueAt?.toISOString() ?? null,
      refusal: message.refusal ?? null,
      attempts: message.attempts,
      files: files
        .filter((file) => file.message?.id === message.id)
        .map((file) => ({
          id: file.id,
          name: file.name,
          contentType: file.contentType,
          size: file.file.size,
          inline: file.contentId != null,
        })),
    };
  });
  return { messages, earlier: total - messages.length };
}

const words: Record<CaseEvent["kind"], string> = {
  opened: "wrote and opened the case",
  received: "wrote again",
  queued: "sent an answer",
  "called back": "called the answer back",
  sent: "The answer was delivered",
  refused: "The answer was refused",
  "tried again": "tried to deliver again",
  "set aside": "set the case aside",
  reopened: "took the case up again",
  "address kept": "kept an address as the customer’s",
};

/** What happened on a case, latest first. */
export async function history(em: EntityManager, subject: Case, customer: string): Promise<HistoryEntry[]> {
  const events = await em.find(
    CaseEvent,
    { case: subject },
    { orderBy: { at: "desc", id: "desc" }, populate: ["person"], limit: 100 },
  );
  return events.map((event) => {
    const byCustomer = event.kind === "opened" || event.kind === "received";
    const detail =
      typeof event.data.words === "string" ? `: ${event.data.words}` : replies(event.data.replies);
    return {
      id: event.id,
      at: event.at.toISOString(),
      who: event.person?.name ?? (byCustomer ? customer : null),
      what: words[event.kind] + detail,
    };
  });
}

function replies(titles: unknown): string {
  return Array.isArray(titles) && titles.length > 0
    ? ` with ${titles.map((title) => `“${String(title)}”`).join(", ")}`
    : "";
}

/** The HTML of a message as it came. @throws NotFound */
export async function messageHtml(
  em: EntityManager,
  id: number,
): Promise<{ html: string; files: { contentId: string; id: number }[] }> {
  const message = await em.findOne(Message, { id });
  if (message?.html == null) throw new NotFound("This message has no formatted text");
  const files = await attachmentsOf(em, [id]);
  return {
    html: message.html,
    files: files.flatMap((file) =>
      file.contentId == null ? [] : [{ contentId: file.contentId, id: file.id }],
    ),
  };
}

/** The raw message. @throws NotFound */
export async function messageRaw(em: EntityManager, id: number): Promise<{ content: Buffer; name: string }> {
  const rows = await query<{ content: Buffer; number: number }>(
    em,
    "select f.content, c.number from messages m join files f on f.id = m.raw_id join cases c on c.id = m.case_id where m.id = ?",
    [id],
  );
  const [row] = rows;
  if (!row) throw new NotFound("The raw message is not kept");
  return { content: row.content, name: `${row.number}-${id}.eml` };
}

/** A file of a message or of a draft of one's own. @throws NotFound */
export async function attachedFile(
  em: EntityManager,
  personId: number,
  id: number,
): Promise<{ content: Buffer; name: string; contentType: string }> {
  const rows = await query<{ content: Buffer; name: string; content_type: string }>(
    em,
    `select f.content, a.name, a.content_type from attachments a join files f on f.id = a.file_id left join drafts d on d.id = a.draft_id
      where a.id = ? and (a.message_id is not null or d.person_id = ?)`,
    [id, personId],
  );
  const [row] = rows;
  if (!row) throw new NotFound("There is no such file");
  return { content: row.content, name: row.name, contentType: row.content_type };
}
