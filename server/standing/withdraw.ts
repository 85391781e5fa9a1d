import type { EntityManager } from "@mikro-orm/postgresql";
import { CaseNotice } from "../db/entities/notices";
import { isTakenBack } from "../sending/schedule";

/** The customer has written: what rules prepared about the silence is let be, and what has not left stays here. */
export async function withdrawSilences(em: EntityManager, caseId: number, now: Date): Promise<void> {
  await withdraw(em, { case: caseId, on: "silence" }, now);
}

/** A change of cases is undone: so is what rules did about it since, as far as it has not left. */
export async function withdrawChanges(
  em: EntityManager,
  cases: number[],
  since: Date,
  now: Date,
): Promise<void> {
  const on = { $in: ["state" as const, "topic" as const, "owner" as const] };
  await withdraw(em, { case: { $in: cases }, on, at: { $gte: since } }, now);
}

async function withdraw(em: EntityManager, which: object, now: Date): Promise<void> {
  const known = await em.find(
    CaseNotice,
    { ...which, done: { $ne: null }, state: { $in: ["offered", "held", "queued"] } },
    { populate: ["message"] },
  );
  for (const one of known) {
    if (one.message == null) one.state = "declined";
    else if (await isTakenBack(em, one.message.id, now)) one.state = "called back";
  }
  await em.flush();
}
