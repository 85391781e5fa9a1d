import type { EntityManager } from "@mikro-orm/postgresql";
import { stopsSending } from "#core/checks/second-look";
import { noticeFor, type NoticeChange } from "#core/notices/notice";
import { caseContext } from "../answering/context";
import { composeDraft, storeLetter } from "../answering/letter";
import { CaseEvent, type Case } from "../db/entities/cases";
import { CaseChange } from "../db/entities/changes";
import type { Message } from "../db/entities/messages";
import { CaseNotice, Notice } from "../db/entities/notices";
import { Person } from "../db/entities/people";
import { settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { keepAsked } from "../questions/asking";
import { scheduleDelivery, takeBack } from "../sending/schedule";
import { Conflict, Unusable } from "../errors";
import { t } from "../words";
import { draftOf } from "./draft";

/** What a change of a case came to, for its customer. Times are ISO 8601 instants. */
export interface Noticed {
  title: string;
  state: "offered" | "queued" | "held";
  /** Why it is held; null where it is not. */
  why: string | null;
  /** When it goes by itself, and the message that it is then. */
  dueAt: string | null;
  message: number | null;
}

/** What was changed, of which case. */
export interface ChangeSeen {
  on: NoticeChange;
  /** Its new state or topic; null for none, and where that is not what changed. */
  into: string | null;
  /** The change as it is kept, where it can be undone. */
  change: number | null;
}

const OPEN = ["offered", "queued", "held"] as const;

/**
 * Tells a customer that their case changed, where a notice is for that: it is offered to whoever has the case, or it is
 * composed and queued on behalf of who changed it. What cannot go by itself is held, and says why. In the caller's
 * transaction, which has written the change.
 * @param subject with its customer populated
 * @returns null where no notice is for it
 */
export async function noticeOn(
  em: EntityManager,
  viewer: Viewer,
  subject: Case,
  { on, into, change }: ChangeSeen,
  now: Date,
): Promise<Noticed | null> {
  // Who sends junk hears nothing of us.
  if (subject.asideAs === "junk or fraud") return null;
  const rules = await em.find(
    Notice,
    { reply: { state: "shelved" } },
    { orderBy: { position: "asc", id: "asc" }, populate: ["reply"] },
  );
  const changed = { on, into, mailbox: subject.mailbox?.id ?? null, channel: subject.channel };
  const notice = noticeFor(rules, changed);
  if (notice === null) return null;
  await withdraw(em, { case: subject.id, on }, now);
  const made = em.create(CaseNotice, {
    ...{ case: subject, notice, reply: notice.reply, on, message: null, why: null, at: now },
    person: em.getReference(Person, viewer.id),
    change: change === null ? null : em.getReference(CaseChange, change),
    state: "offered",
  });
  const { title } = notice.reply;
  const told = (words: string) =>
    em.create(CaseEvent, {
      ...{ case: subject, person: em.getReference(Person, viewer.id), kind: "notice" as const },
      ...{ data: { words }, at: now },
    });
  if (notice.way === "offered") {
    await em.flush();
    return { title, state: "offered", why: null, dueAt: null, message: null };
  }
  const dueAt = new Date(now.getTime() + notice.minutes * 60_000);
  const letter = await letterOf(em, viewer, subject, notice, dueAt, now);
  if (typeof letter === "string") {
    Object.assign(made, { state: "held", why: letter });
    told(t("heldNotice", { title, why: letter }));
    await em.flush();
    return { title, state: "held", why: letter, dueAt: null, message: null };
  }
  Object.assign(made, { state: "queued", message: letter });
  told(t("queuedNotice", { title }));
  await em.flush();
  await scheduleDelivery(em, letter.id, dueAt);
  return { title, state: "queued", why: null, dueAt: dueAt.toISOString(), message: letter.id };
}

/** Composes and stores a notice as a letter that goes by itself. @returns why it cannot, in words */
async function letterOf(
  em: EntityManager,
  viewer: Viewer,
  subject: Case,
  notice: Notice,
  dueAt: Date,
  now: Date,
): Promise<Message | string> {
  await em.populate(subject, ["customer.organisation", "team", "mailbox", "forwarder"]);
  const settings = await settingsOf(em);
  const { language } = await caseContext(em, viewer, subject, settings, now);
  const draft = await draftOf(em, settings, subject, notice.reply.key, language);
  if (draft === null) return t("itIsNotForThisChannel");
  const made = await composeDraft(em, viewer, { subject, draft, settings }, now);
  const { checks, recipient } = made;
  if (stopsSending(checks) || recipient === null)
    return checks.find(({ severity }) => severity === "stop")?.message ?? t("nobodyToSendItTo");
  try {
    const message = await storeLetter(em, viewer, {
      ...made,
      ...{ subject, draft, settings, recipient, kind: "notice" as const, dueAt, now },
    });
    keepAsked(em, made.letter, made.asking, { subject, message, settings, now });
    await em.flush();
    return message;
  } catch (error) {
    // A team without a number of its own sends no short messages.
    if (error instanceof Unusable) return error.message;
    throw error;
  }
}

/**
 * Takes back what earlier changes of a case came to: what waits is declined, what has not left stays here.
 * @param which by its case and what changed, or by the change that is undone
 */
async function withdraw(
  em: EntityManager,
  which: { case: number; on: NoticeChange } | { change: number },
  now: Date,
): Promise<void> {
  const known = await em.find(CaseNotice, { ...which, state: { $in: [...OPEN] } }, { populate: ["message"] });
  for (const one of known) {
    if (one.message == null) one.state = "declined";
    else if (await isTakenBack(em, one.message.id, now)) one.state = "called back";
  }
  await em.flush();
}

/** Takes a letter back, where it is not too late. */
async function isTakenBack(em: EntityManager, message: number, now: Date): Promise<boolean> {
  try {
    await takeBack(em, message, now);
    return true;
  } catch (error) {
    if (error instanceof Conflict) return false;
    throw error;
  }
}

/** What an undone change came to is taken back, as far as it has not left. */
export async function withdrawNotices(em: EntityManager, change: number, now: Date): Promise<void> {
  await withdraw(em, { change }, now);
}
