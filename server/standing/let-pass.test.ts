import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { standingSchema } from "#core/forms/standing";
import { testCase, testHouse, type TestHouse } from "../testing";
import { letPass } from "./let-pass";
import { answerByRules } from "./on-arrival";
import { rehearseRule } from "./rehearse";
import { saveRule, switchRule } from "./rules";

let house: TestHouse;
const lead = () => ({ ...house.maren, role: "lead" as const });
const early = new Date("2026-11-25T08:00:00Z");
const now = new Date("2026-11-25T09:00:05Z");
const em = () => house.em();
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

async function ruleFor(
  name: string,
  to: string | null,
  trigger: object = { on: "arrival" },
): Promise<number> {
  const when = to === null ? null : { value: "message.body", is: "contains", to };
  const rule = standingSchema.parse({
    ...{ name, reply: "fee", channels: [], mailboxes: [], when, trigger },
    ...{ oncePerSenderHours: 24, perHour: 60, delayMinutes: 0, stop: true, effects: {} },
  });
  const id = await saveRule(em(), lead(), null, rule);
  await rehearseRule(em(), id, 10, early, () => undefined);
  return id;
}

test("what came and a rule did nothing with is told with why, whether it is not for it or was not asked", async () => {
  await testCase(em(), "Old: what is the price?", { at: new Date("2026-11-25T07:00:00Z") });
  const [prices, all] = [await ruleFor("Prices", "price"), await ruleFor("All", null)];
  expect(await letPass(em(), lead(), prices)).toEqual([]);
  for (const id of [prices, all]) await switchRule(em(), lead(), id, "prepare", early);
  const [hat, asked, later] = [
    await testCase(em(), "Where is my hat?"),
    await testCase(em(), "What is the price?"),
    await testCase(em(), "And the price of a dog?"),
  ];
  await answerByRules(em(), [hat.message, asked.message], now);
  // Nobody has asked rules of the last one yet.
  const told = async (rule: number) =>
    (await letPass(em(), lead(), rule)).map(({ message, why }) => ({ message, why }));
  expect(await told(prices)).toEqual([
    { message: later.message, why: expect.stringContaining("no rule was asked") },
    { message: hat.message, why: expect.stringContaining("does not hold") },
  ]);
  expect(await told(all)).toEqual([
    { message: later.message, why: expect.stringContaining("no rule was asked") },
    { message: asked.message, why: "“Prices” ended the asking" },
  ]);
  const [first] = await letPass(em(), lead(), prices);
  expect(first).toMatchObject({
    ...{ case: later.number, label: `SF-${later.number}`, words: "And the price of a dog?" },
    ...{ customer: expect.stringContaining("Ana"), at: "2026-11-25T09:00:00.000Z" },
  });
  await expect(letPass(em(), house.maren, prices)).rejects.toThrow("lead");
  await expect(letPass(em(), lead(), 99_999)).rejects.toThrow("no such rule");
});

test("a rule that is asked of a silence has let no message pass", async () => {
  const rule = await ruleFor("Reminder", null, { on: "silence", of: "customer", hours: 24 });
  await switchRule(em(), lead(), rule, "prepare", early);
  expect(await letPass(em(), lead(), rule)).toEqual([]);
});
