import type { EntityManager } from "@mikro-orm/postgresql";
import type { NoticeChange } from "#core/notices/notice";
import { CaseEvent } from "../db/entities/cases";
import { CaseNotice } from "../db/entities/notices";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { Conflict, NotFound } from "../errors";
import { notifyCase } from "../events/notify";
import type { Viewer } from "../people/viewer";
import { takeBack } from "../sending/schedule";
import { t } from "../words";

/** A notice that is for somebody to see to: offered, held, or on its way and to be called back. Times are ISO 8601 instants. */
export interface NoticeWaiting {
  id: number;
  on: NoticeChange | "arrival";
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
  const notice = isNotice ? await em.findOne(CaseNotice, { message }, { populate: ["case", "reply"] }) : null;
  if (!notice) return null;
  await takeBack(em, message, now);
  Object.assign(notice, { state: "offered", message: null });
  tell(em, notice, viewer, t("calledNoticeBack", { title: notice.reply.title }), now);
  await em.flush();
  await notifyCase(em, notice.case.number, "message");
  return notice.case.number;
}

/** A letter says what a notice would have: nothing waits of it any more. The caller flushes. */
export async function answerNotices(em: EntityManager, message: Message, replies: string[]): Promise<void> {
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

function tell(
  em: EntityManager,
  { case: subject }: CaseNotice,
  viewer: Viewer,
  words: string,
  at: Date,
): void {
  const person = em.getReference(Person, viewer.id);
  em.create(CaseEvent, { case: subject, person, kind: "notice", data: { words }, at });
}
