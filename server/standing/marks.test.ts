import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { standingSchema } from "#core/forms/standing";
import { StandingMark } from "../db/entities/standing";
import { eventually, testCase, testHouse, type TestHouse } from "../testing";
import { asSent, markMessage, namesOfRules } from "./marks";
import { beginRehearsal, endRehearsal, rehearsalOf } from "./rehearsals";
import { saveRule } from "./rules";

let house: TestHouse;
let rule: number;
const lead = () => ({ ...house.maren, role: "lead" as const });
const now = new Date("2026-11-25T10:00:00Z");
const em = () => house.em();
beforeAll(async () => {
  house = await testHouse();
  const made = (reply: string) =>
    standingSchema.parse({
      ...{ name: "Prices", reply, channels: [], mailboxes: [], when: null },
      ...{ oncePerSenderHours: 24, perHour: 60, delayMinutes: 0, stop: true },
      ...{ trigger: { on: "arrival" }, effects: {} },
    });
  rule = await saveRule(em(), lead(), null, made("fee"));
});
afterAll(() => house.close());

test("what a rule would send reads as a letter to who wrote, and nothing of it is kept", async () => {
  const one = await testCase(em(), "What does it cost?");
  const { text, stops } = await asSent(em(), lead(), rule, one.message, now);
  expect(text).toContain("Hello Ana,");
  expect(text).toMatch(/A change costs €6\.00/);
  expect(stops).toBeNull();
  const sent = await em().execute<{ count: string }[]>(
    "select count(*) from messages where direction = 'out'",
  );
  expect(Number(sent[0]?.count)).toBe(0);
  await expect(asSent(em(), lead(), rule, 99999, now)).rejects.toThrow("no such message");
  await expect(asSent(em(), house.maren, rule, one.message, now)).rejects.toThrow("lead");
});

test("what somebody says of a message is kept once, changed, and taken back", async () => {
  const one = await testCase(em());
  const said = async () =>
    (await em().find(StandingMark, { message: one.message })).map((mark) => mark.should);
  await markMessage(em(), lead(), rule, one.message, true, now);
  await markMessage(em(), lead(), rule, one.message, false, now);
  expect(await said()).toEqual([false]);
  await markMessage(em(), lead(), rule, one.message, null, now);
  expect(await said()).toEqual([]);
  // Whoever has the case may say so, of a rule that there is.
  await markMessage(em(), house.bram, rule, one.message, true, now);
  expect(await said()).toEqual([true]);
  await expect(markMessage(em(), house.bram, 99999, one.message, true, now)).rejects.toThrow("no such rule");
  expect(await namesOfRules(em())).toContainEqual({ id: rule, name: "Prices" });
});

test("a rehearsal runs in a thread of its own, and is given up or read when it is done", async () => {
  await testCase(em(), "What does it cost?");
  expect(rehearsalOf(em(), lead(), rule)).toEqual({ kind: "none" });
  await beginRehearsal(em(), lead(), rule, 100);
  await expect(beginRehearsal(em(), lead(), rule, 100)).rejects.toThrow("being rehearsed already");
  await endRehearsal(em(), lead(), rule);
  const state = () => Promise.resolve(rehearsalOf(em(), lead(), rule));
  expect(await eventually(state, ({ kind }) => kind !== "read")).toEqual({ kind: "none" });
  await beginRehearsal(em(), lead(), rule, 100);
  const done = await eventually(state, ({ kind }) => kind !== "read");
  expect(done).toMatchObject({ kind: "done", rehearsal: { figures: { otherwise: 0 } } });
  await expect(beginRehearsal(em(), house.bram, rule, 100)).rejects.toThrow("lead");
  expect(() => rehearsalOf(em(), house.bram, rule)).toThrow("lead");
}, 60_000);
