import type { EntityManager } from "@mikro-orm/postgresql";
import type { Condition } from "../core/conditions/condition";
import type { Effects } from "../core/standing/effects";
import type { Trigger } from "../core/standing/occasion";
import { Reply } from "../server/db/entities/library";
import { StandingAnswer } from "../server/db/entities/standing";
import { rehearseRule } from "../server/standing/rehearse";

const anyOf = (...words: string[]): Condition => ({
  any: words.map((to) => ({ value: "message.body", is: "contains", to, ignore_case: true })),
});
const isFirst: Condition = { value: "message.is_first", is: "equals", to: true };
const silent = (of: "customer" | "us", days: number): Trigger => ({ on: "silence", of, hours: 24 * days });

interface DemoRule {
  name: string;
  /** Key of its reply. */
  reply: string;
  when?: Condition;
  trigger?: Trigger;
  effects?: Effects;
  delayMinutes?: number;
  perHour?: number;
}

/** In the order in which they are asked. */
const rules: DemoRule[] = [
  {
    ...{ name: "Storm: all sailings late", reply: "all-late", perHour: 300, effects: { tags: ["storm"] } },
    when: anyOf("sailing", "late", "delay", "cancelled", "storm", "wind"),
  },
  {
    ...{ name: "Bicycles, and what they cost", reply: "bicycles", delayMinutes: 10 },
    when: anyOf("bicycle", "bike"),
  },
  {
    ...{ name: "Lost property, first questions", reply: "lost-property", delayMinutes: 10 },
    when: anyOf("i lost", "left my", "forgot"),
  },
  {
    ...{ name: "Outside our hours", reply: "outside-hours" },
    when: { all: [isFirst, { value: "message.in_hours", is: "equals", to: false }] },
  },
  { name: "Got it, and its number", reply: "received", when: isFirst, delayMinutes: 5 },
  { name: "It takes longer than we said", reply: "takes-longer", trigger: silent("us", 2) },
  { name: "Do you still need us?", reply: "still-there", trigger: silent("customer", 4), delayMinutes: 30 },
  {
    ...{ name: "Then we close", reply: "closed-for-now", trigger: silent("customer", 9), delayMinutes: 30 },
    effects: { state: "settled", tags: ["closed unanswered"] },
  },
];

/** What a ferry line may leave to rules: off, and rehearsed on what the demo's customers wrote. */
export async function seedStanding(em: EntityManager, now: Date): Promise<void> {
  const made: StandingAnswer[] = [];
  for (const [position, { reply: key, ...rule }] of rules.entries()) {
    const reply = await em.findOneOrFail(Reply, { key });
    made.push(em.create(StandingAnswer, { ...rule, reply, position, channels: ["email"], mode: "prepare" }));
  }
  await em.flush();
  for (const { id } of made) await rehearseRule(em, id, 5000, now, () => undefined);
}
