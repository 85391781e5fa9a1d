import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { isDeepStrictEqual } from "node:util";
import { z } from "zod";
import type { SendCheck } from "#core/checks/check";
import { stopsSending } from "#core/checks/second-look";
import { MOST_ID } from "#core/forms/fields";
import { answerNotices } from "../notices/of-case";
import { saidOn } from "../cases/said";
import { setStill } from "../cases/standing";
import { neighbours } from "../cases/waiting";
import { nextPiece, tellChat } from "../chats/pieces";
import { Draft, Wait } from "../db/entities/answering";
import { CaseEvent, type Case } from "../db/entities/cases";
import { Chat } from "../db/entities/chats";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { idSchema } from "../edge";
import { Conflict } from "../errors";
import { notifyCase } from "../events/notify";
import { settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { keepAsked } from "../questions/asking";
import { CALL_BACK_SECONDS, scheduleDelivery } from "../sending/schedule";
import { t } from "../words";
import { loadDraft, type LoadedDraft } from "./draft";
import { composeDraft, storeLetter } from "./letter";
import { caseByNumber } from "./open";

export const sendSchema = z.strictObject({
  /** The version of the draft that the agent saw. */
  version: idSchema,
  /** The latest message that the agent saw. */
  lastMessage: z.number().int().min(0).max(MOST_ID),
  /** What the letter read, as the case was opened with it (see `seenAs`). */
  seen: z.string().max(100).optional(),
  /** What its words read of the house's own, as they were seen (see `factsRead`). */
  facts: z.record(z.string().max(160), z.unknown()).optional(),
});

export type Sent =
  | { ok: true; message: number; dueAt: string; next: number | null; to: string }
  | { ok: false; checks: SendCheck[] };

/**
 * Sends the viewer's draft on a case: composes it, looks twice, stores letter and message and queues the
 * delivery, all in one transaction. It is due after the time in which it can be called back.
 * @throws Conflict when the draft was changed or sent, or somebody else answered or the customer wrote meanwhile
 */
export async function send(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  input: z.infer<typeof sendSchema>,
  now: Date,
): Promise<Sent> {
  const { next, position } = await neighbours(em, viewer, number);
  return em.transactional(async (inner) => {
    const subject = await caseByNumber(inner, number);
    await inner.lock(subject, LockMode.PESSIMISTIC_WRITE);
    const draft = await loadDraft(inner, viewer, subject.id);
    if (!draft) throw new Conflict(t("thereIsNoDraftAnyMore"));
    if (draft.version !== input.version) throw new Conflict(t("thisDraftWasChangedInAnother"));
    // In a chat both may speak at once.
    if (subject.channel !== "chat") await refuseIfOvertaken(inner, subject, input.lastMessage);
    const settings = await settingsOf(inner);
    const { letter, checks, recipient, contentIds, team, seen, facts, asking, whole } = await composeDraft(
      inner,
      viewer,
      { subject, draft, settings },
      now,
    );
    const readsElse =
      (input.seen !== undefined && input.seen !== seen) ||
      (input.facts !== undefined && !isDeepStrictEqual(input.facts, facts));
    if (readsElse) throw new Conflict(t("whatTheLetterSaysOfThis"));
    if (stopsSending(checks) || recipient === null) return { ok: false as const, checks };
    const isPiece = subject.channel === "chat";
    const dueAt = isPiece ? now : new Date(now.getTime() + CALL_BACK_SECONDS * 1000);
    const wait = await waitOf(inner, subject, now);
    const message = await storeLetter(inner, viewer, {
      subject,
      draft,
      settings,
      letter,
      checks,
      recipient,
      contentIds,
      team,
      whole,
      dueAt,
      now,
    });
    const titles = titlesOf(draft.slips);
    inner.create(CaseEvent, {
      ...{ case: subject, person: message.person, kind: "queued" as const },
      ...{ data: { replies: titles }, at: now },
    });
    await answerNotices(
      inner,
      message,
      draft.slips.flatMap((slip) => slip.reply ?? []),
      now,
    );
    if (wait) inner.create(Wait, { ...wait, message });
    keepAsked(inner, letter, asking, { subject, message, settings, now });
    setStill(subject, "waiting on the customer", now);
    subject.assignee = inner.getReference(Person, viewer.id);
    await inner.flush();
    await inner.nativeDelete(Draft, { case: subject, person: viewer.id });
    if (isPiece) await putPiece(inner, message, number, now);
    else await scheduleDelivery(inner, message.id, dueAt);
    await notifyCase(inner, number, "message");
    return {
      ok: true as const,
      message: message.id,
      dueAt: dueAt.toISOString(),
      next: position === null ? null : next,
      to: recipient,
    };
  });
}

/**
 * Puts a message into the chat of its case as the next piece: the window reads it from there.
 * @throws Conflict where the chat has ended
 */
async function putPiece(em: EntityManager, message: Message, number: number, now: Date): Promise<void> {
  const chat = await em.findOne(Chat, { case: message.case.id }, { orderBy: { id: "desc" } });
  if (!chat || chat.state === "ended") throw new Conflict(t("thisChatHasEnded"));
  const piece = await nextPiece(em, chat.id);
  Object.assign(chat, { pieces: piece, saidAt: now, waitingSince: null });
  Object.assign(message, { chat, piece, state: "sent", sentAt: now });
  await em.flush();
  await tellChat(em, chat, number, { what: "pieces", by: "us" });
}

/** Lets pass only who saw the latest message: two colleagues must not both answer the same one. */
async function refuseIfOvertaken(em: EntityManager, subject: Case, lastMessage: number): Promise<void> {
  const newer = await em.findOne(
    Message,
    {
      case: subject,
      id: { $gt: lastMessage },
      state: { $ne: "called back" },
      kind: { $nin: ["forwarded", "notice"] },
      // What a rule answered leaves the case to whoever answers it.
      $not: { direction: "out", kind: "automatic" },
    },
    { orderBy: { id: "desc" }, populate: ["person"] },
  );
  if (!newer) return;
  throw new Conflict(
    newer.direction === "in"
      ? t("theCustomerWroteAgainMeanwhileRead")
      : t("personAnsweredThisCaseMeanwhileRead", { person: newer.person?.name ?? t("aColleague") }),
  );
}

/** Since when the customer waits for the answer that is sent now, and by when it is due; null where nobody waits. */
async function waitOf(em: EntityManager, subject: Case, now: Date) {
  if (subject.waitingSince == null) return null;
  const { answered } = await saidOn(em, subject.id);
  return {
    team: subject.team,
    channel: subject.channel,
    isFirst: !answered,
    since: subject.waitingSince,
    due: subject.answerBy ?? null,
    at: now,
  };
}

/** The titles of the answers that a letter is made of. */
function titlesOf(slips: LoadedDraft["slips"]): string[] {
  return slips.filter((slip) => slip.reply !== null && slip.part === "answer").map((slip) => slip.title);
}
