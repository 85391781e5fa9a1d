import type { EntityManager } from "@mikro-orm/postgresql";
import { answerSubject } from "#core/mail/subject";
import { Case, CaseEvent } from "#server/db/entities/cases";
import { Message } from "#server/db/entities/messages";
import type { Customer } from "#server/db/entities/customers";
import { LetterReply, SentLetter, Wait } from "#server/db/entities/answering";
import { Reply, ReplyVariant, ReplyVersion } from "#server/db/entities/library";
import type { Person, Team } from "#server/db/entities/people";
import { queue } from "#server/queue/boss";
import type { Conversation } from "./schema";
import { find } from "./find";
import { query } from "#server/db/sql";

const HOUR = 3_600_000;
/** How long each message of a past conversation waits for the next. */
const STEP = 1.5 * HOUR;

interface Cast {
  teams: ReadonlyMap<string, Team>;
  people: Person[];
  customers: ReadonlyMap<string, { customer: Customer; email: string; phone: string | null }>;
  /** Our numbers, by team. */
  numbers: ReadonlyMap<Team, string>;
  now: Date;
}

const status = { waiting: "new", answered: "waiting on the customer", closed: "settled" } as const;

/** Makes the demo's cases with their whole conversations, oldest case first. */
export async function seedConversations(
  em: EntityManager,
  conversations: Conversation[],
  cast: Cast,
): Promise<void> {
  const versions = await em.find(ReplyVersion, { state: "published" }, { populate: ["reply"] });
  const variants = await em.find(ReplyVariant, { fallback: true });
  const byAge = [...conversations].sort((a, b) => b.hours_ago - a.hours_ago);
  const lookUps: Case[] = [];
  for (const [index, conversation] of byAge.entries()) {
    const subject = await seedCase(em, conversation, cast);
    seedMessages(em, conversation, subject, index, { ...cast, versions, variants });
    if (conversation.booking) lookUps.push(subject);
  }
  await em.flush();
  for (const subject of lookUps) await queue(em, "look-up", { case: subject.id });
}

async function seedCase(
  em: EntityManager,
  conversation: Conversation,
  { teams, customers, now }: Cast,
): Promise<Case> {
  const { customer } = find(customers, conversation.who, "customer");
  const team = find(teams, conversation.team, "team");
  const openedAt = new Date(now.getTime() - conversation.hours_ago * HOUR);
  const last = new Date(openedAt.getTime() + (conversation.messages.length - 1) * STEP);
  const waiting = conversation.status === "waiting";
  const [row] = await query<{ number: string }>(em, "select nextval('case_numbers') as number");
  return em.create(Case, {
    number: Number(row?.number),
    channel: conversation.channel,
    subject: conversation.subject,
    topic: conversation.topic,
    language: customer.language ?? null,
    status: status[conversation.status],
    customer,
    team,
    assignee: null,
    bookingReference: conversation.booking ?? null,
    details: {},
    openedAt,
    waitingSince: waiting ? last : null,
    answerBy: waiting ? new Date(last.getTime() + team.answerWithin * 60_000) : null,
    updatedAt: last,
  });
}

interface Shelves {
  versions: ReplyVersion[];
  variants: ReplyVariant[];
}

function seedMessages(
  em: EntityManager,
  conversation: Conversation,
  subject: Case,
  index: number,
  cast: Cast & Shelves,
): void {
  const { email, phone, customer } = find(cast.customers, conversation.who, "customer");
  const isShort = conversation.channel === "sms";
  const theirs = isShort ? phone : email;
  const ours = isShort ? cast.numbers.get(subject.team) : subject.team.mailbox;
  if (theirs === null || ours === undefined)
    throw new Error(`demo: ${conversation.who} or their team has no number for “${conversation.subject}”`);
  const staff = cast.people.filter((person) => person.team === subject.team);
  const person = staff[index % staff.length];
  let thread: string[] = [];
  for (const [turn, said] of conversation.messages.entries()) {
    const at = new Date(subject.openedAt.getTime() + turn * STEP);
    const messageId = isShort
      ? `sms-demo-${subject.number}-${turn}`
      : `<demo-${subject.number}-${turn}@${"them" in said ? "example.net" : "example.com"}>`;
    const shared = {
      case: subject,
      channel: conversation.channel,
      messageId,
      references: isShort ? [] : thread,
      at,
      html: null,
      raw: null,
    };
    if ("them" in said) {
      em.create(Message, {
        ...shared,
        direction: "in",
        state: "received",
        fromName: customer.displayName,
        fromAddress: theirs,
        toAddress: ours,
        subject: isShort ? "" : turn === 0 ? conversation.subject : `Re: ${conversation.subject}`,
        text: said.them,
        language: customer.language ?? "en",
        person: null,
      });
      em.create(CaseEvent, {
        case: subject,
        person: null,
        kind: turn === 0 ? "opened" : "received",
        data: {},
        at,
      });
    } else if (person) {
      const message = em.create(Message, {
        ...shared,
        direction: "out",
        state: "sent",
        fromName: `${person.name}, ${subject.team.name}`,
        fromAddress: ours,
        toAddress: theirs,
        deliveredAt: isShort ? at : null,
        subject: isShort ? "" : answerSubject(conversation.subject, `SF-${subject.number}`),
        text: said.us,
        language: customer.language ?? "en",
        person,
        dueAt: at,
        sentAt: at,
        attempts: 1,
      });
      subject.assignee = person;
      const asked = conversation.messages[turn - 1];
      if (asked && "them" in asked) {
        const since = new Date(at.getTime() - STEP);
        // Some had to be sooner, and were not.
        const within = subject.number % 11 === 0 ? STEP / 2 : subject.team.answerWithin * 60_000;
        const due = new Date(since.getTime() + within);
        const isFirst = conversation.messages.slice(0, turn).every((one) => "them" in one);
        em.create(Wait, {
          message,
          team: subject.team,
          channel: conversation.channel,
          isFirst,
          since,
          due,
          at,
        });
      }
      seedLetter(em, said.with, message, person, cast);
    }
    thread = [...thread, messageId];
  }
}

function seedLetter(
  em: EntityManager,
  keys: string[],
  message: Message,
  person: Person,
  { versions, variants }: Shelves,
): void {
  const used = keys.map((key) => {
    const version = versions.find((one) => one.reply.key === key);
    const variant = variants.find((one) => one.version === version);
    if (!version || !variant) throw new Error(`demo: there is no reply “${key}”`);
    return { version, variant };
  });
  const slips = used.map(({ version, variant }, index) => ({
    uid: `demo-${index}`,
    versionId: version.id,
    reply: version.reply.key,
    language: variant.language,
    document: variant.document,
    values: {},
  }));
  const letter = em.create(SentLetter, {
    message,
    case: message.case,
    person,
    language: message.language ?? "en",
    subject: { from: "thread" },
    slips,
    trace: [],
    checks: [],
    createdAt: message.at,
  });
  for (const [position, { version }] of used.entries())
    em.create(LetterReply, {
      letter,
      reply: em.getReference(Reply, version.reply.id),
      version,
      position,
      at: message.at,
    });
  const titles = used
    .filter(({ version }) => version.reply.part === "answer")
    .map(({ version }) => version.reply.title);
  em.create(CaseEvent, {
    case: message.case,
    person,
    kind: "queued",
    data: { replies: titles },
    at: message.at,
  });
  em.create(CaseEvent, { case: message.case, person: null, kind: "sent", data: {}, at: message.at });
}
