import type { AsideKind, CaseState } from "#core/words/case-states";
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Recipient } from "#core/checks/addressee";
import type { ForwardedDetails, ForwarderWay } from "#core/mail/forwarded";
import type { Written } from "#core/language/written";
import type { Stationery as CoreStationery } from "#core/compose/stationery";
import { factsReadBy, steadyOf } from "#core/checks/facts-read";
import type { Doc } from "#core/document/types";
import type { Context } from "#core/tokens/context";
import { conversation, type ConversationMessage } from "../cases/conversation";
import { history, type HistoryEntry } from "../cases/history";
import { familiarOn } from "./people";
import { mailboxOf } from "./sender";
import { Case } from "../db/entities/cases";
import { NotFound } from "../errors";
import { caseNumber } from "../house/house";
import { settingsOf, type OwnTokens, type Settings } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { recentAnswer, recentLetters, type RecentAnswer } from "../ranking/recent-answer";
import { inquiriesOf } from "../ranking/inquiries";
import { inEveryLanguage } from "../strip/languages";
import { firstOffer, whatFits, type StripOffer, type StripReply } from "../strip/strip";
import { digestOf } from "../digest";
import { caseContext, type CaseContext } from "./context";
import { loadDraft, type LoadedDraft } from "./draft";
import { whyDue } from "../cases/due";
import { timeSpent, type TimeOf } from "../cases/time-spent";
import { noticesOf, type NoticeWaiting } from "../notices/of-case";
import { sourcesOf, type SourceAsked } from "../details/of-case";
import { promisesOf, type PromiseMade } from "../promises/of-case";
import { notesOf, type CaseNote } from "../notes/notes";
import { besideCase } from "./beside";
import type { Other } from "./presence";
import { t } from "../words";

/** How many replies the strip offers at once; the first of them come with the case, the others on the way there. */
export const STRIP_LENGTH = 60;
const FIRST_CARDS = 8;

/** All that Answering shows of a case. Times are ISO 8601 instants. */
export interface OpenCase {
  id: number;
  number: number;
  label: string;
  channel: string;
  subject: string;
  topic: string | null;
  tags: string[];
  status: Case["status"];
  /** What it is set aside as; null where it is not. */
  asideAs: AsideKind | null;
  /** Why somebody set its state. */
  stateReason: string | null;
  /** Whose it is; null for nobody’s. */
  assignee: { id: number; name: string } | null;
  /** The settled case that it goes on from. */
  follows: { number: number; label: string } | null;
  /** Why it is to be answered by when it is, a line each. */
  whyDue: string[];
  answerBy: string | null;
  waitingSince: string | null;
  customer: {
    id: number;
    name: string;
    language: string | null;
    since: string | null;
    phone: string | null;
    organisation: string | null;
    organisationId: number | null;
    organisationKind: string | null;
  };
  notes: CaseNote[];
  promises: PromiseMade[];
  /** What was done on it, as its customer may read it. */
  done: string | null;
  /** How long everybody was at it. */
  times: TimeOf[];
  /** What changes of it came to for its customer, and nobody has seen to. */
  notices: NoticeWaiting[];
  /** Their replies, in every language. */
  noticeReplies: StripReply[];
  bookingReference: string | null;
  /** What outside systems were asked for it. */
  sources: SourceAsked[];
  context: Context;
  own: OwnTokens;
  /** The usual address, and all that a letter may go to. */
  recipient: string | null;
  recipients: Recipient[];
  customerTimeZone: string | null;
  language: string;
  from: string;
  messages: ConversationMessage[];
  earlier: number;
  /** How many pages of earlier messages are shown. */
  pages: number;
  /** Id of the latest message; a letter that does not know it is not sent. */
  lastMessage: number;
  history: HistoryEntry[];
  earlierCases: { number: number; label: string; subject: string; status: CaseState; openedAt: string }[];
  others: Other[];
  draft: LoadedDraft | null;
  signature: Written<Doc> | null;
  stationery: CoreStationery | null;
  /** The team’s usual opening and closing, in every language that they are written in. */
  usual: { opening: StripReply[]; closing: StripReply[] };
  /** With how many replies the viewer may use here. */
  strip: StripOffer & { total: number };
  /** How a colleague answered much the same lately. */
  recentAnswer: RecentAnswer | null;
  sentReplies: string[];
  /** Addresses that are nothing new on the case, and those of ours among them. */
  familiar: string[];
  /** Who brought the message, and what they let pass on its way back; null where it came by itself. */
  forwarder: ForwarderWay | null;
  /** What of their form was read; null where it came by itself. */
  forwarded: ForwardedDetails | null;
  ours: string[];
  /** How many letters the viewer has sent on it: a new one is begun with each. */
  letters: number;
  /** Stands for all that a letter here reads beside its slips: a letter that was seen under another one is not sent. */
  seen: string;
}

/** Finds a case for letters: with customer, organisation and team. @throws NotFound */
export async function caseByNumber(em: EntityManager, number: number): Promise<Case> {
  const subject = await em.findOne(
    Case,
    { number },
    { populate: ["customer.organisation", "team", "mailbox", "forwarder"] },
  );
  if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
  return subject;
}

/** Opens a case for answering. @param pages how many pages of earlier messages to show */
export async function readOpenCase(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  pages: number,
  now: Date,
): Promise<OpenCase> {
  const [settings, subject] = await Promise.all([settingsOf(em), caseByNumber(em, number)]);
  const { customer, team } = subject;
  const surround = surroundings(settings, viewer, subject);
  const usually = usualOn(settings, subject);
  const [
    gathered,
    talk,
    draft,
    asked,
    past,
    beside,
    familiar,
    why,
    notes,
    promises,
    times,
    notices,
    sources,
    letters,
  ] = await Promise.all([
    caseContext(em, viewer, subject, settings, now),
    conversation(em, subject, pages),
    loadDraft(em, viewer, subject.id),
    inquiryOf(em, viewer, subject),
    history(em, subject, customer.displayName),
    besideCase(em, subject, viewer.id),
    subject.channel === "email" ? familiarOn(em, subject, settings) : [],
    whyDue(em, subject, now),
    notesOf(em, subject.id, viewer),
    promisesOf(em, { case: subject.id }),
    timeSpent(em, subject.id),
    noticesOf(em, subject.id),
    sourcesOf(em, subject, settings.sources, now),
    recentLetters(em, viewer, { id: subject.id, customerId: customer.id, topic: subject.topic ?? null }, now),
  ]);
  const language = draft?.language ?? gathered.language;
  const {
    beside: alsoWanted,
    total,
    ...strip
  } = await firstOffer(
    em,
    viewer,
    asked.fits,
    { inquiry: asked.inquiry, channel: subject.channel, language, limit: FIRST_CARDS },
    [...usually.map((one) => one.key), ...notices.map((one) => one.reply)],
  );
  const usual = await inEveryLanguage(em, alsoWanted, subject.channel);
  const usualOf = (part: "opening" | "closing") => {
    const key = usually.find((one) => one.part === part)?.key;
    return usual.filter((reply) => reply.key === key);
  };
  const [best] = strip.nothingFits ? [] : strip.replies;
  return {
    id: subject.id,
    number: subject.number,
    label: caseNumber(settings.house, subject.number),
    channel: subject.channel,
    subject: subject.subject,
    topic: subject.topic ?? null,
    tags: subject.tags,
    status: subject.status,
    asideAs: subject.asideAs ?? null,
    stateReason: subject.stateReason ?? null,
    assignee: subject.assignee == null ? null : { id: subject.assignee.id, name: beside.assignee ?? "" },
    follows:
      beside.follows === null
        ? null
        : { number: beside.follows, label: caseNumber(settings.house, beside.follows) },
    whyDue: why,
    notes,
    promises,
    done: subject.done ?? null,
    times,
    notices,
    noticeReplies: usual.filter(({ key }) => notices.some((one) => one.reply === key)),
    answerBy: subject.answerBy?.toISOString() ?? null,
    waitingSince: subject.waitingSince?.toISOString() ?? null,
    customer: {
      id: customer.id,
      name: customer.displayName,
      language: customer.language ?? null,
      since: customer.since ?? null,
      phone: customer.phone ?? null,
      organisation: customer.organisation?.name ?? null,
      organisationId: customer.organisation?.id ?? null,
      organisationKind: customer.organisation?.kind ?? null,
    },
    bookingReference: subject.bookingReference ?? null,
    sources,
    context: gathered.context,
    own: gathered.own,
    recipient: gathered.recipients.usual,
    recipients: gathered.recipients.all,
    customerTimeZone: gathered.customerTimeZone,
    language,
    from: `${viewer.name}, ${team.name} <${mailboxOf(subject)}>`,
    ...talk,
    pages,
    lastMessage: talk.messages.at(-1)?.id ?? 0,
    history: past,
    earlierCases: beside.earlier.map((one) => ({ ...one, label: caseNumber(settings.house, one.number) })),
    others: beside.others,
    draft,
    ...surround,
    usual: {
      opening: usualOf("opening"),
      closing: usualOf("closing"),
    },
    strip: { ...strip, total },
    recentAnswer:
      best?.fit == null
        ? null
        : await recentAnswer(em, viewer, letters, subject.channel, best.key, settings.house),
    sentReplies: beside.sentReplies,
    familiar,
    forwarder: wayBack(subject),
    forwarded: subject.forwarded ?? null,
    ours: [...settings.mailboxes],
    letters: beside.letters,
    seen: seenAs(gathered, surround),
  };
}

/** What a case asks, and what fits it. */
async function inquiryOf(em: EntityManager, viewer: Viewer, { number, channel }: Case) {
  const inquiry = (await inquiriesOf(em, [number])).get(number) ?? null;
  return { inquiry, fits: await whatFits(em, viewer, { inquiry, channel, limit: FIRST_CARDS }) };
}

/** The openings and closings that are usual on a case: its mailbox's own, else its team's. */
export function usualOn(settings: Settings, { team, channel, mailbox }: Case): Settings["usual"] {
  const ofTeam = settings.usual.filter((one) => one.team === team.id && one.channel === channel);
  const own = mailbox == null || channel !== "email" ? undefined : settings.ofMailbox.get(mailbox.id);
  if (!own) return ofTeam;
  return (["opening", "closing"] as const).flatMap((part) => {
    const key = own[part];
    return key === null ? ofTeam.filter((one) => one.part === part) : [{ team: team.id, channel, part, key }];
  });
}

/** What a letter stands on, as far as its surroundings go: a case, or a trial of one. */
interface Surrounded {
  team: { id: number };
  channel: Case["channel"];
  mailbox?: { id: number } | null | undefined;
  forwarder?: object | null | undefined;
}

/** Who brought the message of a case, and what they let pass. @param subject with its forwarder populated */
export function wayBack({ forwarder }: Case): ForwarderWay | null {
  return forwarder == null ? null : { name: forwarder.name, rules: forwarder.rules };
}

/** Signature and stationery of a letter by the viewer for a team: the team's imposed signature goes before their own. */
export function surroundings(
  { signatures, stationery, ofMailbox }: Settings,
  viewer: Viewer,
  { team, channel, mailbox, forwarder }: Surrounded,
): { signature: Written<Doc> | null; stationery: CoreStationery | null } {
  // Short words carry no block below them: who signs them does so by a closing.
  // And what goes back by somebody who forwards it may name neither address nor number of ours.
  if (channel !== "email" || forwarder != null) return { signature: null, stationery: null };
  const signature = signatures.ofTeam.get(team.id) ?? signatures.ofPerson.get(viewer.id) ?? null;
  const own = mailbox ? (ofMailbox.get(mailbox.id)?.stationery ?? null) : null;
  return { signature, stationery: own ?? stationery.get(team.id) ?? null };
}

/**
 * What a letter reads beside its slips, as a digest: it changes when any of that does. The clock does not count, nor what
 * the house knows and nothing of that reads: what is set or done meanwhile changes those letters alone that read it (`factsRead`).
 */
export function seenAs(
  { context, recipients, customerTimeZone }: CaseContext,
  around: ReturnType<typeof surroundings>,
): string {
  const { now: _now, house: _house, ask: _ask, written, case: ofCase, ...others } = context;
  const read = { ...others, case: steadyOf(ofCase) };
  const { signature, stationery } = around;
  const documents = [signature, stationery?.header, stationery?.footer].flatMap((one) =>
    one ? [one.text, ...Object.values(one.others)] : [],
  );
  const facts = factsReadBy(documents, context);
  const team = written["agent.team"];
  return digestOf(Buffer.from(JSON.stringify([read, team, facts, recipients, customerTimeZone, around])));
}
