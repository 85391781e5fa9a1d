import { afterAll, afterEach, beforeAll, describe, expect, test } from "@jest/globals";
import type { AnswerTimeInput, CalendarInput } from "#core/forms/answer-times";
import { reckonDue } from "../cases/reckon";
import { AnswerTime, Calendar } from "../db/entities/calendars";
import { Case } from "../db/entities/cases";
import { House } from "../db/entities/people";
import { NotAllowed, NotFound } from "../errors";
import type { Viewer } from "../people/viewer";
import { testCase, testHouse, type TestHouse } from "../testing";
import {
  holidayRegions,
  listAnswerTimes,
  orderAnswerTimes,
  removeAnswerTime,
  removeCalendar,
  saveAnswerTime,
  saveCalendar,
  saveHouseTimes,
} from "./answer-times";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());
afterEach(async () => {
  await house.em().nativeUpdate(House, { id: 1 }, { calendar: null });
  await house.em().nativeDelete(AnswerTime, {});
  await house.em().nativeDelete(Calendar, {});
});

const lead = (): Viewer => ({ ...house.maren, role: "lead" });

/** A Wednesday. */
const now = new Date("2026-11-25T10:00:00Z");
const hours = { mon: "09:00–17:00", tue: "", wed: "9-12, 13-17", thu: "", fri: "", sat: "", sun: "" };
const office: CalendarInput = {
  ...{ name: "Office", timeZone: "Europe/London", hours, holidays: ["2026-11-30"] },
  ...{ country: null, region: null },
};
const soon: AnswerTimeInput = {
  ...{ channels: [], mailboxes: [], topics: [], standings: [] },
  ...{ firstWithin: 60, nextWithin: 30, calendar: null },
};
const calendar = (changes: Partial<CalendarInput> = {}, id: number | null = null) =>
  saveCalendar(house.em(), lead(), id, { ...office, ...changes });
const time = (changes: Partial<AnswerTimeInput> = {}, id: number | null = null) =>
  saveAnswerTime(house.em(), lead(), id, { ...soon, ...changes });
const list = () => listAnswerTimes(house.em(), lead(), now);

describe("business hours", () => {
  test("are kept as they are written, with the holidays that come", async () => {
    const id = await calendar({ country: "GB", region: "ENG" });
    const { calendars } = await list();
    expect(calendars).toEqual([
      {
        ...{ id, name: "Office", timeZone: "Europe/London", country: "GB", region: "ENG" },
        hours: { ...hours, wed: "09:00–12:00, 13:00–17:00" },
        holidays: ["2026-11-30"],
        coming: expect.arrayContaining([
          { date: "2026-11-30", name: "" },
          { date: "2026-12-28", name: expect.stringMatching(/Boxing Day/) },
        ]) as unknown,
      },
    ]);
    // Friday is closed all the same.
    expect(calendars[0]?.coming.map((one) => one.date)).not.toContain("2026-12-25");
  });

  test("are refused with what to mend", async () => {
    const id = await calendar();
    await expect(calendar()).rejects.toThrow("Other hours have this name");
    await expect(calendar({ country: "GB", region: "XX" }, id)).rejects.toThrow(/there are .*ENG/);
    await expect(calendar({ name: "Quay" }, 999_999)).rejects.toThrow("no such hours");
    expect(await calendar({ name: "Office and quay" }, id)).toBe(id);
    await time({ calendar: id });
    await expect(removeCalendar(house.em(), lead(), id)).rejects.toThrow("are counted by these hours");
    await expect(removeCalendar(house.em(), lead(), 999_999)).rejects.toThrow(NotFound);
  });

  test("of a country that has regions are chosen with one", () => {
    expect(holidayRegions(lead(), "gb")).toContainEqual({ code: "SCT", name: "Scotland" });
    expect(holidayRegions(lead(), "XX")).toEqual([]);
  });
});

describe("answer times", () => {
  test("a new one is tried first, others are put into order, and each tells when it would be due", async () => {
    const open = await calendar();
    const first = await time({ calendar: open, firstWithin: 180 });
    const second = await time({ channels: ["chat"] });
    expect((await list()).times.map((one) => [one.id, one.due])).toEqual([
      [second, "2026-11-25T11:00:00.000Z"],
      // Two hours until noon, one after it.
      [first, "2026-11-25T14:00:00.000Z"],
    ]);
    await orderAnswerTimes(house.em(), lead(), [first]);
    expect((await list()).times.map((one) => one.id)).toEqual([first, second]);
    await time({ channels: ["sms"], firstWithin: 10 }, second);
    expect((await list()).times[1]).toMatchObject({ id: second, channels: ["sms"], firstWithin: 10 });
    await removeAnswerTime(house.em(), lead(), first);
    expect((await list()).times.map((one) => one.id)).toEqual([second]);
    await expect(removeAnswerTime(house.em(), lead(), first)).rejects.toThrow(NotFound);
  });

  test("are refused where what they name is gone", async () => {
    await expect(time({ calendar: 999_999 })).rejects.toThrow("no such hours");
    await expect(time({ mailboxes: [999_999] })).rejects.toThrow("mailbox");
    await expect(time({}, 999_999)).rejects.toThrow("no such answer time");
  });

  test("changed, what waits is due by them", async () => {
    const { number } = await testCase(house.em());
    const due = async () => (await house.em().findOneOrFail(Case, { number })).answerBy?.toISOString();
    await time({ firstWithin: 45 });
    expect(await reckonDue(house.em(), () => now)).toBeGreaterThan(0);
    expect(await due()).toBe("2026-11-25T09:45:00.000Z");
    expect(await reckonDue(house.em(), () => now)).toBe(0);
    const open = await calendar({ hours: { ...hours, wed: "13–17" } });
    await house.em().nativeDelete(AnswerTime, {});
    await saveHouseTimes(house.em(), lead(), { calendar: open, reopenDays: 14 });
    await reckonDue(house.em(), () => now);
    expect(await due()).toBe("2026-11-25T17:00:00.000Z");
    expect((await list()).house).toMatchObject({ calendar: open, reopenDays: 14 });
  });
});

test("only leads see and change them", async () => {
  const em = house.em();
  const asAgent = [
    listAnswerTimes(em, house.bram, now),
    saveCalendar(em, house.bram, null, office),
    removeCalendar(em, house.bram, 1),
    saveAnswerTime(em, house.bram, null, soon),
    removeAnswerTime(em, house.bram, 1),
    orderAnswerTimes(em, house.bram, []),
    saveHouseTimes(em, house.bram, { calendar: null, reopenDays: 1 }),
  ];
  for (const refused of asAgent) await expect(refused).rejects.toThrow(NotAllowed);
  expect(() => holidayRegions(house.bram, "GB")).toThrow(NotAllowed);
});
