import type { EntityManager } from "@mikro-orm/postgresql";
import { BulkChange } from "../db/entities/library";
import type { Viewer } from "../people/viewer";

/** A change of many replies that a person made. */
export interface LateChange {
  id: number;
  /** What was done, in words. */
  words: string;
  /** ISO 8601, UTC. */
  at: string;
  undone: boolean;
}

const MOST = 6;

/** The viewer's latest changes of many replies at once, the last first. */
export async function latelyChanged(em: EntityManager, viewer: Viewer): Promise<LateChange[]> {
  const found = await em.find(
    BulkChange,
    { person: viewer.id },
    { orderBy: { id: "desc" }, limit: MOST, fields: ["id", "words", "at", "undoneAt"] },
  );
  return found.map(({ id, words, at, undoneAt }) => ({
    id,
    words,
    at: at.toISOString(),
    undone: undoneAt !== null && undoneAt !== undefined,
  }));
}
