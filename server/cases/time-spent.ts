import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { durationWords } from "#core/language/duration";
import { Case, CaseEvent } from "../db/entities/cases";
import { TimeEntry } from "../db/entities/notices";
import { Person } from "../db/entities/people";
import { query } from "../db/sql";
import { idSchema } from "../edge";
import { NotFound, Unusable } from "../errors";
import { notifyCase } from "../events/notify";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** A window tells at most so much at once, in seconds. */
const MOST_AT_ONCE = 300;
/** Whoever comes back later than that begins anew: what lies between is not counted. */
const PAUSE_MS = 10 * 60_000;
const SECOND_MS = 1000;
const MOST_MINUTES = 100 * 60;

/** How long a case was in sight, and something was done on it, since a window told of it last; in seconds. */
export const timeSchema = z
  .strictObject({ open: z.int().min(0).max(MOST_AT_ONCE), active: z.int().min(0).max(MOST_AT_ONCE) })
  .refine(({ open, active }) => active <= open, t.error("noLongerThanItWasOpen"));

/** What somebody was at a case altogether, as it is set right. */
export const correctionSchema = z.strictObject({
  /** Whose time; one’s own where it is not told. */
  person: idSchema.optional(),
  minutes: z
    .int(t.error("aWholeNumberOfMinutes"))
    .min(0, t.error("atLeastZero"))
    .max(MOST_MINUTES, t.error("atMostHundredHours")),
  reason: z.string().trim().min(1, t.error("sayWhyItIsSetRight")).max(300, t.error("sayItInFewerWords")),
});

/** How long somebody was at a case, in seconds. */
export interface TimeOf {
  person: number;
  name: string;
  /** In sight and something was done, as it was set right. */
  seconds: number;
  /** In sight, as it was measured. */
  open: number;
  corrected: boolean;
}

/**
 * Counts what a window tells of the viewer's time at a case. Of several windows at once no more is counted than went by.
 * @throws NotFound
 */
export async function countTime(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  { open, active }: z.output<typeof timeSchema>,
  now: Date,
): Promise<void> {
  if (open === 0) return;
  await em.transactional(async (inner) => {
    const subject = await inner.findOne(Case, { number }, { fields: ["id"] });
    if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
    await inner.findOneOrFail(Person, { id: viewer.id }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    const latest = await inner.findOne(
      TimeEntry,
      { case: subject.id, person: viewer.id, correctedBy: null },
      { orderBy: { lastAt: "desc", id: "desc" } },
    );
    const wentBy = latest === null ? Infinity : now.getTime() - latest.lastAt.getTime();
    if (latest && wentBy <= PAUSE_MS) {
      const most = Math.max(0, Math.round(wentBy / SECOND_MS));
      latest.openSeconds += Math.min(open, most);
      latest.activeSeconds += Math.min(active, most);
      latest.lastAt = now > latest.lastAt ? now : latest.lastAt;
    } else
      inner.create(TimeEntry, {
        case: inner.getReference(Case, subject.id),
        person: inner.getReference(Person, viewer.id),
        beganAt: new Date(now.getTime() - open * SECOND_MS),
        lastAt: now,
        openSeconds: open,
        activeSeconds: active,
        correctedBy: null,
        reason: null,
      });
    await inner.flush();
  });
}

/** How long everybody was at a case, who was longest first. */
export async function timeSpent(em: EntityManager, caseId: number): Promise<TimeOf[]> {
  return query<TimeOf>(
    em,
    `select e.person_id as person, p.name, greatest(0, sum(e.active_seconds))::int as seconds, sum(e.open_seconds)::int as open,
            bool_or(e.corrected_by_id is not null) as corrected
       from time_entries e join people p on p.id = e.person_id where e.case_id = ?
      group by e.person_id, p.name having sum(e.open_seconds) > 0 or bool_or(e.corrected_by_id is not null)
      order by seconds desc, p.name`,
    [caseId],
  );
}

/** How long all together were, in seconds. */
export function altogether(times: readonly TimeOf[]): number {
  return times.reduce((sum, { seconds }) => sum + seconds, 0);
}

/**
 * Sets right how long somebody was at a case; what was measured is kept beside it, and the record says who set it right and why.
 * @throws NotFound; NotAllowed for another's time unless lead; Unusable where it is that already
 */
export async function correctTime(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  { person = viewer.id, minutes, reason }: z.output<typeof correctionSchema>,
  now: Date,
): Promise<void> {
  if (person !== viewer.id) requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const subject = await inner.findOne(Case, { number });
    if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
    const whose = await inner.findOne(Person, { id: person }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (!whose) throw new NotFound(t("thereIsNoSuchColleague"));
    const before = (await timeSpent(inner, subject.id)).find((one) => one.person === person)?.seconds ?? 0;
    if (Math.round(before / 60) === minutes) throw new Unusable(t("itIsThatLongAlready"), "minutes");
    inner.create(TimeEntry, {
      ...{ case: subject, person: whose, beganAt: now, lastAt: now, openSeconds: 0 },
      activeSeconds: minutes * 60 - before,
      correctedBy: inner.getReference(Person, viewer.id),
      reason,
    });
    const words = t("setTimeRight", {
      name: whose.name,
      from: before === 0 ? t("nothingYet") : durationWords(before, "en"),
      to: minutes === 0 ? t("nothingYet") : durationWords(minutes * 60, "en"),
      reason,
    });
    inner.create(CaseEvent, {
      ...{ case: subject, person: inner.getReference(Person, viewer.id), kind: "time" as const },
      ...{ data: { words }, at: now },
    });
    await inner.flush();
    await notifyCase(inner, number, "message");
  });
}
