import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readOpenCase } from "../answering/open";
import { TimeEntry } from "../db/entities/notices";
import { houseRanker } from "../ranking/house-ranker";
import { caseRecord } from "../record/timeline";
import { testCase, testHouse, type TestHouse } from "../testing";
import { altogether, correctionSchema, correctTime, countTime, timeSchema, timeSpent } from "./time-spent";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  await houseRanker(house.em()).ready();
});
afterAll(() => house.close());

const start = new Date("2026-11-25T10:00:00Z");
const after = (seconds: number) => new Date(start.getTime() + seconds * 1000);
const count = (number: number, seconds: number, open: number, active: number, who = house.maren) =>
  countTime(house.em(), who, number, { open, active }, after(seconds));
const set = (number: number, minutes: number, reason = "was on the phone", more = {}, who = house.maren) =>
  correctTime(house.em(), who, number, { minutes, reason, ...more }, after(900));

describe("time at a case", () => {
  test("is counted by who was there, in sight and at work", async () => {
    const { number, id } = await testCase(house.em());
    await count(number, 30, 30, 20);
    await count(number, 60, 30, 30);
    await count(number, 60, 45, 10, house.bram);
    expect(await timeSpent(house.em(), id)).toEqual([
      { person: house.maren.id, name: "Maren Test", seconds: 50, open: 60, corrected: false },
      { person: house.bram.id, name: "Bram Test", seconds: 10, open: 45, corrected: false },
    ]);
    expect(altogether(await timeSpent(house.em(), id))).toBe(60);
  });

  test("of two windows at once is no more than went by", async () => {
    const { number, id } = await testCase(house.em());
    await count(number, 30, 30, 30);
    await count(number, 30, 30, 30);
    await count(number, 45, 30, 30);
    expect(await timeSpent(house.em(), id)).toMatchObject([{ seconds: 45, open: 45 }]);
  });

  test("told by two requests in one instant is counted once", async () => {
    const { number, id } = await testCase(house.em());
    await Promise.all([count(number, 30, 30, 30), count(number, 30, 30, 30), count(number, 30, 30, 30)]);
    expect(await timeSpent(house.em(), id)).toMatchObject([{ seconds: 30, open: 30 }]);
  });

  test("goes on from where it ended within ten minutes, and begins anew later", async () => {
    const { number, id } = await testCase(house.em());
    await count(number, 30, 30, 30);
    await count(number, 400, 30, 30);
    await count(number, 4000, 30, 30);
    expect(await house.em().count(TimeEntry, { case: id })).toBe(2);
    expect(await timeSpent(house.em(), id)).toMatchObject([{ seconds: 90 }]);
  });

  test("that is none leaves nothing", async () => {
    const { number, id } = await testCase(house.em());
    await count(number, 30, 0, 0);
    expect(await timeSpent(house.em(), id)).toEqual([]);
  });

  test("is not told of a case that is not there, nor more active than open", async () => {
    await expect(count(1, 0, 5, 5)).rejects.toThrow("There is no case");
    expect(timeSchema.safeParse({ open: 5, active: 6 }).success).toBe(false);
    expect(timeSchema.safeParse({ open: 301, active: 0 }).success).toBe(false);
  });
});

describe("time that is set right", () => {
  test("is what one says, with what was measured kept, and stands on the record with its reason", async () => {
    const { number, id } = await testCase(house.em());
    await count(number, 120, 120, 100);
    await set(number, 15);
    expect(await timeSpent(house.em(), id)).toMatchObject([{ seconds: 900, open: 120, corrected: true }]);
    await count(number, 150, 30, 30);
    expect(await timeSpent(house.em(), id)).toMatchObject([{ seconds: 930 }]);
    const { entries } = await caseRecord(house.em(), house.bram, number);
    expect(entries).toContainEqual(
      expect.objectContaining({
        who: "Maren Test",
        what: "set Maren Test’s time right from 2 minutes to 15 minutes: was on the phone",
      }),
    );
  });

  test("may be nothing, and something where nothing was measured", async () => {
    const { number, id } = await testCase(house.em());
    await set(number, 90);
    expect(await timeSpent(house.em(), id)).toMatchObject([{ seconds: 5400, open: 0 }]);
    await set(number, 0, "wrong case");
    expect(await timeSpent(house.em(), id)).toMatchObject([{ seconds: 0, corrected: true }]);
  });

  test("is another's for leads alone", async () => {
    const { number, id } = await testCase(house.em());
    await count(number, 60, 60, 60, house.bram);
    await expect(set(number, 5, "so he says", { person: house.bram.id })).rejects.toThrow(
      "This is for a lead",
    );
    await set(number, 5, "so he says", { person: house.bram.id }, { ...house.maren, role: "lead" });
    expect(await timeSpent(house.em(), id)).toMatchObject([{ name: "Bram Test", seconds: 300 }]);
  });

  test("is refused where it is that already, without a reason, and for what is no time", async () => {
    const { number } = await testCase(house.em());
    await set(number, 5);
    await expect(set(number, 5)).rejects.toThrow("It is that long already");
    await expect(set(1, 5)).rejects.toThrow("There is no case");
    await expect(set(number, 6, "x", { person: 9999 }, { ...house.maren, role: "lead" })).rejects.toThrow(
      "There is no such colleague",
    );
    for (const bad of [{ minutes: -1 }, { minutes: 1.5 }, { minutes: 6001 }, { reason: "  " }])
      expect(correctionSchema.safeParse({ minutes: 5, reason: "x", ...bad }).success).toBe(false);
  });
});

describe("a letter", () => {
  test("may say how a case stands, in the language it is written in", async () => {
    const { number } = await testCase(house.em());
    await count(number, 290, 290, 290);
    const { context } = await readOpenCase(house.em(), house.maren, number, 0, after(300));
    expect(context.case).toMatchObject({ state: "received", owner: null, time_spent: "5 minutes" });
    expect(context.written["case.state"]).toMatchObject({ language: "en" });
  });

  test("that was seen goes although time went by", async () => {
    const { number } = await testCase(house.em());
    const before = await readOpenCase(house.em(), house.maren, number, 0, start);
    await count(number, 200, 200, 200);
    const later = await readOpenCase(house.em(), house.maren, number, 0, after(200));
    expect(later.context.case.time_spent).not.toBe(before.context.case.time_spent);
    expect(later.seen).toBe(before.seen);
  });
});
