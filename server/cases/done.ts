import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { Case, CaseEvent } from "../db/entities/cases";
import { Person } from "../db/entities/people";
import { NotFound } from "../errors";
import { notifyCase } from "../events/notify";
import type { Viewer } from "../people/viewer";
import { t } from "../words";

/** What was done on a case, as its customer may read it; empty for nothing. */
export const doneSchema = z.strictObject({
  words: z.string().trim().max(300, t.error("sayItInFewerWords")),
});

/** Says what was done on a case: letters read it as `case.done`. @throws NotFound */
export async function sayDone(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  { words }: z.output<typeof doneSchema>,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const subject = await inner.findOne(Case, { number }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
    const said = words === "" ? null : words;
    if (said === (subject.done ?? null)) return;
    Object.assign(subject, { done: said, updatedAt: now });
    const told = said === null ? t("tookWhatWasDoneAway") : t("saidWhatWasDone", { words });
    const person = inner.getReference(Person, viewer.id);
    inner.create(CaseEvent, { case: subject, person, kind: "notice", data: { words: told }, at: now });
    await inner.flush();
    await notifyCase(inner, number, "message");
  });
}
