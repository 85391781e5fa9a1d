import type { EntityManager } from "@mikro-orm/postgresql";
import { noticeFor, type NoticeChange } from "#core/notices/notice";
import { CaseEvent, type Case } from "../db/entities/cases";
import { CaseChange } from "../db/entities/changes";
import { CaseNotice, Notice } from "../db/entities/notices";
import { Person } from "../db/entities/people";
import type { Viewer } from "../people/viewer";
import { isTakenBack, scheduleDelivery } from "../sending/schedule";
import { t } from "../words";
import { letterByItself } from "./by-itself";

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
  const given = { subject, reply: notice.reply.key, kind: "notice" as const, dueAt, now };
  const letter = await letterByItself(em, viewer, given);
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

/** What an undone change came to is taken back, as far as it has not left. */
export async function withdrawNotices(em: EntityManager, change: number, now: Date): Promise<void> {
  await withdraw(em, { change }, now);
}
