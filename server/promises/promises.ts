import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { Case, CaseEvent } from "../db/entities/cases";
import { Promised } from "../db/entities/promises";
import { Person } from "../db/entities/people";
import { daySchema } from "../edge";
import { Conflict, NotFound, Unusable } from "../errors";
import { notifyCase } from "../events/notify";
import { noticeOn, type Noticed } from "../notices/on-change";
import { settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { localDate } from "#core/clock/offsets";
import { t } from "../words";

/** What is promised, in words, and the last day for it. */
export const promiseSchema = z.strictObject({
  words: z.string().trim().min(1, t.error("sayWhatIsPromised")).max(300, t.error("sayItInFewerWords")),
  by: daySchema,
});

/** What came of a promise. */
export const outcomeSchema = z.strictObject({ outcome: z.enum(["kept", "withdrawn"]) });

/** Keeps what a customer was promised on a case; they are told of it where a notice is for that. @throws NotFound; Unusable for a day that has passed */
export async function makePromise(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  { words, by }: z.output<typeof promiseSchema>,
  now: Date,
): Promise<{ id: number; notice: Noticed | null }> {
  return em.transactional(async (inner) => {
    const subject = await inner.findOne(Case, { number });
    if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
    const { house } = await settingsOf(inner);
    if (by < localDate(house.timeZone, now.getTime())) throw new Unusable(t("thatDayHasPassed"), "by");
    const person = inner.getReference(Person, viewer.id);
    const made = inner.create(Promised, { case: subject, person, words, by, at: now, outcome: null });
    tell(inner, subject, viewer, t("promised", { words, by }), now);
    await inner.flush();
    const notice = await noticeOn(inner, viewer, subject, { on: "promise", into: null, change: null }, now);
    await notifyCase(inner, number, "message");
    return { id: made.id, notice };
  });
}

/** Says what came of a promise. @throws NotFound; Conflict where something did already */
export async function settlePromise(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  outcome: "kept" | "withdrawn",
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const made = await inner.findOne(Promised, { id }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (!made) throw new NotFound(t("thereIsNoSuchPromise"));
    if (made.outcome !== null) throw new Conflict(t("thatPromiseIsSettled"));
    const subject = await inner.findOneOrFail(Case, { id: made.case.id });
    Object.assign(made, { outcome, settledBy: inner.getReference(Person, viewer.id), settledAt: now });
    const { words } = made;
    tell(
      inner,
      subject,
      viewer,
      outcome === "kept" ? t("keptPromise", { words }) : t("withdrewPromise", { words }),
      now,
    );
    await inner.flush();
    await notifyCase(inner, subject.number, "message");
  });
}

function tell(em: EntityManager, subject: Case, viewer: Viewer, words: string, at: Date): void {
  const person = em.getReference(Person, viewer.id);
  em.create(CaseEvent, { case: subject, person, kind: "promise", data: { words }, at });
}
