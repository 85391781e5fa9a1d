import type { EntityManager } from "@mikro-orm/postgresql";
import { undoChange } from "../cases/changes";
import { Message } from "../db/entities/messages";
import { CaseNotice } from "../db/entities/notices";
import { notifyCase } from "../events/notify";
import type { Viewer } from "../people/viewer";
import { takeBack } from "../sending/schedule";
import { t } from "../words";
import { tell } from "./of-case";

/**
 * Calls a notice back before it goes, whoever changed the case: it is offered again. In the caller's transaction.
 * @returns the case's number; null where the message is no notice
 * @throws Conflict when it is too late
 */
export async function callNoticeBack(
  em: EntityManager,
  viewer: Viewer,
  message: number,
  now: Date,
): Promise<number | null> {
  const isNotice = (await em.count(Message, { id: message, kind: { $in: ["notice", "automatic"] } })) > 0;
  const notice = isNotice
    ? await em.findOne(CaseNotice, { message }, { populate: ["case", "reply", "change"] })
    : null;
  if (!notice) return null;
  await takeBack(em, message, now);
  // What came with the letter is undone with it.
  if (notice.done != null && notice.change?.undoneAt === null)
    await undoChange(em, viewer, notice.change.id, now);
  Object.assign(notice, { state: "offered", message: null });
  tell(em, notice, viewer, t("calledNoticeBack", { title: notice.reply.title }), now);
  await em.flush();
  await notifyCase(em, notice.case.number, "message");
  return notice.case.number;
}
