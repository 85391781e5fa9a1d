import { randomBytes } from "node:crypto";
import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { MOST_PIECE, type ChatState } from "#core/chat/protocol";
import { nameKey } from "#core/checks/names";
import { wellFormed } from "#core/text/well-formed";
import { Chat } from "../db/entities/chats";
import { Case, CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Customer, CustomerAddress } from "../db/entities/customers";
import { query } from "../db/sql";
import { bookingReferenceIn } from "../details/bookings";
import { digestOf } from "../digest";
import { Conflict, NotFound } from "../errors";
import { notify } from "../events/notify";
import { settingsOf } from "../house/settings";
import { queue } from "../queue/boss";
import { awaitAnswer, firstTeam, openCase } from "../receiving/arrival";
import { beginningOf } from "../receiving/beginning";
import { t } from "../words";
import { openDoor, placeAtDoor } from "./door";
import { endChat } from "./end";
import { nextPiece, tellChat } from "./pieces";

/** What a window begins a chat with. */
export const beginningSchema = z.strictObject({
  name: z.string().trim().max(200).default(""),
  email: z.union([z.literal(""), z.email().max(254)]).default(""),
  text: z.string().trim().min(1).max(MOST_PIECE),
  /** The page that the window stands on. */
  page: z.string().max(500).default(""),
  language: z.string().max(35).nullable().default(null),
});

/**
 * Begins a chat: a case of its own, of a customer of its own. What they say of themselves is kept as said: nobody has
 * looked whether it is so, and nothing of another customer is shown for it.
 * @returns the token by which the window, and nobody else, goes on with it
 */
export async function beginChat(
  em: EntityManager,
  input: z.infer<typeof beginningSchema>,
  now: Date,
): Promise<{ token: string; chat: number }> {
  const token = randomBytes(24).toString("base64url");
  const chat = await em.transactional(async (inner) => {
    const words = wellFormed(input.text);
    const name = wellFormed(input.name) || null;
    const customer = inner.create(Customer, {
      firstName: name?.split(/\s+/)[0] ?? null,
      lastName: name?.split(/\s+/).slice(1).join(" ") || null,
      displayName: name ?? t("guest"),
      nameKey: name === null ? null : nameKey(name),
      language: input.language,
      timeZone: null,
      phone: null,
      since: null,
      organisation: null,
    });
    inner.create(CustomerAddress, { channel: "chat", address: digestOf(Buffer.from(token)), customer });
    const team = await firstTeam(inner);
    const subject = await openCase(inner, {
      channel: "chat",
      subject: beginningOf(words),
      language: input.language,
      customer,
      team,
      now,
    });
    const made = inner.create(Chat, {
      case: subject,
      tokenHash: digestOf(Buffer.from(token)),
      state: "waiting",
      person: null,
      name,
      email: input.email === "" ? null : input.email.toLowerCase(),
      page: input.page === "" ? null : wellFormed(input.page),
      openedAt: now,
      waitingSince: now,
      takenAt: null,
      saidAt: now,
      seenAt: now,
      endedAt: null,
      endedBy: null,
      mailedTo: null,
    });
    inner.create(CaseEvent, { case: subject, person: null, kind: "opened", data: {}, at: now });
    await inner.flush();
    await keepPiece(inner, made, subject, { key: "first", text: words }, now);
    return made;
  });
  await openDoor(em.fork(), now);
  return { token, chat: chat.id };
}

/** The chat of a window. @throws NotFound where no chat has the token */
export async function chatOf(em: EntityManager, token: string): Promise<Chat> {
  const chat = await em.findOne(
    Chat,
    { tokenHash: digestOf(Buffer.from(token)) },
    { populate: ["case", "person"] },
  );
  if (!chat) throw new NotFound(t("thereIsNoSuchChat"));
  return chat;
}

/** What a window shows of its chat beside the pieces. */
export async function chatState(em: EntityManager, id: number): Promise<ChatState> {
  const chat = await em.findOneOrFail(Chat, { id }, { populate: ["person"], refresh: true });
  return {
    state: chat.state,
    place: chat.state === "waiting" ? await placeAtDoor(em, chat) : null,
    with: chat.person?.firstName ?? null,
    readTo: chat.readTo,
    mailedTo: chat.mailedTo ?? null,
  };
}

/** What the customer says, under a key of their window. */
interface Said {
  key: string;
  text: string;
}

/**
 * Keeps a piece that the customer says; one that is kept already, by its key, is recognised.
 * @returns its number
 * @throws Conflict where the chat has ended
 */
export async function sayInWindow(em: EntityManager, id: number, said: Said, now: Date): Promise<number> {
  return em.transactional(async (inner) => {
    const chat = await inner.findOneOrFail(
      Chat,
      { id },
      { lockMode: LockMode.PESSIMISTIC_WRITE, populate: ["case"], refresh: true },
    );
    const known = await inner.findOne(Message, { chat, pieceKey: said.key }, { fields: ["piece"] });
    if (known?.piece != null) return known.piece;
    if (chat.state === "ended") throw new Conflict(t("theChatHasEndedBeginAnother"));
    const subject = await inner.findOneOrFail(Case, { id: chat.case.id });
    return keepPiece(inner, chat, subject, { ...said, text: wellFormed(said.text) }, now);
  });
}

async function keepPiece(
  em: EntityManager,
  chat: Chat,
  subject: Case,
  said: Said,
  now: Date,
): Promise<number> {
  const piece = await nextPiece(em, chat.id);
  chat.pieces = piece;
  em.create(Message, {
    case: subject,
    direction: "in",
    channel: "chat",
    state: "received",
    fromName: chat.name ?? t("guest"),
    fromAddress: chat.tokenHash,
    toAddress: "",
    replyTo: chat.email ?? null,
    subject: "",
    text: said.text,
    html: null,
    language: null,
    messageId: null,
    person: null,
    chat,
    piece,
    pieceKey: said.key,
    at: now,
  });
  chat.saidAt = now;
  chat.seenAt = now;
  chat.waitingSince ??= now;
  await awaitAnswer(em, subject, now);
  const { details } = await settingsOf(em);
  const reference =
    details.length > 0 && subject.bookingReference == null ? bookingReferenceIn(said.text) : null;
  if (reference !== null) subject.bookingReference = reference;
  await em.flush();
  if (reference !== null) await queue(em, "look-up", { case: subject.id });
  await tellChat(em, chat, subject.number, { what: "pieces", by: "them" });
  await notify(em, { case: subject.number, kind: "message" });
  await notify(em, { case: null, kind: "queue", changed: subject.number });
  return piece;
}

/** The customer is writing: told, and kept nowhere. */
export async function typingInWindow(em: EntityManager, chat: Chat): Promise<void> {
  await tellChat(em, chat, chat.case.number, { what: "typing", by: "them" });
}

/** The window has pieces up to one, and its customer has read up to another. */
export async function tellRead(
  em: EntityManager,
  chat: Chat,
  { got, read }: { got: number; read: number },
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const [before] = await query<{ got: number; seen: number; pieces: number }>(
      inner,
      "select got_to as got, seen_to as seen, pieces from chats where id = ? for update",
      [chat.id],
    );
    if (!before) return;
    const gotTo = Math.max(before.got, Math.min(Math.max(got, read), before.pieces));
    const seenTo = Math.max(before.seen, Math.min(read, before.pieces));
    if (gotTo === before.got && seenTo === before.seen) return;
    await query(inner, "update chats set got_to = ?, seen_to = ?, seen_at = ? where id = ?", [
      gotTo,
      seenTo,
      now,
      chat.id,
    ]);
    const mark = (column: "delivered_at" | "read_at", to: number) =>
      query(
        inner,
        `update messages set ${column} = ? where chat_id = ? and direction = 'out' and piece <= ? and ${column} is null`,
        [now, chat.id, to],
      );
    await mark("delivered_at", gotTo);
    await mark("read_at", seenTo);
    await tellChat(inner, chat, chat.case.number, { what: "read", by: "them" });
  });
}

/** The window was heard of: the customer is there. */
export async function windowIsThere(em: EntityManager, id: number, now: Date): Promise<void> {
  await em.nativeUpdate(Chat, { id }, { seenAt: now });
}

/** The customer ends the chat. What was ended before stays as it was. */
export async function endInWindow(em: EntityManager, id: number, now: Date): Promise<void> {
  await endChat(em, id, "customer", now);
  await openDoor(em.fork(), now);
}
