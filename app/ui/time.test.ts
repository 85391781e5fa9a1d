import { describe, expect, test } from "@jest/globals";
import type { WaitingRow } from "#server/cases/waiting";
import { bandOf, inBands } from "../waiting/bands";
import { exactTime, relativeTime, timeLeft } from "./time";

const now = Date.parse("2026-11-25T22:30:00Z");
const at = (text: string) => Date.parse(text);
const HOUR = 3_600_000;

describe("dates are told in the agent's zone", () => {
  test.each([
    ["2026-11-25T22:29:40Z", "UTC", "just now"],
    ["2026-11-25T21:48:00Z", "UTC", "42 min ago"],
    ["2026-11-25T09:12:00Z", "UTC", "today 09:12"],
    ["2026-11-25T09:12:00Z", "Pacific/Auckland", "yesterday 22:12"],
    ["2026-11-24T23:30:00Z", "UTC", "yesterday 23:30"],
    ["2026-11-26T08:00:00Z", "UTC", "tomorrow 08:00"],
    ["2026-10-03T08:00:00Z", "UTC", "3 Oct"],
    ["2024-10-03T08:00:00Z", "UTC", "3 Oct 2024"],
  ])("%s in %s is %s", (date, zone, words) => {
    expect(relativeTime(at(date), now, zone)).toBe(words);
  });

  test("exactly, with the zone", () => {
    expect(exactTime(at("2026-11-25T09:12:00Z"), "Europe/Berlin")).toMatch(
      /Wed.* 25 November 2026.*10:12.*(?:CET|GMT\+1)/,
    );
  });
});

describe("time left", () => {
  test.each([
    [-40 * 60_000, "40 min over"],
    [-5 * HOUR, "5 h over"],
    [-50 * HOUR, "2 days over"],
    [12 * 60_000, "12 min"],
    [2 * HOUR + 14 * 60_000, "2 h 10"],
    [11 * HOUR, "tomorrow 09:30"],
  ])("%d ms is %s", (left, words) => {
    expect(timeLeft(now + left, now, "UTC")).toBe(words);
  });
});

describe("the ruler", () => {
  test("puts each case in its band, today ending at the agent's midnight", () => {
    const inTwoHours = new Date(now + 2 * HOUR).toISOString();
    expect(bandOf(new Date(now - 1).toISOString(), now, "UTC")).toBe("Past due");
    expect(bandOf(new Date(now + HOUR).toISOString(), now, "UTC")).toBe("Within the hour");
    expect(bandOf(inTwoHours, now, "UTC")).toBe("Later");
    expect(bandOf(inTwoHours, now, "America/New_York")).toBe("Today");
    expect(bandOf(null, now, "UTC")).toBe("Later");
  });

  test("leaves out bands without cases and loses none", () => {
    const row = (number: number, answerBy: string | null) => ({ number, answerBy }) as WaitingRow;
    const rows = [
      row(1, null),
      row(2, new Date(now - 1).toISOString()),
      row(3, new Date(now + 60_000).toISOString()),
    ];
    const groups = inBands(rows, now, "UTC");
    expect(groups.map((group) => group.band)).toEqual(["Past due", "Within the hour", "Later"]);
    expect(groups.flatMap((group) => group.rows)).toHaveLength(3);
  });
});
