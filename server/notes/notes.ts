import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { Case } from "../db/entities/cases";
import { Note, NoteMention } from "../db/entities/notes";
import { Person } from "../db/entities/people";
import { prepared, query } from "../db/sql";
import { idSchema } from "../edge";
import { NotFound } from "../errors";
import { notify, notifyCase } from "../events/notify";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { t } from "../words";

/** Most that one note is for. */
const MOST_MENTIONED = 20;

/** A note as it is written, and whom it is for. */
export const noteSchema = z.strictObject({
  text: z.string().trim().min(1, t.error("writeTheNote")).max(5000, t.error("aNoteIsShorter")),
  mentions: z.array(idSchema).max(MOST_MENTIONED).default([]),
});
export type NoteInput = z.output<typeof noteSchema>;

/** A note of a case. Times are ISO 8601 instants. */
export interface CaseNote {
  id: number;
  by: string;
  mine: boolean;
  text: string;
  at: string;
  /** Names of those whom it is for. */
  mentions: string[];
}

/** So many of a case's latest notes are shown. */
const MOST_NOTES = 100;

/** The notes of a case, the oldest first. */
export async function notesOf(em: EntityManager, caseId: number, viewer: Viewer): Promise<CaseNote[]> {
  const rows = await prepared<CaseNote>(
    em,
    `select n.id, p.name as by, n.person_id = ? as mine, n.text, n.at,
            (select coalesce(jsonb_agg(q.name order by q.name), '[]') from note_mentions m join people q on q.id = m.person_id
              where m.note_id = n.id) as mentions
       from notes n join people p on p.id = n.person_id where n.case_id = ? order by n.at desc, n.id desc limit ${MOST_NOTES}`,
    [viewer.id, caseId],
  );
  return rows.reverse().map((row) => ({ ...row, at: new Date(row.at).toISOString() }));
}

/**
 * Writes a note on a case, in the transaction that the entity manager is in; whom it is for is told at once.
 * @throws NotFound where one of them does not work here
 */
export async function addNote(
  em: EntityManager,
  viewer: Viewer,
  subject: Case,
  { text, mentions }: NoteInput,
  now: Date,
): Promise<Note> {
  const people = [...new Set(mentions)].filter((id) => id !== viewer.id);
  const found = await em.count(Person, { id: { $in: people }, leftAt: null });
  if (found < people.length) throw new NotFound(t("thereIsNoSuchColleague"));
  const note = em.create(Note, { case: subject, person: em.getReference(Person, viewer.id), text, at: now });
  for (const id of people)
    em.create(NoteMention, { note, person: em.getReference(Person, id), seenAt: null });
  await em.flush();
  for (const person of people) await notify(em, { case: null, kind: "note", person });
  await notifyCase(em, subject.number, "message");
  return note;
}

/** Writes a note on a case. @throws NotFound */
export async function writeNote(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  input: NoteInput,
  now: Date,
): Promise<{ id: number }> {
  return em.transactional(async (inner) => {
    const subject = await inner.findOne(Case, { number });
    if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
    const { id } = await addNote(inner, viewer, subject, input, now);
    return { id };
  });
}

/** A note for the viewer that they have not seen. */
export interface NoteForMe {
  case: number;
  label: string;
  by: string;
  text: string;
  at: string;
}

/** Most that are told of at once. */
const MOST_UNSEEN = 20;

/** Notes for the viewer on cases that they have not opened since, the oldest first. */
export async function notesFor(em: EntityManager, viewer: Viewer): Promise<NoteForMe[]> {
  const [rows, { house }] = await Promise.all([
    prepared<Omit<NoteForMe, "label">>(
      em,
      `select c.number as case, p.name as by, left(n.text, 300) as text, n.at
         from note_mentions m join notes n on n.id = m.note_id join cases c on c.id = n.case_id join people p on p.id = n.person_id
        where m.person_id = ? and m.seen_at is null order by n.at, n.id limit ${MOST_UNSEEN}`,
      [viewer.id],
    ),
    settingsOf(em),
  ]);
  return rows.map((row) => ({
    ...row,
    at: new Date(row.at).toISOString(),
    label: caseNumber(house, row.case),
  }));
}

/** Notes of a case are seen by somebody who has it open. */
export async function seeNotes(em: EntityManager, caseId: number, personId: number): Promise<void> {
  const seen = await query<{ note: number }>(
    em,
    `update note_mentions m set seen_at = now() from notes n
      where n.id = m.note_id and n.case_id = ? and m.person_id = ? and m.seen_at is null returning m.note_id as note`,
    [caseId, personId],
  );
  if (seen.length > 0) await notify(em, { case: null, kind: "note", person: personId });
}
