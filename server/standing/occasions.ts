import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import type { Occasion } from "#core/standing/occasion";
import { StandingDone } from "../db/entities/standing";
import { query } from "../db/sql";
import { idSchema } from "../edge";
import { queue } from "../queue/boss";
import { keyOfOccasion } from "#core/standing/occasion";
import { askOf, deciding } from "./asking";
import { latestOf } from "./latest";

/** A change of a case that rules are asked of, as its job has it. */
export const changeJob = z.object({
  case: idSchema,
  on: z.enum(["state", "topic", "owner"]),
  into: z.string().nullable(),
  /** ISO 8601 instant. */
  at: z.string(),
});
export type ChangeJob = z.infer<typeof changeJob>;

/** So many are queued at once. */
const AT_ONCE = 500;

/**
 * Queues what the database kept of changes for the rules to be asked of, each once, whoever looks: a process that dies
 * in the middle leaves them for the next.
 * @returns how many there were
 */
export async function queueChanges(em: EntityManager): Promise<number> {
  return em.transactional(async (inner) => {
    const found = await query<ChangeJob & { id: number }>(
      inner,
      `delete from standing_occasions where id in (select id from standing_occasions order by id limit ${AT_ONCE} for update skip locked)
        returning id, case_id as "case", "on", "into", at`,
    );
    for (const { id: _id, at, ...change } of found.sort((one, other) => one.id - other.id))
      await queue(inner, "standing", { ...change, at: new Date(at).toISOString() });
    return found.length;
  });
}

/** Does what the rules say of a change of a case, once, unless it was changed again meanwhile. */
export async function answerChange(em: EntityManager, job: ChangeJob, now: Date): Promise<void> {
  const { on, into } = job;
  const at = Date.parse(job.at);
  const occasion: Occasion = on === "owner" ? { on, at } : { on, into, at };
  await deciding(em, now, async (asking) => {
    const rules = asking.rules.filter(({ trigger }) => trigger?.on === on);
    if (rules.length === 0) return;
    const done = { case: job.case, occasion: keyOfOccasion(occasion) };
    if ((await asking.em.count(StandingDone, done)) > 0) return;
    const row = await latestOf(asking.em, job.case);
    const isStill =
      row !== null &&
      (on === "owner" ? row.is_somebodys : into === (on === "state" ? row.state_now : row.topic_now));
    if (isStill) await askOf(asking, { row, rules, occasion });
  });
}
