import type { EntityManager } from "@mikro-orm/postgresql";
import type { NoticeInput, StateWordsInput } from "#core/forms/notice";
import { noticeChannels } from "#core/notices/notice";
import type { StateWords } from "#core/notices/state-words";
import { Notice } from "../db/entities/notices";
import { Mailbox } from "../db/entities/mailboxes";
import { Reply } from "../db/entities/library";
import { topicsOf } from "../cases/topics";
import { query } from "../db/sql";
import { searchTerms } from "../replies/search";
import { NotFound, Unusable } from "../errors";
import { findHouse } from "../house/house";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** A notice, as a lead changes it. */
export interface NoticeRow extends NoticeInput {
  id: number;
  title: string;
  /** Why it tells nobody anything as it is; null where it does. */
  idle: string | null;
}

/** All of which customers are told when cases change. */
export interface Notices {
  notices: NoticeRow[];
  mailboxes: { id: number; address: string }[];
  topics: string[];
  /** What states are called to customers, where the house says so. */
  stateWords: StateWords;
  languages: string[];
}

/** Reads of what customers are told. @throws NotAllowed unless lead */
export async function listNotices(em: EntityManager, viewer: Viewer): Promise<Notices> {
  requireRole(viewer, "lead");
  const notices = await em.find(Notice, {}, { orderBy: { position: "asc", id: "asc" }, populate: ["reply"] });
  const mailboxes = await em.find(Mailbox, {}, { orderBy: { address: "asc" } });
  const topics = await topicsOf(em);
  const { stateWords, languages } = await findHouse(em);
  return {
    notices: notices.map(({ id, reply, on, into, mailboxes: to, channels, way, minutes }) => ({
      ...{ id, reply: reply.key, title: reply.title, on, into, mailboxes: to, way, minutes },
      channels: noticeChannels.filter((one) => channels.includes(one)),
      idle: reply.state === "shelved" ? null : t("itsReplyIsOnNoShelf"),
    })),
    mailboxes: mailboxes.map(({ id, address }) => ({ id, address })),
    topics,
    stateWords,
    languages,
  };
}

/** An answer that a notice can be. */
export interface AnswerFound {
  key: string;
  title: string;
  shelf: string;
}

/** So many answers are offered at once. */
const MOST_FOUND = 30;

/** Answers on shelves that are not somebody's own, by the beginnings of words of their titles. @throws NotAllowed unless lead */
export async function findAnswers(em: EntityManager, viewer: Viewer, typed: string): Promise<AnswerFound[]> {
  requireRole(viewer, "lead");
  const words = searchTerms(typed);
  return query<AnswerFound>(
    em,
    `select r.key, r.title, s.name as shelf from replies r join shelves s on s.id = r.shelf_id
      where r.state = 'shelved' and r.part = 'answer' and s.audience <> 'owner'
        and (select coalesce(bool_and(lower(r.title) ~ ('\\m' || w)), true) from unnest(cast(? as text[])) w)
      order by r.title, r.key limit ${MOST_FOUND}`,
    [words],
  );
}

/**
 * Keeps a notice.
 * @param id null for a new one, which is tried last
 * @throws NotAllowed unless lead; NotFound; Unusable for a reply that cannot be sent, or a mailbox that there is not
 */
export async function saveNotice(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  input: NoticeInput,
): Promise<number> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const { reply: key, mailboxes, ...rest } = input;
    const reply = await inner.findOne(Reply, { key, state: "shelved", part: "answer" });
    if (!reply) throw new Unusable(t("chooseAReplyOnTheShelf"), "reply");
    if ((await inner.count(Mailbox, { id: { $in: mailboxes } })) < new Set(mailboxes).size)
      throw new Unusable(t("thereIsNoSuchMailbox"), "mailboxes");
    const known = id === null ? null : await inner.findOne(Notice, { id });
    if (id !== null && !known) throw new NotFound(t("thereIsNoSuchNotice"));
    const position = known?.position ?? (await inner.count(Notice, {}));
    // What another change had is of no meaning for this one.
    const into = rest.on === "state" || rest.on === "topic" ? [...new Set(rest.into)] : [];
    const kept = { ...rest, into, mailboxes: [...new Set(mailboxes)], reply, position };
    const notice = known ? Object.assign(known, kept) : inner.create(Notice, kept);
    await inner.flush();
    return notice.id;
  });
}

/** Takes a notice out; what it queued goes all the same. @throws NotAllowed unless lead; NotFound */
export async function removeNotice(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  if ((await em.nativeDelete(Notice, { id })) === 0) throw new NotFound(t("thereIsNoSuchNotice"));
}

/** Puts notices into the order in which they are tried. @throws NotAllowed unless lead */
export async function orderNotices(em: EntityManager, viewer: Viewer, ids: number[]): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    for (const [position, id] of ids.entries()) await inner.nativeUpdate(Notice, { id }, { position });
  });
}

/** Keeps what states are called to customers; what is empty is called as usual. @throws NotAllowed unless lead */
export async function saveStateWords(
  em: EntityManager,
  viewer: Viewer,
  input: StateWordsInput,
): Promise<void> {
  requireRole(viewer, "lead");
  const kept = Object.entries(input).flatMap(([state, said]) => {
    const own = Object.entries(said).filter(([, words]) => words !== "");
    return own.length === 0 ? [] : [[state, Object.fromEntries(own)] as const];
  });
  const house = await findHouse(em);
  house.stateWords = Object.fromEntries(kept);
  await em.flush();
}
