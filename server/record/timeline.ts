import type { EntityManager } from "@mikro-orm/postgresql";
import type { CaseState } from "#core/words/case-states";
import type { CaseEvent } from "../db/entities/cases";
import { Case } from "../db/entities/cases";
import type { Message, MessageState } from "../db/entities/messages";
import { prepared } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { NotFound } from "../errors";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";
import { notesOf, type CaseNote } from "../notes/notes";
import { history, type HistoryEntry } from "../cases/history";
import { t } from "../words";

/** A reply that a letter was made of. */
interface UsedReply {
  title: string;
  /** Number of the version; null for a working copy, and where it is not known. */
  version: number | null;
}

/** A message in the history of its case. */
export interface TimelineMessage {
  message: number;
  at: string;
  direction: "in" | "out";
  channel: Message["channel"];
  kind: Message["kind"];
  state: MessageState;
  /** Who wrote it, or on whose behalf it went by itself: a colleague, or the name or address that it came from. */
  who: string;
  /** Its first words. */
  words: string;
  /** Replies that it was made of, openings and closings left out. */
  replies: UsedReply[];
}

/** What happened on a case, the oldest first: messages as they are, all else in words. Times are ISO 8601 instants. */
export type TimelineEntry = TimelineMessage | TimelineNote | HistoryEntry;

/** A note of colleagues. */
interface TimelineNote extends CaseNote {
  note: true;
}

/** A case with its whole history. */
export interface CaseRecord {
  number: number;
  label: string;
  subject: string;
  status: CaseState;
  topic: string | null;
  customer: { id: number; name: string };
  organisation: { id: number; name: string } | null;
  /** Who brings the customer’s words, and takes ours to them; null where they write by themselves. */
  forwarder: string | null;
  openedAt: string;
  updatedAt: string;
  entries: TimelineEntry[];
  /** Whether there are earlier messages than those that are told of. */
  more: boolean;
}

/** So many of the latest messages are told of. */
const MOST_MESSAGES = 200;

/** What is told by the message itself. */
const TOLD_BY_MESSAGES = new Set<CaseEvent["kind"]>([
  "opened",
  "received",
  "queued",
  "sent",
  "begun",
  "forwarded",
  "pressed",
]);

/** The history of a case. @throws NotFound */
export async function caseRecord(em: EntityManager, viewer: Viewer, number: number): Promise<CaseRecord> {
  const subject = await em.findOne(Case, { number }, { populate: ["customer.organisation", "forwarder"] });
  if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
  const { customer } = subject;
  const [rows, events, notes, { house }] = await Promise.all([
    prepared<TimelineMessage>(
      em,
      `select m.id as message, m.at, m.direction, m.channel, m.kind, m.state,
              coalesce(p.name, m.from_name, m.from_address) as who,
              left(regexp_replace(left(m.text, 400), '\\s+', ' ', 'g'), 160) as words,
              (select coalesce(jsonb_agg(jsonb_build_object('title', coalesce(v.title, r.title), 'version', v.number) order by lr.position), '[]')
                 from sent_letters l join letter_replies lr on lr.letter_id = l.id join replies r on r.id = lr.reply_id
                 left join reply_versions v on v.id = lr.version_id
                where l.message_id = m.id and r.part = 'answer') as replies
         from messages m left join people p on p.id = m.person_id
        where m.case_id = ? order by m.at desc, m.id desc limit ${MOST_MESSAGES + 1}`,
      [subject.id],
    ),
    history(em, subject, customer.displayName),
    notesOf(em, subject.id, viewer),
    settingsOf(em),
  ]);
  const messages = rows
    .slice(0, MOST_MESSAGES)
    .map((row) => ({ ...row, at: new Date(row.at).toISOString() }));
  const others = events.filter(({ kind }) => !TOLD_BY_MESSAGES.has(kind));
  return {
    number,
    label: caseNumber(house, number),
    subject: subject.subject,
    status: subject.status,
    topic: subject.topic ?? null,
    customer: { id: customer.id, name: customer.displayName },
    organisation: customer.organisation
      ? { id: customer.organisation.id, name: customer.organisation.name }
      : null,
    forwarder: subject.forwarder?.name ?? null,
    openedAt: subject.openedAt.toISOString(),
    updatedAt: subject.updatedAt.toISOString(),
    // What was set off by a message follows it.
    entries: [
      ...messages.reverse(),
      ...notes.map((note) => ({ note: true as const, ...note })),
      ...others.reverse(),
    ].sort((one, other) => one.at.localeCompare(other.at)),
    more: rows.length > MOST_MESSAGES,
  };
}
