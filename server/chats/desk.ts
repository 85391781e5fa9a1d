import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { MOST_CHATS, type Piece } from "#core/chat/protocol";
import { draftSchema, loadDraft, saveDraft } from "../answering/draft";
import { readOpenCase, type OpenCase } from "../answering/open";
import { send } from "../answering/send";
import { Chat } from "../db/entities/chats";
import { Case, CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { CustomerAddress } from "../db/entities/customers";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { Conflict, NotFound, Unusable } from "../errors";
import { notify } from "../events/notify";
import type { Viewer } from "../people/viewer";
import { t } from "../words";
import { openDoor } from "./door";
import { endChat } from "./end";
import { piecesAfter, tellChat } from "./pieces";

/** So many of the latest pieces are shown; the case has all. */
const SHOWN = 200;

/** A chat as its agent sees it. Times are ISO 8601 instants. */
export interface DeskChat {
  id: number;
  /** The case's number. */
  number: number;
  state: Chat["state"];
  customer: string;
  /** The address that they gave, and which customer of ours has it; null for none. */
  email: string | null;
  emailOf: string | null;
  page: string | null;
  bookingReference: string | null;
  /** Since when they wait for our answer; null where they do not. */
  waitingSince: string | null;
  saidAt: string;
  /** When their window was heard of last. */
  seenAt: string;
  /** Up to which piece their window has all, and they have read. */
  gotTo: number;
  seenTo: number;
  /** Whether somebody else of us was there before. */
  handedOver: boolean;
  mailedTo: string | null;
  pieces: Piece[];
}

/** A chat with what answering it needs. */
export interface OpenChat {
  chat: DeskChat;
  open: OpenCase;
}

/** What the viewer's Chats show. */
export interface Desk {
  chats: OpenChat[];
  limit: number;
  /** Who waits at the door: how many, and since when the first; null for nobody. */
  door: { count: number; since: string } | null;
  /** Colleagues who take chats. */
  colleagues: { id: number; name: string }[];
}

/** Ended chats stay before their agent's eyes for so long. */
const AFTERWARDS_MINUTES = 10;

/** The viewer's chats, in the order in which they came. */
export async function readDesk(em: EntityManager, viewer: Viewer, now: Date): Promise<Desk> {
  const person = await em.findOneOrFail(Person, { id: viewer.id }, { fields: ["chatLimit"] });
  const ended = new Date(now.getTime() - AFTERWARDS_MINUTES * 60_000);
  const own = await em.find(
    Chat,
    { person: viewer.id, $or: [{ state: "open" }, { state: "ended", endedAt: { $gt: ended } }] },
    { orderBy: { takenAt: "asc", id: "asc" }, populate: ["case"], limit: MOST_CHATS * 2 },
  );
  const chats: OpenChat[] = [];
  for (const chat of own) chats.push(await openChat(em.fork(), viewer, chat.case.number, now));
  const [door] = await query<{ count: number; since: string | null }>(
    em,
    "select count(*)::int as count, min(coalesce(waiting_since, opened_at)) as since from chats where state = 'waiting'",
  );
  const colleagues = await query<{ id: number; name: string }>(
    em,
    "select id, name from people where active and id <> ? and chat_limit > 0 and chat_seen_at > ? order by name",
    [viewer.id, new Date(now.getTime() - 60_000)],
  );
  return {
    chats,
    limit: person.chatLimit,
    door: door?.since ? { count: door.count, since: new Date(door.since).toISOString() } : null,
    colleagues,
  };
}

/** How many chats the viewer has, for the navigation. */
export async function ownChats(em: EntityManager, viewer: Viewer): Promise<number> {
  return em.count(Chat, { person: viewer.id, state: "open" });
}

/** A chat of the viewer's with all that answering it needs. @throws NotFound; Conflict where it is another's */
export async function openChat(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  now: Date,
): Promise<OpenChat> {
  const chat = await ownChat(em, viewer, number);
  const open = await readOpenCase(em, viewer, number, 0, now);
  return { chat: await deskChat(em, chat), open };
}

async function deskChat(em: EntityManager, chat: Chat): Promise<DeskChat> {
  const subject = await em.findOneOrFail(Case, { id: chat.case.id }, { populate: ["customer"] });
  const known =
    chat.email == null
      ? null
      : await em.findOne(
          CustomerAddress,
          { channel: "email", address: chat.email, customer: { $ne: subject.customer.id } },
          { populate: ["customer"] },
        );
  const handed = await em.count(CaseEvent, { case: subject, kind: "handed over" });
  return {
    id: chat.id,
    number: subject.number,
    state: chat.state,
    customer: subject.customer.displayName,
    email: chat.email ?? null,
    emailOf: known?.customer.displayName ?? null,
    page: chat.page ?? null,
    bookingReference: subject.bookingReference ?? null,
    waitingSince: chat.waitingSince?.toISOString() ?? null,
    saidAt: chat.saidAt.toISOString(),
    seenAt: chat.seenAt.toISOString(),
    gotTo: chat.gotTo,
    seenTo: chat.seenTo,
    handedOver: handed > 0,
    mailedTo: chat.mailedTo ?? null,
    pieces: await piecesAfter(em, chat.id, Math.max(0, chat.pieces - SHOWN)),
  };
}

/** @throws NotFound; Conflict where another of us has it */
async function ownChat(em: EntityManager, viewer: Viewer, number: number): Promise<Chat> {
  const chat = await em.findOne(
    Chat,
    { case: { number } },
    { orderBy: { id: "desc" }, populate: ["case", "person"], refresh: true },
  );
  if (!chat) throw new NotFound(t("thereIsNoSuchChat"));
  if (chat.person?.id !== viewer.id)
    throw new Conflict(t("thisChatIsPersons", { person: chat.person?.name ?? t("nobodyYet") }));
  return chat;
}

/** The viewer's Chats are open: they are there, for who waits at the door. */
export async function atDesk(em: EntityManager, viewer: Viewer, now: Date): Promise<void> {
  await em.nativeUpdate(Person, { id: viewer.id }, { chatSeenAt: now });
  await openDoor(em.fork(), now);
}

/** How many chats the viewer takes at once from now on; those that they have they keep. @throws Unusable */
export async function takeAtMost(em: EntityManager, viewer: Viewer, limit: number, now: Date): Promise<void> {
  if (!Number.isInteger(limit) || limit < 0 || limit > MOST_CHATS)
    throw new Unusable(t("from0ToMostChats", { most: MOST_CHATS }), "limit");
  await em.nativeUpdate(Person, { id: viewer.id }, { chatLimit: limit, chatSeenAt: now });
  await openDoor(em.fork(), now);
}

/** What an agent says: slips as a draft has them. */
export const sayingSchema = z.strictObject({
  /** Of this piece alone: the same one twice is said once. */
  key: z.string().min(1).max(60),
  language: draftSchema.shape.language,
  slips: draftSchema.shape.slips.refine((slips) => slips.length > 0, "Say something"),
});

/**
 * Says a piece: composed here, looked at a second time, kept, and on its way to the window at once.
 * @returns the piece's number, or what stops it
 * @throws NotFound; Conflict where the chat is another's or has ended
 */
export async function sayAtDesk(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  { key, language, slips }: z.infer<typeof sayingSchema>,
  now: Date,
): Promise<{ ok: true; piece: number } | { ok: false; problem: string }> {
  return em.transactional(async (inner) => {
    const chat = await ownChat(inner, viewer, number);
    await inner.lock(chat, LockMode.PESSIMISTIC_WRITE);
    const known = await inner.findOne(Message, { chat, pieceKey: key }, { fields: ["piece"] });
    if (known?.piece != null) return { ok: true as const, piece: known.piece };
    if (chat.state === "ended") throw new Conflict(t("thisChatHasEnded"));
    // Words that an answer under way holds stay there.
    if ((await loadDraft(inner, viewer, chat.case.id)) !== null)
      throw new Conflict(t("youHaveAnAnswerUnderWayOnItsCase"));
    const draft = { version: 0, language, subject: { from: "thread" as const }, slips };
    await saveDraft(inner, viewer, number, draft, now);
    const sent = await send(inner, viewer, number, { version: 1, lastMessage: Number.MAX_SAFE_INTEGER }, now);
    if (!sent.ok) {
      const stop = sent.checks.find((one) => one.severity === "stop");
      await inner.execute("delete from drafts where case_id = ? and person_id = ?", [
        chat.case.id,
        viewer.id,
      ]);
      return { ok: false as const, problem: stop?.message ?? t("somethingStopsIt") };
    }
    const message = await inner.findOneOrFail(Message, { id: sent.message }, { refresh: true });
    message.pieceKey = key;
    await inner.flush();
    return { ok: true as const, piece: message.piece ?? 0 };
  });
}

/** The viewer is writing: told, and kept nowhere. */
export async function typingAtDesk(em: EntityManager, viewer: Viewer, number: number): Promise<void> {
  const chat = await ownChat(em, viewer, number);
  await tellChat(em, chat, number, { what: "typing", by: "us" });
}

/** The viewer has the pieces before their eyes, up to one. */
export async function readAtDesk(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  to: number,
): Promise<void> {
  const chat = await ownChat(em, viewer, number);
  const changed = await em.nativeUpdate(
    Chat,
    { id: chat.id, readTo: { $lt: to }, pieces: { $gte: to } },
    { readTo: to },
  );
  if (changed > 0) await tellChat(em, chat, number, { what: "read", by: "us" });
}

/** The viewer ends a chat. @throws NotFound; Conflict where it is another's */
export async function endAtDesk(em: EntityManager, viewer: Viewer, number: number, now: Date): Promise<void> {
  const chat = await ownChat(em, viewer, number);
  await endChat(em, chat.id, "agent", now);
  await openDoor(em.fork(), now);
}

/**
 * Hands a chat to a colleague who takes chats, with all that was said, on the record.
 * @throws NotFound; Conflict where it is another's, has ended, or the colleague is gone
 */
export async function handOver(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  to: number,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const chat = await ownChat(inner, viewer, number);
    await inner.lock(chat, LockMode.PESSIMISTIC_WRITE);
    if (chat.state === "ended") throw new Conflict(t("thisChatHasEnded"));
    const colleague = await inner.findOne(Person, { id: to, active: true, chatLimit: { $gt: 0 } });
    if (!colleague) throw new Conflict(t("thatColleagueTakesNoChatsJustNow"));
    chat.person = colleague;
    const subject = await inner.findOneOrFail(Case, { id: chat.case.id });
    subject.assignee = colleague;
    const person = inner.getReference(Person, viewer.id);
    inner.create(CaseEvent, { case: subject, person, kind: "handed over", data: {}, at: now });
    await inner.flush();
    await tellChat(inner, chat, number, { what: "state", by: "us" });
    await notify(inner, { case: number, kind: "message" });
  });
}
