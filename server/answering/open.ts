import type { EntityManager } from "@mikro-orm/postgresql";
import type { Recipient } from "#core/checks/addressee";
import type { Stationery as CoreStationery } from "#core/compose/stationery";
import type { Doc } from "#core/document/types";
import type { Context } from "#core/tokens/context";
import { conversation, history, type ConversationMessage, type HistoryEntry } from "../cases/conversation";
import { SentLetter } from "../db/entities/answering";
import { Case } from "../db/entities/cases";
import { Signature, UsualReply } from "../db/entities/library";
import { Team } from "../db/entities/people";
import { NotFound } from "../errors";
import { query } from "../db/sql";
import { caseNumber, findHouse, type OwnTokens } from "../house";
import { stationeryOf } from "../house/stationery";
import type { Viewer } from "../people/viewer";
import { answeredLately, type AnsweredLately } from "../ranking/lately";
import { inquiriesOf } from "../ranking/inquiries";
import { countUsable } from "../replies/usable";
import { inEveryLanguage, stripReplies, type StripOffer, type StripReply } from "../replies/strip";
import { digestOf } from "../files/digest";
import { caseContext, type CaseContext } from "./context";
import { loadDraft, type LoadedDraft } from "./draft";
import { others, type Other } from "./presence";

/** How many replies the strip offers at once; the first of them come with the case, the others on the way there. */
export const STRIP_LENGTH = 60;
const FIRST_CARDS = 12;

/** All that Answering shows of a case. Times are ISO 8601 instants. */
export interface OpenCase {
  id: number;
  number: number;
  label: string;
  channel: string;
  subject: string;
  topic: string | null;
  status: Case["status"];
  answerBy: string | null;
  waitingSince: string | null;
  customer: {
    id: number;
    name: string;
    language: string | null;
    since: string | null;
    phone: string | null;
    organisation: string | null;
    organisationKind: string | null;
  };
  bookingReference: string | null;
  booking: { asked: boolean; problem: string | null };
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
  earlierCases: { number: number; label: string; subject: string; status: string; openedAt: string }[];
  others: Other[];
  draft: LoadedDraft | null;
  signature: Doc | null;
  stationery: CoreStationery | null;
  /** The team’s usual opening and closing, in every language that they are written in. */
  usual: { opening: StripReply[]; closing: StripReply[] };
  /** With how many replies the viewer may use here. */
  strip: StripOffer & { total: number };
  /** How a colleague answered much the same lately. */
  lately: AnsweredLately | null;
  sentReplies: string[];
  /** How many letters the viewer has sent on it: a new one is begun with each. */
  letters: number;
  /** Stands for all that a letter here reads beside its slips: a letter that was seen under another one is not sent. */
  seen: string;
}

/** Finds a case for letters: with customer, organisation and team. @throws NotFound */
export async function findCase(em: EntityManager, number: number): Promise<Case> {
  const subject = await em.findOne(Case, { number }, { populate: ["customer.organisation", "team"] });
  if (!subject) throw new NotFound(`There is no case ${number}`);
  return subject;
}

/** Opens a case for answering. @param pages how many pages of earlier messages to show */
export async function openCase(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  pages: number,
  now: Date,
): Promise<OpenCase> {
  const [house, subject] = await Promise.all([findHouse(em.fork()), findCase(em, number)]);
  const { customer, team } = subject;
  // Each with a unit of work of its own: they are read side by side.
  const [gathered, talk, draft, earlier, surround, inquiries, usually, past, around, sent, letters] =
    await Promise.all([
      caseContext(em.fork(), viewer, subject, now),
      conversation(em, subject, pages),
      loadDraft(em.fork(), viewer, subject.id),
      em
        .fork()
        .find(Case, { customer, id: { $ne: subject.id } }, { orderBy: { openedAt: "desc" }, limit: 5 }),
      surroundings(em.fork(), viewer, team.id),
      inquiriesOf(em, [number]),
      em.fork().find(UsualReply, { team, channel: subject.channel }, { populate: ["reply"] }),
      history(em.fork(), subject, customer.displayName),
      others(em, subject.id, viewer.id),
      sentReplies(em, subject.id),
      em.fork().count(SentLetter, {
        case: subject,
        person: viewer.id,
        message: { state: { $ne: "called back" } },
      }),
    ]);
  const language = draft?.language ?? gathered.language;
  const offered = { inquiry: inquiries.get(number) ?? null, channel: subject.channel, language };
  const usualKeys = usually.map((one) => one.reply.key);
  const [usual, strip, total] = await Promise.all([
    usualKeys.length === 0
      ? []
      : stripReplies(em, viewer, { ...offered, query: "", keys: usualKeys, limit: usualKeys.length }).then(
          ({ replies }) => inEveryLanguage(em.fork(), replies),
        ),
    stripReplies(em, viewer, { ...offered, query: "", limit: FIRST_CARDS }),
    countUsable(em, viewer, subject.channel),
  ]);
  const usualOf = (part: "opening" | "closing") => {
    const key = usually.find((one) => one.part === part)?.reply.key;
    return usual.filter((reply) => reply.key === key);
  };
  const [best] = strip.nothingFits ? [] : strip.replies;
  return {
    id: subject.id,
    number: subject.number,
    label: caseNumber(house, subject.number),
    channel: subject.channel,
    subject: subject.subject,
    topic: subject.topic ?? null,
    status: subject.status,
    answerBy: subject.answerBy?.toISOString() ?? null,
    waitingSince: subject.waitingSince?.toISOString() ?? null,
    customer: {
      id: customer.id,
      name: customer.displayName,
      language: customer.language ?? null,
      since: customer.since ?? null,
      phone: customer.phone ?? null,
      organisation: customer.organisation?.name ?? null,
      organisationKind: customer.organisation?.kind ?? null,
    },
    bookingReference: subject.bookingReference ?? null,
    booking: { asked: gathered.booking !== null, problem: gathered.booking?.problem ?? null },
    context: gathered.context,
    own: gathered.own,
    recipient: gathered.recipients.usual,
    recipients: gathered.recipients.all,
    customerTimeZone: gathered.customerTimeZone,
    language,
    from: `${viewer.name}, ${team.name} <${team.mailbox}>`,
    ...talk,
    pages,
    lastMessage: talk.messages.at(-1)?.id ?? 0,
    history: past,
    earlierCases: earlier.map((one) => ({
      number: one.number,
      label: caseNumber(house, one.number),
      subject: one.subject,
      status: one.status,
      openedAt: one.openedAt.toISOString(),
    })),
    others: around,
    draft,
    ...surround,
    usual: {
      opening: usualOf("opening"),
      closing: usualOf("closing"),
    },
    strip: { ...strip, total },
    lately:
      best?.fit == null
        ? null
        : await answeredLately(
            em,
            viewer,
            {
              id: subject.id,
              customerId: customer.id,
              topic: subject.topic ?? null,
              channel: subject.channel,
            },
            best.key,
            now,
          ),
    sentReplies: sent,
    letters,
    seen: seenAs(gathered, surround),
  };
}

/** Signature and stationery of a letter by the viewer for a team: the team's imposed signature goes before their own. */
export async function surroundings(
  em: EntityManager,
  viewer: Viewer,
  teamId: number,
): Promise<{ signature: Doc | null; stationery: CoreStationery | null }> {
  const imposed = await em.findOne(Signature, { team: em.getReference(Team, teamId) });
  const signature = imposed ?? (await em.findOne(Signature, { person: viewer.id }));
  return { signature: signature?.document ?? null, stationery: await stationeryOf(em, teamId) };
}

/** What a letter reads beside its slips, as a digest: it changes when any of that does. The clock does not count. */
export function seenAs(
  { context, own, recipients, customerTimeZone }: CaseContext,
  around: Awaited<ReturnType<typeof surroundings>>,
): string {
  const { now: _now, ...read } = context;
  return digestOf(Buffer.from(JSON.stringify([read, own, recipients, customerTimeZone, around])));
}

/** Keys of the replies that were sent on a case before. */
export async function sentReplies(em: EntityManager, caseId: number): Promise<string[]> {
  const rows = await query<{ key: string }>(
    em,
    `select distinct r.key from letter_replies u join sent_letters l on l.id = u.letter_id
       join messages m on m.id = l.message_id and m.state <> 'called back' join replies r on r.id = u.reply_id
      where l.case_id = ?`,
    [caseId],
  );
  return rows.map((row) => row.key);
}
