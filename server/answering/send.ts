import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { randomBytes } from "node:crypto";
import { z } from "zod";
import { isDeepStrictEqual } from "node:util";
import { addressee } from "#core/checks/addressee";
import { factsRead } from "#core/checks/facts-read";
import { secondLook, stopsSending } from "#core/checks/second-look";
import type { SendCheck } from "#core/checks/check";
import { readIn } from "#core/language/written";
import { compose, type ComposeInput } from "#core/compose/compose";
import type { Letter } from "#core/compose/letter";
import { proofOf, wordsOf, type ProofRun } from "#core/compose/proof";
import { re2Patterns } from "#core/conditions/re2";
import type { Doc } from "#core/document/types";
import { guessLanguage } from "#core/language/guess";
import { allCopies } from "#core/mail/copies";
import { quoteBelow } from "#core/mail/quote";
import { referencesFor } from "#core/mail/threading";
import { catalogue } from "#core/tokens/catalogue";
import { neighbours } from "../cases/waiting";
import { nextPiece, tellChat } from "../chats/pieces";
import { Chat } from "../db/entities/chats";
import { Attachment, Draft, LetterFact, SentLetter, Wait } from "../db/entities/answering";
import { CaseEvent, type Case } from "../db/entities/cases";
import { StoredFile } from "../db/entities/files";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { saidOn } from "../cases/said";
import { setStill } from "../cases/standing";
import { Conflict } from "../errors";
import { MOST_ID } from "#core/forms/fields";
import { idSchema } from "../edge";
import { notifyCase } from "../events/notify";
import { caseNumber } from "../house/house";
import { settingsOf, type Settings } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { freshAsking, keepAsked, type Asking } from "../questions/asking";
import { CALL_BACK_SECONDS, scheduleDelivery } from "../sending/schedule";
import { caseContext } from "./context";
import { loadDraft, type LoadedDraft } from "./draft";
import { otherNames } from "./names";
import { familiarOn } from "./people";
import { domainOf, mailboxOf, senderOf } from "./sender";
import { isGap, shelvedDocuments, storeChoice } from "./choice";
import { sentReplies } from "./beside";
import { caseByNumber, seenAs, surroundings, wayBack } from "./open";
import { t } from "../words";

export const sendSchema = z.strictObject({
  /** The version of the draft that the agent saw. */
  version: idSchema,
  /** The latest message that the agent saw. */
  lastMessage: z.number().int().min(0).max(MOST_ID),
  /** What the letter read, as the case was opened with it (see `seenAs`). */
  seen: z.string().max(100).optional(),
  /** What its words read of the house's own, as they were seen (see `factsRead`). */
  facts: z.record(z.string().max(160), z.unknown()).optional(),
});

export type Sent =
  | { ok: true; message: number; dueAt: string; next: number | null; to: string }
  | { ok: false; checks: SendCheck[] };

/**
 * Sends the viewer's draft on a case: composes it, looks twice, stores letter and message and queues the
 * delivery, all in one transaction. It is due after the time in which it can be called back.
 * @throws Conflict when the draft was changed or sent, or somebody else answered or the customer wrote meanwhile
 */
export async function send(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  input: z.infer<typeof sendSchema>,
  now: Date,
): Promise<Sent> {
  const { next, position } = await neighbours(em, viewer, number);
  return em.transactional(async (inner) => {
    const subject = await caseByNumber(inner, number);
    await inner.lock(subject, LockMode.PESSIMISTIC_WRITE);
    const draft = await loadDraft(inner, viewer, subject.id);
    if (!draft) throw new Conflict(t("thereIsNoDraftAnyMore"));
    if (draft.version !== input.version) throw new Conflict(t("thisDraftWasChangedInAnother"));
    // In a chat both may speak at once.
    if (subject.channel !== "chat") await refuseIfOvertaken(inner, subject, input.lastMessage);
    const settings = await settingsOf(inner);
    const { letter, checks, recipient, contentIds, team, seen, facts, asking, whole } = await composeDraft(
      inner,
      viewer,
      { subject, draft, settings },
      now,
    );
    const readsElse =
      (input.seen !== undefined && input.seen !== seen) ||
      (input.facts !== undefined && !isDeepStrictEqual(input.facts, facts));
    if (readsElse) throw new Conflict(t("whatTheLetterSaysOfThis"));
    if (stopsSending(checks) || recipient === null) return { ok: false as const, checks };
    const isPiece = subject.channel === "chat";
    const dueAt = isPiece ? now : new Date(now.getTime() + CALL_BACK_SECONDS * 1000);
    const wait = await waitOf(inner, subject, now);
    const message = await storeMessage(inner, viewer, {
      subject,
      draft,
      settings,
      letter,
      checks,
      recipient,
      contentIds,
      team,
      whole,
      dueAt,
      now,
    });
    if (wait) inner.create(Wait, { ...wait, message });
    keepAsked(inner, letter, asking, { subject, message, settings, now });
    setStill(subject, "waiting on the customer", now);
    subject.assignee = inner.getReference(Person, viewer.id);
    await inner.flush();
    await inner.nativeDelete(Draft, { case: subject, person: viewer.id });
    if (isPiece) await putPiece(inner, message, number, now);
    else await scheduleDelivery(inner, message.id, dueAt);
    await notifyCase(inner, number, "message");
    return {
      ok: true as const,
      message: message.id,
      dueAt: dueAt.toISOString(),
      next: position === null ? null : next,
      to: recipient,
    };
  });
}

/**
 * Puts a message into the chat of its case as the next piece: the window reads it from there.
 * @throws Conflict where the chat has ended
 */
async function putPiece(em: EntityManager, message: Message, number: number, now: Date): Promise<void> {
  const chat = await em.findOne(Chat, { case: message.case.id }, { orderBy: { id: "desc" } });
  if (!chat || chat.state === "ended") throw new Conflict(t("thisChatHasEnded"));
  const piece = await nextPiece(em, chat.id);
  Object.assign(chat, { pieces: piece, saidAt: now, waitingSince: null });
  Object.assign(message, { chat, piece, state: "sent", sentAt: now });
  await em.flush();
  await tellChat(em, chat, number, { what: "pieces", by: "us" });
}

/** Lets pass only who saw the latest message: two colleagues must not both answer the same one. */
async function refuseIfOvertaken(em: EntityManager, subject: Case, lastMessage: number): Promise<void> {
  const newer = await em.findOne(
    Message,
    { case: subject, id: { $gt: lastMessage }, state: { $ne: "called back" }, kind: { $ne: "forwarded" } },
    { orderBy: { id: "desc" }, populate: ["person"] },
  );
  if (!newer) return;
  throw new Conflict(
    newer.direction === "in"
      ? t("theCustomerWroteAgainMeanwhileRead")
      : t("personAnsweredThisCaseMeanwhileRead", { person: newer.person?.name ?? t("aColleague") }),
  );
}

/** What a letter is made of. */
interface ToCompose {
  subject: Case;
  draft: LoadedDraft;
  settings: Settings;
}

interface ComposedDraft {
  /** The name of the team that it comes from, in its language. */
  team: string;
  letter: Letter;
  checks: SendCheck[];
  recipient: string | null;
  /** Content-ID of each picture, by the id that documents use. */
  contentIds: Map<string, string>;
  /** What it read (see `seenAs`, `factsRead`). */
  seen: string;
  facts: Record<string, unknown>;
  /** The links of the questions that it may ask. */
  asking: Asking;
  /** What it was composed of. */
  whole: ComposeInput;
}

async function composeDraft(
  em: EntityManager,
  viewer: Viewer,
  { subject, draft, settings }: ToCompose,
  now: Date,
): Promise<ComposedDraft> {
  const gathered = await caseContext(em, viewer, subject, settings, now);
  const around = surroundings(settings, viewer, subject);
  const { house } = settings;
  const domain = domainOf(mailboxOf(subject));
  const contentIds = new Map<string, string>();
  const asking = freshAsking(settings, subject.channel);
  const whole = {
    slips: draft.slips,
    context: { ...gathered.context, ask: asking.ask },
    channel: subject.channel,
    language: draft.language,
    customerTimeZone: gathered.customerTimeZone,
    tokens: catalogue(gathered.own),
    patterns: re2Patterns,
    signature: around.signature,
    stationery: around.stationery,
    subject: draft.subject,
    threadSubject: subject.subject,
    startsThread: (await em.count(Message, { case: subject, state: { $ne: "called back" } })) === 0,
    forwarder: wayBack(subject),
    caseNumber: caseNumber(house, subject.number),
    attachments: draft.attachments,
    contentId(id: string) {
      const known = contentIds.get(id) ?? `${randomBytes(12).toString("hex")}@${domain}`;
      contentIds.set(id, known);
      return known;
    },
  };
  const letter = compose(whole);
  const { recipient, standing } = addressee(gathered.recipients, draft.to);
  const checks = secondLook({
    ...whole,
    letter,
    recipient,
    standing,
    strangers: await strangersIn(em, subject, draft, settings),
    otherNames: await otherNames(em, letter.text, subject.customer.id),
    sentReplies: await sentReplies(em, subject.id),
    languageOf: guessLanguage,
  });
  const named = settings.teams.get(subject.team.id);
  const team = named ? readIn(named, draft.language).text : subject.team.name;
  const seen = seenAs(gathered, around);
  const facts = factsRead(draft.slips, gathered.context);
  return { letter, checks, recipient, contentIds, team, seen, facts, asking, whole };
}

/** Whom a draft goes to besides and who is new on its case. */
async function strangersIn(
  em: EntityManager,
  subject: Case,
  { copies }: LoadedDraft,
  settings: Settings,
): Promise<string[]> {
  const asked = copies === null ? [] : allCopies(copies);
  if (asked.length === 0) return [];
  const familiar = new Set(await familiarOn(em, subject, settings));
  return asked.filter((address) => !familiar.has(address));
}

interface ToStore extends Omit<ComposedDraft, "seen" | "facts" | "asking">, ToCompose {
  recipient: string;
  dueAt: Date;
  now: Date;
}

async function storeMessage(em: EntityManager, viewer: Viewer, given: ToStore): Promise<Message> {
  const { subject, draft, settings, letter, checks, recipient, contentIds, team, whole, dueAt, now } = given;
  const answered = await em.findOne(
    Message,
    {
      case: subject,
      messageId: { $ne: null },
      state: { $nin: ["called back", "refused"] },
      kind: { $ne: "forwarded" },
    },
    { orderBy: { at: "desc", id: "desc" } },
  );
  const person = em.getReference(Person, viewer.id);
  const sender = await senderOf(em, subject, settings);
  const going = await quoted(em, subject, letter, settings);
  const message = em.create(Message, {
    case: subject,
    direction: "out",
    channel: subject.channel,
    state: "due",
    fromName: `${viewer.name}, ${team}`,
    fromAddress: sender.address,
    toAddress: recipient,
    copies: subject.channel === "email" ? draft.copies : null,
    subject: letter.subject,
    ...going,
    language: draft.language,
    messageId: sender.messageId,
    references: referencesFor(
      answered?.messageId ? { messageId: answered.messageId, references: answered.references } : null,
    ),
    person,
    at: now,
    dueAt,
  });
  for (const [position, file] of [...letter.attachments, ...letter.pictures].entries()) {
    em.create(Attachment, {
      message,
      file: em.getReference(StoredFile, Number(file.id)),
      name: file.name,
      contentType: file.contentType,
      contentId: letter.pictures.includes(file) ? (contentIds.get(file.id) ?? null) : null,
      position,
    });
  }
  const sentSlips = draft.slips.map(({ id, versionId, reply, language, document, values }) => ({
    uid: id,
    versionId,
    reply,
    language,
    document,
    values,
  }));
  const shelved = await shelvedDocuments(em, draft.slips, subject.channel);
  const sent = em.create(SentLetter, {
    message,
    case: subject,
    person,
    language: draft.language,
    subject: draft.subject,
    slips: sentSlips,
    trace: letter.trace,
    checks,
    proof: proofAgainst(shelved, letter, whole),
    gap: isGap(draft.slips, draft.offers),
    createdAt: now,
  });
  storeFacts(em, sent, now);
  await storeChoice(em, sent, draft, shelved, now);
  const titles = draft.slips
    .filter((slip) => slip.reply !== null && slip.part === "answer")
    .map((slip) => slip.title);
  em.create(CaseEvent, { case: subject, person, kind: "queued", data: { replies: titles }, at: now });
  await em.flush();
  return message;
}

/** Since when the customer waits for the answer that is sent now, and by when it is due; null where nobody waits. */
async function waitOf(em: EntityManager, subject: Case, now: Date) {
  if (subject.waitingSince == null) return null;
  const { answered } = await saidOn(em, subject.id);
  return {
    team: subject.team,
    channel: subject.channel,
    isFirst: !answered,
    since: subject.waitingSince,
    due: subject.answerBy ?? null,
    at: now,
  };
}

/** Where each word of a letter came from: compared with what the replies on the shelf read with the same values. */
function proofAgainst(shelved: ReadonlyMap<string, Doc>, letter: Letter, whole: ComposeInput): ProofRun[] {
  const untouched = compose({
    ...whole,
    slips: whole.slips.map((slip) => ({ ...slip, document: shelved.get(slip.id) ?? slip.document })),
  });
  return proofOf(
    letter,
    whole.slips.map(({ id, document }) => ({
      id,
      document,
      shelved: shelved.has(id) ? wordsOf(untouched, id) : null,
    })),
  );
}

/** Stores with a letter what it said of house facts. The caller flushes. */
function storeFacts(em: EntityManager, letter: SentLetter, at: Date): void {
  const said = new Map<string, { name: string; value: string }>();
  for (const { kind, name, value } of letter.trace)
    if (kind === "token" && name.startsWith("house.") && value !== null)
      said.set(`${name} ${value}`, { name, value });
  for (const one of said.values()) em.create(LetterFact, { letter, ...one, at });
}

/** A letter with what it answers beneath, where its mailbox has it so. */
async function quoted(
  em: EntityManager,
  subject: Case,
  { text, html }: Letter,
  { ofMailbox, house }: Settings,
): Promise<{ text: string; html: string | null }> {
  const mailbox = subject.mailbox?.id ?? null;
  // Who forwards lets nothing through that quotes them.
  const quotes =
    subject.channel === "email" &&
    subject.forwarder == null &&
    mailbox !== null &&
    ofMailbox.get(mailbox)?.quotes === true;
  const answered = quotes
    ? await em.findOne(Message, { case: subject, direction: "in" }, { orderBy: { at: "desc", id: "desc" } })
    : null;
  if (!answered) return { text, html };
  const day = new Intl.DateTimeFormat(subject.language ?? house.language, {
    dateStyle: "long",
    timeZone: house.timeZone,
  }).format(answered.at);
  const name = answered.fromName ?? answered.fromAddress;
  return quoteBelow({ text, html }, `${name}, ${day}:`, answered.text);
}
