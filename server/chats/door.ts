import type { EntityManager } from "@mikro-orm/postgresql";
import { Chat } from "../db/entities/chats";
import { CaseEvent } from "../db/entities/cases";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { notify } from "../events/notify";
import { tellChat } from "./pieces";

/** Whoever's Chats were open within so long is there. */
const THERE_SECONDS = 45;

/** A lock by which one process at a time decides who takes whom. */
const DOOR = 7423;

/** Whether anybody of us takes chats just now. */
export async function isAnybodyThere(em: EntityManager, now: Date): Promise<boolean> {
  const [row] = await query<{ there: boolean }>(
    em,
    "select exists (select 1 from people where active and chat_limit > 0 and chat_seen_at > ?) as there",
    [since(now)],
  );
  return row?.there === true;
}

const since = (now: Date) => new Date(now.getTime() - THERE_SECONDS * 1000);

interface Free {
  id: number;
  open: number;
  most: number;
}

/**
 * Lets in who waits at the door, the longest first: each to whom of us has the fewest chats and takes more. A chat
 * whose agent is gone is at the door again, before all others, with all that was said.
 * @returns how many were let in
 */
export async function openDoor(em: EntityManager, now: Date): Promise<number> {
  return em.transactional(async (inner) => {
    await query(inner, "select pg_advisory_xact_lock(?)", [DOOR]);
    const left = await inner.find(
      Chat,
      {
        state: "open",
        $or: [
          { person: null },
          { person: { $or: [{ chatSeenAt: null }, { chatSeenAt: { $lt: since(now) } }, { active: false }] } },
        ],
      },
      { populate: ["case", "person"] },
    );
    for (const chat of left) {
      chat.state = "waiting";
      // Whoever was there is told to whoever comes.
      chat.waitingSince ??= now;
      inner.create(CaseEvent, {
        case: chat.case,
        person: chat.person ?? null,
        kind: "handed over",
        data: {},
        at: now,
      });
      chat.person = null;
    }
    if (left.length > 0) await inner.flush();
    const free = await query<Free>(
      inner,
      `select p.id, p.chat_limit as most,
              (select count(*)::int from chats c where c.person_id = p.id and c.state = 'open') as open
         from people p where p.active and p.chat_limit > 0 and p.chat_seen_at > ? order by p.id`,
      [since(now)],
    );
    const waiting = await inner.find(
      Chat,
      { state: "waiting" },
      { orderBy: { openedAt: "asc", id: "asc" }, populate: ["case"] },
    );
    const letIn: Chat[] = [];
    for (const chat of waiting) {
      const [next] = free.filter((one) => one.open < one.most).sort((a, b) => a.open - b.open || a.id - b.id);
      if (!next) break;
      next.open += 1;
      chat.state = "open";
      chat.person = inner.getReference(Person, next.id);
      chat.takenAt ??= now;
      chat.case.assignee = chat.person;
      letIn.push(chat);
    }
    if (left.length + letIn.length === 0) return 0;
    await inner.flush();
    // Who still waits has another place, now; of those who left, all are among them.
    for (const chat of waiting) await tellChat(inner, chat, chat.case.number, { what: "state", by: "us" });
    for (const chat of letIn) await notify(inner, { case: null, kind: "queue", changed: chat.case.number });
    return letIn.length;
  });
}

/** Tells all who wait at the door that the row is another one. */
export async function tellRow(em: EntityManager): Promise<void> {
  const waiting = await em.find(Chat, { state: "waiting" }, { populate: ["case"] });
  for (const chat of waiting) await tellChat(em, chat, chat.case.number, { what: "state", by: "us" });
}

/** The place in the row at the door, from 1. */
export async function placeAtDoor(em: EntityManager, chat: Chat): Promise<number> {
  const [row] = await query<{ before: number }>(
    em,
    "select count(*)::int as before from chats where state = 'waiting' and (opened_at, id) < (?, ?)",
    [chat.openedAt, chat.id],
  );
  return (row?.before ?? 0) + 1;
}
