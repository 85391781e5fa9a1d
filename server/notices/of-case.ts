import type { EntityManager } from "@mikro-orm/postgresql";
import type { NoticeChange } from "#core/notices/notice";
import { CaseEvent } from "../db/entities/cases";
import { CaseNotice } from "../db/entities/notices";
import type { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { Conflict, NotFound } from "../errors";
import { notifyCase } from "../events/notify";
import type { Viewer } from "../people/viewer";
import { isTakenBack } from "../sending/schedule";
import { t } from "../words";

/** A notice that is for somebody to see to: offered, held, or on its way and to be called back. Times are ISO 8601 instants. */
export interface NoticeWaiting {
  id: number;
  on: NoticeChange | "arrival" | "silence";
  /** The standing answer that it is of; null for none. */
  rule: string | null;
  state: "offered" | "queued" | "held";
  /** Key of its reply. */
  reply: string;
  title: string;
  /** Who changed the case. */
  who: string;
  at: string;
  why: string | null;
  message: number | null;
  dueAt: string | null;
}

/** What changes of a case came to and nobody has seen to, the latest first. */
export async function noticesOf(em: EntityManager, caseId: number): Promise<NoticeWaiting[]> {
  const rows = await query<NoticeWaiting>(
    em,
    `select n.id, n."on", n.state, r.key as reply, r.title, p.name as who, n.at, n.why, n.message_id as message, m.due_at as "dueAt",
            (select s.name from standing_done d join standing_rules s on s.id = d.rule_id where d.id = n.done_id) as rule
       from case_notices n join replies r on r.id = n.reply_id join people p on p.id = n.person_id
       left join messages m on m.id = n.message_id
      where n.case_id = ? and (n.state in ('offered', 'held') or n.state = 'queued' and m.state = 'due' and m.attempts = 0)
      order by n.at desc, n.id desc`,
    [caseId],
  );
  const instant = (at: string) => new Date(at).toISOString();
  return rows.map((row) => ({
    ...row,
    at: instant(row.at),
    dueAt: row.dueAt === null ? null : instant(row.dueAt),
  }));
}

/** Lets a notice be that is offered or held. @throws NotFound; Conflict where somebody saw to it */
export async function declineNotice(em: EntityManager, viewer: Viewer, id: number, now: Date): Promise<void> {
  await em.transactional(async (inner) => {
    const notice = await inner.findOne(CaseNotice, { id }, { populate: ["case", "reply"], lockMode: 4 });
    if (!notice) throw new NotFound(t("thereIsNoSuchNotice"));
    if (notice.state !== "offered" && notice.state !== "held")
      throw new Conflict(t("somebodySawToThatNotice"));
    notice.state = "declined";
    tell(inner, notice, viewer, t("declinedNotice", { title: notice.reply.title }), now);
    await inner.flush();
    await notifyCase(inner, notice.case.number, "message");
  });
}

/**
 * A letter says what a notice would have: nothing waits of it any more; nor of what rules prepared, or were about to send,
 * whatever it says. The caller flushes.
 */
export async function answerNotices(
  em: EntityManager,
  message: Message,
  replies: string[],
  now: Date,
): Promise<void> {
  const ofRules = await em.find(
    CaseNotice,
    { case: message.case, state: { $in: ["offered", "held", "queued"] }, done: { $ne: null } },
    { populate: ["message"] },
  );
  for (const one of ofRules)
    if (one.message == null || (await isTakenBack(em, one.message.id, now)))
      Object.assign(one, { state: "answered", message });
  const waiting = await em.find(CaseNotice, {
    ...{ case: message.case, state: { $in: ["offered", "held"] }, reply: { key: { $in: replies } } },
  });
  for (const one of waiting) Object.assign(one, { state: "answered", message });
}

/** The letter that said it was called back: it is for somebody to see to again. The caller flushes. */
export async function offerAgain(em: EntityManager, message: number): Promise<void> {
  const said = await em.find(CaseNotice, { message, state: "answered" });
  for (const one of said) Object.assign(one, { state: "offered", message: null });
}

/** Says on the record of a case what became of a notice. The caller flushes. */
export function tell(
  em: EntityManager,
  { case: subject }: CaseNotice,
  viewer: Viewer,
  words: string,
  at: Date,
): void {
  const person = em.getReference(Person, viewer.id);
  em.create(CaseEvent, { case: subject, person, kind: "notice", data: { words }, at });
}
