import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { Person } from "../db/entities/people";
import type { Viewer } from "../people/viewer";
import { replyColumns, type ReplyColumn } from "./filter";

export const columnsSchema = z.array(z.enum(replyColumns)).max(replyColumns.length);

const usual: ReplyColumn[] = ["shelf", "tags", "languages", "uses", "changed"];

/** The columns of the list of replies that a person chose, in the order that they gave them. */
export async function chosenColumns(em: EntityManager, viewer: Viewer): Promise<ReplyColumn[]> {
  const person = await em.findOneOrFail(Person, { id: viewer.id });
  const chosen = person.listColumns ?? null;
  if (chosen === null) return usual;
  return [...new Set(chosen)].flatMap((one) => replyColumns.find((column) => column === one) ?? []);
}

export async function chooseColumns(
  em: EntityManager,
  viewer: Viewer,
  columns: ReplyColumn[],
): Promise<void> {
  await em.nativeUpdate(Person, { id: viewer.id }, { listColumns: columns });
}
