import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { Draft, SentLetter } from "../db/entities/answering";
import { waitAgain } from "../cases/standing";
import { CaseEvent } from "../db/entities/cases";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { Conflict } from "../errors";
import { notifyCase } from "../events/notify";
import type { Viewer } from "../people/viewer";
import { takeBack } from "../sending/schedule";
import { t } from "../words";
import { callNoticeBack } from "../notices/call-back";
import { offerAgain } from "../notices/of-case";
import { offersOf } from "./choice";
import { createSlips } from "./draft";
import { callForwardBack } from "./forward";

/**
 * Calls a letter back before it is due: it is not delivered, and is the viewer's draft again; a notice is offered again.
 * @returns the case's number
 * @throws NotFound; Conflict when it is too late, or a new draft was begun meanwhile
 */
export async function callBack(
  em: EntityManager,
  viewer: Viewer,
  messageId: number,
  now: Date,
): Promise<number> {
  return em.transactional(async (inner) => {
    const ofNotice = await callNoticeBack(inner, viewer, messageId, now);
    if (ofNotice !== null) return ofNotice;
    const letter = await inner.findOne(
      SentLetter,
      { message: messageId, person: viewer.id },
      { populate: ["case", "message"] },
    );
    if (!letter) return callForwardBack(inner, viewer, messageId, now);
    const subject = letter.case;
    await inner.lock(subject, LockMode.PESSIMISTIC_WRITE);
    if ((await inner.count(Draft, { case: subject, person: viewer.id })) > 0) {
      throw new Conflict(t("youHaveBegunAnotherAnswerOn"));
    }
    await takeBack(inner, messageId, now);
    const draft = inner.create(Draft, {
      case: subject,
      person: inner.getReference(Person, viewer.id),
      language: letter.language,
      subject: letter.subject,
      offers: await offersOf(inner, letter),
      toAddress: letter.message.toAddress,
      // It was going there: whatever was new about it was seen.
      toConfirmed: true,
      copies: letter.message.copies ?? null,
      version: 1,
      updatedAt: now,
    });
    createSlips(inner, draft, letter.slips);
    await offerAgain(inner, messageId);
    await waitAgain(inner, subject, now);
    inner.create(CaseEvent, {
      case: subject,
      person: inner.getReference(Person, viewer.id),
      kind: "called back",
      data: {},
      at: now,
    });
    await inner.flush();
    await restoreFiles(
      inner,
      messageId,
      draft.id,
      letter.slips.flatMap((slip) => slip.versionId ?? []),
    );
    await notifyCase(inner, subject.number, "message");
    return subject.number;
  });
}

/** Files that the agent had added, and that do not come with a reply anyway, go back to the draft. */
async function restoreFiles(
  em: EntityManager,
  messageId: number,
  draftId: number,
  versions: number[],
): Promise<void> {
  await query(
    em,
    `insert into attachments (draft_id, file_id, name, content_type, position)
     select ?, a.file_id, a.name, a.content_type, a.position from attachments a
      where a.message_id = ? and not exists (select 1 from reply_attachments r where r.file_id = a.file_id and r.version_id = any(?))`,
    [draftId, messageId, versions],
  );
}
