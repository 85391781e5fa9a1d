import type { EntityManager } from "@mikro-orm/postgresql";
import { CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { Conflict, NotFound } from "../errors";
import { notify } from "../events/notify";
import { query } from "../db/sql";
import { CLAIM } from "./deliver";
import { queue } from "../queue/boss";
import type { Viewer } from "../people/viewer";
import { freshSmsId } from "../answering/sender";
import { t } from "../words";

/** How long a letter can be called back, in seconds. */
export const CALL_BACK_SECONDS = 10;

/** Queues a message's delivery, in the caller's transaction. */
export async function scheduleDelivery(em: EntityManager, messageId: number, dueAt: Date): Promise<void> {
  await queue(em, "send", { message: messageId }, dueAt);
}

/**
 * Takes a letter back before it leaves: it is not delivered.
 * @throws Conflict when it is too late
 */
export async function takeBack(em: EntityManager, messageId: number, now: Date): Promise<void> {
  const called = await em.nativeUpdate(
    Message,
    { id: messageId, state: "due", attempts: 0, dueAt: { $gt: now } },
    { state: "called back" },
  );
  if (called === 0) throw new Conflict(t("itIsTooLateTheLetter"));
}

/** The same where it may be too late. @returns whether it was taken back */
export async function isTakenBack(em: EntityManager, message: number, now: Date): Promise<boolean> {
  try {
    await takeBack(em, message, now);
    return true;
  } catch (error) {
    if (error instanceof Conflict) return false;
    throw error;
  }
}

/** What is overdue by so much and has no job was lost with the process that had it. */
const LOST_AFTER_MS = 5000;

/**
 * Queues letters again whose process was ended before they were delivered.
 * @param atStart whether a process has just begun: then jobs that are said to run may be a dead one's as well
 * @returns how many there were
 */
export async function queueLostDeliveries(em: EntityManager, now: Date, atStart: boolean): Promise<number> {
  return em.transactional(async (inner) => {
    const lost = await query<{ id: number }>(
      inner,
      `select m.id from messages m
        where m.state in ('due', 'sending') and m.due_at < ?
          and not exists (select 1 from pg_locks l where l.locktype = 'advisory' and l.classid = ? and l.objid = m.id)
          and not exists (select 1 from pgboss.job j where j.name = 'send' and (j.data->>'message')::int = m.id
            and j.state = any(?))`,
      [new Date(now.getTime() - LOST_AFTER_MS), CLAIM, atStart ? WAITING_JOBS : [...WAITING_JOBS, "active"]],
    );
    for (const { id } of lost) await scheduleDelivery(inner, id, now);
    return lost.length;
  });
}

const WAITING_JOBS = ["created", "retry"];

/** Tries a refused message again, at once. @throws NotFound, Conflict when it is not refused (any more) */
export async function tryAgain(
  em: EntityManager,
  viewer: Viewer,
  messageId: number,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const message = await inner.findOne(Message, { id: messageId }, { populate: ["case"], lockMode: 4 });
    if (!message) throw new NotFound(t("thereIsNoSuchMessage"));
    if (message.state !== "refused") throw new Conflict(t("thisMessageIsNotRefusedAny"));
    message.state = "due";
    message.dueAt = now;
    // A gateway that has failed with a message takes the same one for the same one.
    if (message.channel === "sms") message.messageId = freshSmsId();
    inner.create(CaseEvent, {
      case: message.case,
      person: inner.getReference(Person, viewer.id),
      kind: "tried again",
      data: { message: message.id },
      at: now,
    });
    await inner.flush();
    await scheduleDelivery(inner, message.id, now);
    await notify(inner, { case: message.case.number, kind: "message" });
  });
}
