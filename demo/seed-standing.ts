import type { EntityManager } from "@mikro-orm/postgresql";
import { Reply } from "../server/db/entities/library";
import { StandingAnswer } from "../server/db/entities/standing";
import { rehearseRule } from "../server/standing/rehearse";

const inText = (to: string) => ({ value: "message.body", is: "contains" as const, to, ignore_case: true });
const anyOf = (...words: string[]) => ({ any: words.map(inText) });

/** What always has the same answer on a ferry line, as rules: off, and rehearsed on what the demo's customers wrote. */
export async function seedStanding(em: EntityManager, now: Date): Promise<void> {
  const reply = (key: string) => em.findOneOrFail(Reply, { key });
  const usual = { channels: ["email"], mode: "prepare" as const, switchedOnAt: null };
  const rules = [
    em.create(StandingAnswer, {
      ...{ ...usual, name: "Bicycles, and what they cost", reply: await reply("bicycles"), position: 0 },
      ...{ when: anyOf("bicycle", "bike"), delayMinutes: 10 },
    }),
    em.create(StandingAnswer, {
      ...{
        ...usual,
        name: "Lost property, first questions",
        reply: await reply("lost-property"),
        position: 1,
      },
      ...{ when: anyOf("i lost", "left my", "forgot"), delayMinutes: 10 },
    }),
  ];
  await em.flush();
  for (const { id } of rules) await rehearseRule(em, id, 5000, now, () => undefined);
}
