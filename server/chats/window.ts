import { randomBytes } from "node:crypto";
import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { MOST_PIECE, type ChatState } from "#core/chat/protocol";
import { personNames } from "#core/checks/names";
import { wellFormed } from "#core/text/well-formed";
import { Chat } from "../db/entities/chats";
import { Case, CaseEvent } from "../db/entities/cases";
import { query } from "../db/sql";
import { noteReferences } from "../details/look-up";
import { digestOf } from "../digest";
import { Conflict, NotFound } from "../errors";
import { awaitAnswer } from "../cases/standing";
import { notifyCase } from "../events/notify";
import { createCustomer, firstTeam, openCase } from "../receiving/arrival";
import { beginningOf } from "../receiving/beginning";
import { t } from "../words";
import { openDoor, placeAtDoor } from "./door";
import { endChat } from "./end";
import { tellChat } from "./pieces";

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
  const tokenHash = hashOf(token);
  const chat = await em.transactional(async (inner) => {
    const words = wellFormed(input.text);
    const name = wellFormed(input.name) || null;
    const names = personNames(name);
    const customer = await createCustomer(
      inner,
      {
        ...names,
        // Who is asked for their name and gives one word says what to call them.
        firstName: names.firstName ?? name,
        displayName: name ?? t("guest"),
        language: input.language,
      },
      { channel: "chat", address: tokenHash },
    );
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
      tokenHash,
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
    await keepPiece(inner, made.id, { key: "first", text: words }, now);
    await tellChat(inner, made, subject.number, { what: "state", by: "them" });
    return made;
  });
  await openDoor(em.fork(), now);
  return { token, chat: chat.id };
}

/** The only form in which a token is stored. */
function hashOf(token: string): string {
  return digestOf(Buffer.from(token));
}

/** The chat of a window. @throws NotFound where no chat has the token */
export async function chatOf(em: EntityManager, token: string): Promise<Chat> {
  const chat = await em.findOne(Chat, { tokenHash: hashOf(token) }, { populate: ["case", "person"] });
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
    const [chat] = await query<{ state: Chat["state"] }>(
      inner,
      "select state from chats where id = ? for update",
      [id],
    );
    if (!chat) throw new NotFound(t("thereIsNoSuchChat"));
    const [known] = await query<{ piece: number }>(
      inner,
      "select piece from messages where chat_id = ? and piece_key = ?",
      [id, said.key],
    );
    if (known) return known.piece;
    if (chat.state === "ended") throw new Conflict(t("theChatHasEndedBeginAnother"));
    return keepPiece(inner, id, { ...said, text: wellFormed(said.text) }, now);
  });
}

interface KeptPiece {
  piece: number;
  case: number;
  number: number;
}

/** Keeps a piece of the customer's, in plain statements: of all that is kept here nothing comes more often. */
async function keepPiece(em: EntityManager, chat: number, said: Said, now: Date): Promise<number> {
  const [kept] = await query<KeptPiece>(
    em,
    `with next as (
       update chats set pieces = pieces + 1, said_at = ?, seen_at = ?, waiting_since = coalesce(waiting_since, ?)
        where id = ? returning id, case_id, pieces, name, email, token_hash)
     insert into messages (case_id, direction, channel, state, from_name, from_address, to_address, reply_to, subject, text,
                           chat_id, piece, piece_key, at)
     select case_id, 'in', 'chat', 'received', coalesce(name, ?), token_hash, '', email, '', ?, id, pieces, ?, ? from next
     returning piece, case_id as "case", (select number from cases where id = case_id) as number`,
    [now, now, now, chat, t("guest"), said.text, said.key, now],
  );
  if (!kept) throw new Error("The chat is gone");
  await noteReferences(em, kept.case, said.text);
  const [fresh] = await query<{ awaited: boolean }>(
    em,
    `update cases c set updated_at = ? where c.id = ?
     returning c.waiting_since is null or c.status not in ('new', 'open') as awaited`,
    [now, kept.case],
  );
  if (fresh?.awaited) {
    const subject = await em.findOneOrFail(Case, { id: kept.case }, { refresh: true });
    await awaitAnswer(em, subject, now);
    await em.flush();
  }
  await tellChat(em, { id: chat }, kept.number, { what: "pieces", by: "them" });
  await notifyCase(em, kept.number, "message");
  return kept.piece;
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
