import type { EntityManager } from "@mikro-orm/postgresql";
import type { Piece } from "#core/chat/protocol";
import { prepared, query } from "../db/sql";
import { notify } from "../events/notify";
import type { Chat } from "../db/entities/chats";

/** Most pieces that are read at once; a longer talk comes in several. */
export const MOST_PIECES = 500;

interface PieceRow {
  n: number;
  direction: "in" | "out";
  text: string;
  at: string;
  name: string | null;
  key: string | null;
  files: { id: number; name: string }[];
  asks: Piece["asks"];
}

/** The pieces of a chat behind one, in their order. @param after the last that is known; 0 for none */
export async function piecesAfter(em: EntityManager, chat: number, after: number): Promise<Piece[]> {
  const rows = await prepared<PieceRow>(
    em,
    `select m.piece as n, m.direction, m.text, m.at, p.first_name as name, m.piece_key as key,
            (select coalesce(jsonb_agg(jsonb_build_object('id', a.id, 'name', a.name) order by a.position, a.id), '[]')
               from attachments a where a.message_id = m.id) as files,
            (select coalesce(jsonb_agg(jsonb_build_object('id', a.id, 'words', q.words, 'kind', q.kind, 'options', q.options,
                      'takesRemark', q.takes_remark, 'answered', a.answered_at is not null) order by a.id), '[]')
               from asked_questions a join questions q on q.id = a.question_id where a.message_id = m.id) as asks
       from messages m left join people p on p.id = m.person_id
      where m.chat_id = ? and m.piece > ? order by m.piece limit ${MOST_PIECES}`,
    [chat, after],
  );
  return rows.map(({ n, direction, text, at, name, key, files, asks }) => ({
    n,
    from: direction === "in" ? "them" : "us",
    text,
    at: new Date(at).toISOString(),
    name,
    key,
    asks,
    files: files.map((file) => ({ name: file.name, href: `/chat/files/${file.id}` })),
  }));
}

/** The number of the next piece of a chat. Whoever else asks for one waits until this transaction is done. */
export async function nextPiece(em: EntityManager, chat: number): Promise<number> {
  const [row] = await query<{ pieces: number }>(
    em,
    "update chats set pieces = pieces + 1 where id = ? returning pieces",
    [chat],
  );
  if (!row) throw new Error("The chat is gone");
  return row.pieces;
}

/** What happened in a chat, and by whom. */
interface Happening {
  what: "pieces" | "typing" | "read" | "state";
  by: "us" | "them";
}

/** Tells every process of it: those that hold its window, and those whose agents look on. */
export async function tellChat(
  em: EntityManager,
  chat: Pick<Chat, "id">,
  caseNumber: number,
  happening: Happening,
): Promise<void> {
  await notify(em, { case: caseNumber, kind: "chat", chat: { id: chat.id, ...happening } });
}
