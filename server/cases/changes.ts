import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { isDeepStrictEqual } from "node:util";
import { z } from "zod";
import { Draft } from "../db/entities/answering";
import { Case, CaseEvent } from "../db/entities/cases";
import { CaseChange, type CaseStanding } from "../db/entities/changes";
import { Chat } from "../db/entities/chats";
import { Customer } from "../db/entities/customers";
import { Message } from "../db/entities/messages";
import { Person, Team } from "../db/entities/people";
import { query } from "../db/sql";
import { idSchema } from "../edge";
import { Conflict, NotFound, Unusable } from "../errors";
import { notifyCase } from "../events/notify";
import { settingsOf } from "../house/settings";
import { noticeOn, withdrawNotices, type ChangeSeen, type Noticed } from "../notices/on-change";
import type { Viewer } from "../people/viewer";
import { customerOf, noteBooking, openCase } from "../receiving/arrival";
import { locked, record, standing, type Changed, type Given } from "./recorded";
import { restate, setState, setStill } from "./standing";
import {
  assign,
  assignSchema,
  bringInto,
  forgetJunk,
  learnJunk,
  setTopic,
  stateSchema,
  topicSchema,
} from "./states";
import { withoutRules } from "../standing/effects";
import { withdrawChanges } from "../standing/withdraw";
import { setTags, tagsSchema } from "./tags";
import { t } from "../words";

/** What an agent sets right about how a case stands, which is whose, and what is on it: each change is on the record, and can be undone. */
export const changeSchema = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("join"), other: idSchema }),
  z.strictObject({ what: z.literal("split"), message: idSchema }),
  z.strictObject({ what: z.literal("move message"), message: idSchema, to: idSchema }),
  z.strictObject({ what: z.literal("move"), address: z.email().max(254) }),
  stateSchema,
  assignSchema,
  topicSchema,
  tagsSchema,
]);
export type Change = z.input<typeof changeSchema>;

/**
 * Makes a change from a case; its customer is told of it where a notice is for that.
 * @param number the case that is looked at
 * @throws NotFound; Unusable where it would change nothing; Conflict where a letter is leaving or a chat goes on
 */
export async function changeCase(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  change: z.output<typeof changeSchema>,
  now: Date,
): Promise<Changed & { notice: Noticed | null }> {
  return em.transactional(async (inner) => {
    const changed = await make({ em: inner, viewer, number, now }, change);
    const seen = seenBy(change);
    if (seen === null) return { ...changed, notice: null };
    const subject = await inner.findOneOrFail(Case, { number: changed.number });
    const notice = await noticeOn(inner, viewer, subject, { ...seen, change: changed.change }, now);
    return { ...changed, notice };
  });
}

function make(given: Given, change: z.output<typeof changeSchema>): Promise<Changed> {
  switch (change.what) {
    case "join":
      return join(given, change.other);
    case "split":
      return split(given, change.message);
    case "move message":
      return moveMessage(given, change.message, change.to);
    case "move":
      return move(given, change.address.toLowerCase());
    case "state":
      return bringInto(given, change);
    case "assign":
      return assign(given, change);
    case "topic":
      return setTopic(given, change.topic);
    case "tags":
      return setTags(given, change.tags);
  }
}

/** What of a change its customer may be told; null for what is none of theirs. */
function seenBy(change: z.output<typeof changeSchema>): Pick<ChangeSeen, "on" | "into"> | null {
  if (change.what === "state") return { on: "state", into: change.state };
  if (change.what === "topic") return { on: "topic", into: change.topic };
  const isSomebodys = change.what === "assign" && (change.to !== null || change.team !== null);
  return isSomebodys ? { on: "owner", into: null } : null;
}

/** Another case's messages come to this one; the other is closed, and leads here. */
async function join(given: Given, other: number): Promise<Changed> {
  const { em, number, now } = given;
  if (other === number) throw new Unusable(t("aCaseIsNotJoinedToItself"), "other");
  const [to, from] = await locked(em, [number, other]);
  await refuseWhileLeaving(em, from);
  const messages = await messagesOf(em, from);
  const before = [standing(to), standing(from)];
  await carry(em, messages, to.id);
  await carryDrafts(em, from.id, to.id);
  await restate(em, to, now);
  setStill(from, "settled", now);
  from.joinedTo = to;
  return record(given, { kind: "joined", from, to, messages, before }, (labels) =>
    t("joinedOtherToLabel", labels),
  );
}

/** From one message on, the words are a case of their own, of the same customer. */
async function split(given: Given, messageId: number): Promise<Changed> {
  const { em, number, now } = given;
  const [from] = await locked(em, [number]);
  await refuseWhileLeaving(em, from);
  const all = await messagesOf(em, from);
  const at = all.indexOf(messageId);
  if (at < 0) throw new NotFound(t("thisMessageIsNotOnThisCase"));
  if (at === 0) throw new Unusable(t("thisIsTheFirstMessageThe"), "message");
  const messages = all.slice(at);
  const before = [standing(from)];
  const to = await caseOf(given, from, messages);
  await carry(em, messages, to.id);
  await restate(em, from, now);
  await restate(em, to, now);
  return record(given, { kind: "split", from, to, messages, before }, (labels) =>
    t("madeACaseOfItsOwn", { count: messages.length, ...labels }),
  );
}

/** One message goes to another case. */
async function moveMessage(given: Given, messageId: number, other: number): Promise<Changed> {
  const { em, number, now } = given;
  if (other === number) throw new Unusable(t("theMessageIsOnThisCaseAlready"), "to");
  const [from, to] = await locked(em, [number, other]);
  await refuseWhileLeaving(em, from);
  const all = await messagesOf(em, from);
  if (!all.includes(messageId)) throw new NotFound(t("thisMessageIsNotOnThisCase"));
  if (all.length === 1) throw new Unusable(t("thisIsTheOnlyMessageJoin"), "message");
  const messages = [messageId];
  const before = [standing(from), standing(to)];
  await carry(em, messages, to.id);
  await restate(em, from, now);
  await restate(em, to, now);
  return record(given, { kind: "message moved", from, to, messages, before }, (labels) =>
    t("movedAMessageFromTo", labels),
  );
}

/** The case is another customer's, by an address of theirs; whom nobody knew becomes a customer by it. */
async function move(given: Given, address: string): Promise<Changed> {
  const { em, number, now } = given;
  const [subject] = await locked(em, [number]);
  if ((await settingsOf(em)).mailboxes.has(address))
    throw new Unusable(t("addressIsAMailboxOfOurs", { address }), "address");
  const newcomer = { displayName: address, language: subject.language ?? null };
  const customer = await customerOf(em, { channel: "email", address }, newcomer);
  const names = { from: subject.customer.displayName, name: customer.displayName };
  if (customer.id === subject.customer.id) throw new Unusable(t("theCaseIsTheirsAlready", names), "address");
  const before = [standing(subject)];
  Object.assign(subject, { customer, updatedAt: now });
  return record(given, { kind: "moved", from: subject, to: subject, messages: [], before }, () =>
    t("movedTheCaseFromTo", names),
  );
}

/**
 * Undoes a change: what went elsewhere comes back, and the cases stand as they did, unless something happened on them
 * since; then they stand as their messages say.
 * @returns the case to look at
 * @throws NotFound; Conflict where it was undone already, or was changed again since
 */
export async function undoChange(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  now: Date,
): Promise<{ number: number }> {
  return em.transactional(async (inner) => {
    const change = await inner.findOne(CaseChange, { id }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (!change) throw new NotFound(t("thereIsNoSuchChange"));
    if (change.undoneAt !== null) throw new Conflict(t("thatWasUndoneAlready"));
    // What is undone asks no rules anew.
    await withoutRules(inner);
    const { messages, from, to, before, after } = change.data;
    const cases = await inner.find(
      Case,
      { id: { $in: [...new Set([from, to])] } },
      { lockMode: LockMode.PESSIMISTIC_WRITE, populate: ["customer"], orderBy: { id: "asc" } },
    );
    const isOfWords = !["state", "assigned", "topic", "tags"].includes(change.kind);
    if (isOfWords) for (const one of cases) await refuseWhileLeaving(inner, one);
    const ofJunk = () =>
      change.kind === "state" ? cases.filter((one) => one.asideAs === "junk or fraud") : [];
    for (const one of ofJunk()) await forgetJunk({ em: inner }, one);
    if (change.kind === "moved" && cases[0]?.customer.id !== after[0]?.customer)
      throw new Conflict(t("theCaseWasMovedAgainSince"));
    const there = await inner.count(Message, { id: { $in: messages }, case: to });
    if (there < messages.length) throw new Conflict(t("someOfTheMessagesWentOn"));
    await carry(inner, messages, from);
    for (const one of cases) await standAgain(inner, one, before, after, now);
    for (const one of ofJunk()) await learnJunk({ em: inner, viewer, now }, one);
    change.undoneAt = now;
    await withdrawNotices(inner, id, now);
    await withdrawChanges(inner, [from, to], change.at, now);
    const person = inner.getReference(Person, viewer.id);
    for (const one of cases)
      inner.create(CaseEvent, { case: one, person, kind: "undone", data: { change: id }, at: now });
    await inner.flush();
    for (const one of cases) await notifyCase(inner, one.number, "message");
    return { number: cases.find((one) => one.id === from)?.number ?? 0 };
  });
}

/** Puts a case back to how it stood, or to what its messages say. */
async function standAgain(
  em: EntityManager,
  subject: Case,
  before: CaseStanding[],
  after: CaseStanding[],
  now: Date,
): Promise<void> {
  const [then, set] = [before, after].map((all) => all.find((one) => one.case === subject.id));
  const untouched = set !== undefined && isDeepStrictEqual(set, standing(subject));
  if (then) {
    subject.customer = em.getReference(Customer, then.customer);
    if (then.assignee !== undefined)
      subject.assignee = then.assignee === null ? null : em.getReference(Person, then.assignee);
    if (then.team !== undefined) subject.team = em.getReference(Team, then.team);
    if (then.topic !== undefined) subject.topic = then.topic;
    if (then.tags !== undefined) subject.tags = then.tags;
    subject.joinedTo = then.joinedTo === null ? null : em.getReference(Case, then.joinedTo);
  }
  if (then && untouched) {
    subject.status = then.status;
    subject.asideAs = then.asideAs ?? null;
    subject.stateReason = then.stateReason ?? null;
    subject.waitingSince = instant(then.waitingSince);
    subject.answerBy = instant(then.answerBy);
    subject.updatedAt = now;
    return;
  }
  await restate(em, subject, now);
  // What was made by the change and has nothing on it any more is done with.
  if (!then && (await em.count(Message, { case: subject, state: { $ne: "called back" } })) === 0)
    setState(subject, "settled");
}

const instant = (text: string | null) => (text === null ? null : new Date(text));

/** Lets pass only what nothing is leaving from: no letter in its ten seconds, no chat that goes on. */
async function refuseWhileLeaving(em: EntityManager, subject: Case): Promise<void> {
  if ((await em.count(Message, { case: subject, state: { $in: ["due", "sending"] } })) > 0)
    throw new Conflict(t("aLetterIsLeavingWaitUntil"));
  if ((await em.count(Chat, { case: subject, state: { $ne: "ended" } })) > 0)
    throw new Conflict(t("thisChatStillGoesOnEnd"));
}

/** Messages of a case by their ids, the oldest first. */
async function messagesOf(em: EntityManager, subject: Case): Promise<number[]> {
  const found = await em.find(
    Message,
    { case: subject },
    { orderBy: { at: "asc", id: "asc" }, fields: ["id"] },
  );
  return found.map((one) => one.id);
}

/** Puts messages on another case, with all that hangs on them. */
async function carry(em: EntityManager, messages: number[], to: number): Promise<void> {
  if (messages.length === 0) return;
  await query(em, "update messages set case_id = ? where id = any(?)", [to, messages]);
  await query(em, "update sent_letters set case_id = ? where message_id = any(?)", [to, messages]);
  await query(em, "update asked_questions set case_id = ? where message_id = any(?)", [to, messages]);
}

/** Answers that were begun go along, where their writer has begun none there. */
async function carryDrafts(em: EntityManager, from: number, to: number): Promise<void> {
  const there = await em.find(Draft, { case: to }, { fields: ["person"] });
  await em.nativeUpdate(
    Draft,
    { case: from, person: { $nin: there.map((one) => one.person.id) } },
    { case: em.getReference(Case, to) },
  );
}

/** A new case for messages that leave another. */
async function caseOf({ em, now }: Given, from: Case, messages: number[]): Promise<Case> {
  const first = await em.findOneOrFail(Message, { id: messages[0] ?? 0 });
  const subject = await openCase(em, {
    channel: first.channel,
    subject: first.subject || from.subject,
    language: from.language ?? null,
    customer: from.customer,
    team: em.getReference(Team, from.team.id),
    now,
  });
  subject.mailbox = from.mailbox ?? null;
  await noteBooking(em, subject, `${first.subject}\n${first.text}`);
  return subject;
}

/** The case that one was joined to, by its number; null where it stands by itself. */
export async function joinedInto(em: EntityManager, number: number): Promise<number | null> {
  const [row] = await query<{ into: number }>(
    em,
    "select i.number as into from cases c join cases i on i.id = c.joined_to_id where c.number = ?",
    [number],
  );
  return row?.into ?? null;
}
