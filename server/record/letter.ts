import type { EntityManager } from "@mikro-orm/postgresql";
import type { SendCheck } from "#core/checks/check";
import type { TraceEntry } from "#core/compose/letter";
import type { ProofRun } from "#core/compose/proof";
import { compareTexts } from "#core/document/compare";
import { documentText } from "#core/document/walk";
import type { Copies } from "#core/mail/copies";
import type { FactType } from "#core/forms/house";
import type { Detail } from "#core/tokens/context";
import { fileName } from "#core/text/file-name";
import { accessParameters } from "../access/replies";
import { READABLE_REPLY } from "../db/access-rule";
import { SentLetter } from "../db/entities/answering";
import { Message } from "../db/entities/messages";
import { named, query } from "../db/sql";
import { NotFound } from "../errors";
import type { Viewer } from "../people/viewer";
import { attachmentsOf } from "../sending/mime";
import { t } from "../words";

/** A reply that a letter was made of, with the version that it had. */
export interface ProvenReply {
  slip: string;
  /** Null where it stands on nobody's shelf that the viewer sees. */
  key: string | null;
  title: string;
  part: "opening" | "answer" | "closing";
  language: string;
  /** Null where it is not known. */
  version: {
    id: number;
    number: number | null;
    publishedAt: string | null;
    publishedBy: string | null;
  } | null;
  /** Whether another version is on the shelf now. */
  changed: boolean;
  /** How many letters were made of that version. */
  letters: number;
  /** Share of its words that were written anew, from 0 to 1; null where that is not known. */
  rewritten: number | null;
}

/** A reply that the shelf offered for a letter, in its order. */
interface OfferedReply {
  title: string;
  fit: number | null;
  taken: boolean;
  sent: boolean;
}

/** What is known of how a letter came to be. */
export interface Proof {
  /** All words of its text, with where they came from; null for letters from before that was kept. */
  runs: ProofRun[] | null;
  /** Whether `runs` are found by comparing with the replies, values and all. */
  guessed: boolean;
  trace: TraceEntry[];
  replies: ProvenReply[];
  offers: OfferedReply[];
  /** Answered by hand where nothing on the shelf fitted. */
  gap: boolean;
  checks: SendCheck[];
}

/** A message as the record has it. Times are ISO 8601 instants. */
export interface RecordedMessage {
  id: number;
  direction: "in" | "out";
  channel: Message["channel"];
  kind: Message["kind"];
  state: Message["state"];
  /** The colleague who wrote it; null for a customer's. */
  by: string | null;
  fromName: string | null;
  fromAddress: string;
  toAddress: string;
  copies: Copies | null;
  subject: string;
  text: string;
  at: string;
  sentAt: string | null;
  deliveredAt: string | null;
  readAt: string | null;
  refusal: string | null;
  hasRaw: boolean;
  hasHtml: boolean;
  files: { id: number; name: string; size: number }[];
  proof: Proof | null;
}

/** A message of a case, with the proof of its words where we sent it. @throws NotFound */
export async function recordedMessage(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  id: number,
): Promise<RecordedMessage> {
  const message = await em.findOne(Message, { id, case: { number } }, { populate: ["person"] });
  if (!message) throw new NotFound(t("thisMessageIsNotOnThisCase"));
  const [files, letter] = await Promise.all([
    attachmentsOf(em, [id]),
    message.direction === "out" ? em.findOne(SentLetter, { message: id }) : null,
  ]);
  return {
    id,
    direction: message.direction,
    channel: message.channel,
    kind: message.kind,
    state: message.state,
    by: message.person?.name ?? null,
    fromName: message.fromName ?? null,
    fromAddress: message.fromAddress,
    toAddress: message.toAddress,
    copies: message.copies ?? null,
    subject: message.subject,
    text: message.text,
    at: message.at.toISOString(),
    sentAt: message.sentAt?.toISOString() ?? null,
    deliveredAt: message.deliveredAt?.toISOString() ?? null,
    readAt: message.readAt?.toISOString() ?? null,
    refusal: message.refusal ?? null,
    hasRaw: message.raw != null,
    hasHtml: message.html != null,
    files: files.map((file) => ({ id: file.id, name: fileName(file.name), size: file.file.size })),
    proof: letter && (await proofOfLetter(em, viewer, letter, message)),
  };
}

async function proofOfLetter(
  em: EntityManager,
  viewer: Viewer,
  letter: SentLetter,
  message: Message,
): Promise<Proof> {
  const [replies, offers] = await Promise.all([
    repliesOf(em, viewer, letter.id),
    query<OfferedReply>(
      em,
      `select coalesce(v.title, r.title) as title, o.fit, o.taken, o.sent from letter_offers o join replies r on r.id = o.reply_id
         left join reply_versions v on v.id = o.version_id where o.letter_id = ? order by o.position, o.id limit 5`,
      [letter.id],
    ),
  ]);
  const kept = letter.proof ?? null;
  return {
    runs: kept ?? guessed(letter, message.text),
    guessed: kept === null,
    trace: letter.trace,
    replies: replies.map(({ position, ...reply }) => ({
      ...reply,
      slip: letter.slips[position]?.uid ?? "",
      language: letter.slips[position]?.language ?? letter.language,
    })),
    offers,
    gap: letter.gap,
    checks: letter.checks,
  };
}

/** Where words came from of which nothing is kept but the replies: what is in them, and what is not. */
function guessed({ slips }: SentLetter, text: string): ProofRun[] {
  const shelved = slips.map((slip) => documentText(slip.document)).join("\n\n");
  return compareTexts(shelved, text).flatMap(({ kind, text: words }): ProofRun[] =>
    kind === "removed" ? [] : [{ text: words, from: kind === "same" ? "reply" : "hand", slip: null }],
  );
}

async function repliesOf(
  em: EntityManager,
  viewer: Viewer,
  letter: number,
): Promise<(Omit<ProvenReply, "slip" | "language"> & { position: number })[]> {
  const rows = await query<
    Omit<ProvenReply, "slip" | "language" | "version"> & {
      position: number;
      version: number | null;
      number: number | null;
      published_at: string | null;
      published_by: string | null;
    }
  >(
    em,
    ...named(
      `select lr.position, case when ${READABLE_REPLY} then r.key end as key, coalesce(v.title, r.title) as title, r.part, lr.rewritten,
              v.id as version, v.number, v.decided_at as published_at, d.name as published_by,
              coalesce(r.current_version_id <> v.id, false) as changed,
              (select count(*)::int from letter_replies x where x.version_id = v.id) as letters
         from letter_replies lr join replies r on r.id = lr.reply_id join shelves s on s.id = r.shelf_id
         left join reply_versions v on v.id = lr.version_id left join people d on d.id = v.decided_by_id
        where lr.letter_id = :letter order by lr.position`,
      { ...accessParameters(viewer), letter },
    ),
  );
  return rows.map(({ version, number, published_at: at, published_by: publishedBy, ...row }) => ({
    ...row,
    version:
      version === null
        ? null
        : { id: version, number, publishedAt: at === null ? null : new Date(at).toISOString(), publishedBy },
  }));
}

/** A value that a house fact had when a letter was composed, and the one before it. */
interface FactThen {
  label: string;
  type: FactType;
  by: string | null;
  from: string;
  /** Null where there was none before. */
  before: { value: Detail; by: string | null; from: string } | null;
}

/** What other letters said instead of a value. */
interface ToldOtherwise {
  case: number;
  message: number;
  who: string | null;
  customer: string;
  value: string;
  at: string;
}

/** What is known of a house fact's value in a letter. */
export interface FactProof {
  then: FactThen | null;
  otherwise: ToldOtherwise[];
}

/** So many days before and after a letter others are looked at. */
const NEAR_DAYS = 30;

/**
 * Where the value of a house fact in a letter came from: who set it, what it was before, and what other letters of the weeks
 * around it said instead, the nearest first.
 * @param name the token's, as in `house.fee`
 */
export async function factProof(
  em: EntityManager,
  messageId: number,
  { name, value }: { name: string; value: string },
): Promise<FactProof> {
  const letter = await em.findOne(SentLetter, { message: messageId }, { fields: ["createdAt"] });
  if (!letter) return { then: null, otherwise: [] };
  const at = letter.createdAt;
  const [values, otherwise] = await Promise.all([
    query<{ label: string; type: FactType; value: Detail; by: string | null; from: string }>(
      em,
      `select f.label, f.type, v.value, p.name as by, v.valid_from as from from house_facts f join house_fact_values v on v.fact_id = f.id
         left join people p on p.id = v.person_id
        where f.key = ? and v.valid_from <= ? order by v.valid_from desc limit 2`,
      [name.replace(/^house\./, ""), at],
    ),
    query<ToldOtherwise>(
      em,
      `select c.number as case, l.message_id as message, p.name as who, cu.display_name as customer, f.value, f.at
         from letter_facts f join sent_letters l on l.id = f.letter_id join cases c on c.id = l.case_id
         join customers cu on cu.id = c.customer_id left join people p on p.id = l.person_id
        where f.name = ? and f.value <> ? and l.language = (select language from sent_letters where message_id = ?)
          and f.at between ?::timestamptz - interval '${NEAR_DAYS} days' and ?::timestamptz + interval '${NEAR_DAYS} days'
        order by abs(extract(epoch from f.at - ?::timestamptz)) limit 3`,
      [name, value, messageId, at, at, at],
    ),
  ]);
  const [then, before] = values;
  const day = (text: string) => new Date(text).toISOString();
  return {
    then: then
      ? {
          label: then.label,
          type: then.type,
          by: then.by,
          from: day(then.from),
          before: before ? { value: before.value, by: before.by, from: day(before.from) } : null,
        }
      : null,
    otherwise: otherwise.map((one) => ({ ...one, at: day(one.at) })),
  };
}
