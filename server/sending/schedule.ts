import type { EntityManager } from "@mikro-orm/postgresql";
import { CaseEvent, Message } from "../db/entities/cases";
import { Person } from "../db/entities/people";
import { Conflict, NotFound } from "../errors";
import { notify } from "../events/notify";
import { queue } from "../jobs/boss";
import type { Viewer } from "../people/viewer";

/** How long a letter can be called back, in seconds. */
export const CALL_BACK_SECONDS = 10;

/** Queues a message's delivery, in the caller's transaction. */
export async function scheduleDelivery(em: EntityManager, messageId: number, dueAt: Date): Promise<void> {
  await queue(em, "send", { message: messageId }, dueAt);
}

/** Tries a refused message again, at once. @throws NotFound, Conflict when it is not refused (any more) */
export async function tryAgain(
  em: EntityManager,
  viewer: Viewer,
  messageId: number,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const message = await inner.findOne(Message, { id: messageId }, { populate: ["case"], lockMode: 4 });
    if (!message) throw new NotFound("There is no such message");
    if (message.state !== "refused") throw new Conflict("This message is not refused any more");
    message.state = "due";
    message.dueAt = now;
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
