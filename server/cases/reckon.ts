import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import { oursStates } from "#core/words/case-states";
import { Case } from "../db/entities/cases";
import { notifyCase } from "../events/notify";
import { settingsOf } from "../house/settings";
import { dueAnew } from "./due";

/** So many cases are reckoned at once, in one transaction. */
const AT_ONCE = 100;

/**
 * Reckons anew by when each waiting case is to be answered, after what it is reckoned by was changed.
 * @returns how many are due at another time
 */
export async function reckonDue(em: EntityManager, now: () => Date): Promise<number> {
  let changed = 0;
  // Kept outside of transactions, and read from there within them.
  await settingsOf(em);
  for (let after = 0; ;) {
    const last = await em.fork().transactional(async (inner) => {
      const waiting = await inner.find(
        Case,
        { id: { $gt: after }, status: { $in: [...oursStates] }, waitingSince: { $ne: null } },
        { orderBy: { id: "asc" }, limit: AT_ONCE, lockMode: LockMode.PESSIMISTIC_WRITE },
      );
      for (const subject of waiting) {
        const due = await dueAnew(inner, subject, now());
        if (due?.getTime() === subject.answerBy?.getTime()) continue;
        subject.answerBy = due;
        changed += 1;
        await inner.flush();
        await notifyCase(inner, subject.number, "presence");
      }
      return waiting.length < AT_ONCE ? null : (waiting.at(-1)?.id ?? null);
    });
    if (last === null) return changed;
    after = last;
  }
}
