import type { EntityManager } from "@mikro-orm/postgresql";
import { StandingAnswer } from "../db/entities/standing";
import { NotKnownYet } from "./best";
import { pastOccasions } from "./past";
import { ruleById } from "./rules";
import { takes, trialOf } from "./trial";

/** A rule that is for the same of the past as another. */
export interface Clash {
  name: string;
  isOn: boolean;
  /** For so many of the same. */
  count: number;
}

/** So many of the latest are compared. */
const MOST_COMPARED = 2000;

/**
 * Rules, on or off, that are for the same of the latest messages as one that was saved, in their order.
 * @returns null where ranking, which one of them asks, knows nothing yet
 * @throws NotFound
 */
export async function clashesOf(em: EntityManager, id: number, now: Date): Promise<Clash[] | null> {
  const rule = await ruleById(em, id);
  const others = await em.find(
    StandingAnswer,
    { id: { $ne: id } },
    { populate: ["reply"], orderBy: { position: "asc", id: "asc" } },
  );
  if (others.length === 0) return [];
  const trial = await trialOf(em, [rule, ...others]);
  const decide = trial.alone(rule);
  const beside = others.map((one) => ({ one, decide: trial.alone(one), count: 0 }));
  const past = await pastOccasions(em, rule.trigger ?? null, MOST_COMPARED, now);
  try {
    for await (const batch of trial.read(rule, past))
      for (const { asked, occasion } of batch) {
        const isTaken = takes(decide(asked, occasion).does);
        for (const other of beside)
          if (takes(other.decide(asked, occasion).does) && isTaken) other.count += 1;
      }
  } catch (error) {
    if (error instanceof NotKnownYet) return null;
    throw error;
  }
  return beside
    .filter(({ count }) => count > 0)
    .map(({ one, count }) => ({ name: one.name, isOn: one.switchedOnAt !== null, count }));
}
