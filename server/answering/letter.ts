import type { EntityManager } from "@mikro-orm/postgresql";
import { randomBytes } from "node:crypto";
import { addressee } from "#core/checks/addressee";
import type { SendCheck } from "#core/checks/check";
import { factsRead } from "#core/checks/facts-read";
import { secondLook } from "#core/checks/second-look";
import { compose, type ComposeInput } from "#core/compose/compose";
import type { Letter } from "#core/compose/letter";
import { proofOf, wordsOf, type ProofRun } from "#core/compose/proof";
import { re2Patterns } from "#core/conditions/re2";
import type { Doc } from "#core/document/types";
import { guessLanguage } from "#core/language/guess";
import { readIn } from "#core/language/written";
import { allCopies } from "#core/mail/copies";
import { quoteBelow } from "#core/mail/quote";
import { referencesFor } from "#core/mail/threading";
import { catalogue } from "#core/tokens/catalogue";
import { Attachment, LetterFact, SentLetter } from "../db/entities/answering";
import type { Case } from "../db/entities/cases";
import { StoredFile } from "../db/entities/files";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { caseNumber } from "../house/house";
import type { Settings } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { freshAsking, type Asking } from "../questions/asking";
import { sentReplies } from "./beside";
import { isGap, shelvedDocuments, storeChoice } from "./choice";
import { caseContext } from "./context";
import type { LoadedDraft } from "./draft";
import { otherNames } from "./names";
import { seenAs, surroundings, wayBack } from "./open";
import { familiarOn } from "./people";
import { domainOf, mailboxOf, senderOf } from "./sender";

/** What a letter is made of. */
export interface ToCompose {
  subject: Case;
  draft: LoadedDraft;
  settings: Settings;
}

export interface ComposedDraft {
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

/**
 * Composes a draft on a case as a letter of the viewer's, and looks at it once more before it is sent.
 * @param subject with customer, organisation, team, mailbox and forwarder populated
 */
export async function composeDraft(
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
  /** What it is beside a letter that somebody wrote. */
  kind?: "notice" | "automatic";
  dueAt: Date;
  now: Date;
}

/** Stores a letter that is to go, with where its words came from. It is on its case, and no delivery is queued yet. */
export async function storeLetter(em: EntityManager, viewer: Viewer, given: ToStore): Promise<Message> {
  const { subject, draft, settings, letter, checks, recipient, contentIds, team, whole, dueAt, now } = given;
  const { kind = "message" } = given;
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
  // A notice answers nothing.
  const { text, html } = letter;
  const going = kind === "notice" ? { text, html } : await quoted(em, subject, letter, settings);
  const message = em.create(Message, {
    case: subject,
    direction: "out",
    channel: subject.channel,
    kind,
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
    // What goes by itself is no choice of anybody's.
    gap: kind === "message" && isGap(draft.slips, draft.offers),
    createdAt: now,
  });
  storeFacts(em, sent, now);
  await storeChoice(em, sent, draft, shelved, now);
  await em.flush();
  return message;
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
