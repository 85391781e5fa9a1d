import { describe, expect, test } from "@jest/globals";
import type { WaitingRow } from "#server/cases/waiting";
import { bandOf, inBands } from "../waiting/bands";
import fc from "fast-check";
import { exactTime, nearDay, relativeTime, timeLeft, timeLeftAlone } from "./time";

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

  test.each([
    // In Berlin 25 October 2026 has 25 hours, 28 March 2027 has 23.
    ["2026-10-24T22:00:00Z", "2026-10-25T22:59:00Z", "today"],
    ["2026-10-24T21:59:00Z", "2026-10-25T22:59:00Z", "yesterday"],
    ["2026-10-26T22:59:00Z", "2026-10-25T22:59:00Z", "tomorrow"],
    ["2026-10-26T23:00:00Z", "2026-10-25T22:59:00Z", null],
    ["2027-03-27T23:00:00Z", "2027-03-28T21:59:00Z", "today"],
    ["2027-03-28T22:00:00Z", "2027-03-28T21:59:00Z", "tomorrow"],
    ["2027-03-26T22:59:00Z", "2027-03-28T21:59:00Z", null],
  ])("%s seen from %s in Berlin is %s, when the clocks change", (date, from, day) => {
    expect(nearDay(at(date), at(from), "Europe/Berlin")).toBe(day);
  });

  test("the same day is the one that a calendar of the zone names", () => {
    const zones = ["UTC", "America/St_Johns", "Asia/Kathmandu", "Pacific/Kiritimati", "Africa/Cairo"];
    const when = { min: at("2020-01-01T00:00:00Z"), max: at("2035-01-01T00:00:00Z") };
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer(when),
        fc.integer({ min: -40 * HOUR, max: 40 * HOUR }),
        (timeZone, from, apart) => {
          const day = (date: number) => new Intl.DateTimeFormat("en-CA", { timeZone }).format(date);
          expect(nearDay(from + apart, from, timeZone) === "today").toBe(day(from + apart) === day(from));
        },
      ),
    );
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

describe("time left, standing alone", () => {
  test.each([
    [-40 * 60_000, "40 min over"],
    [2 * HOUR + 14 * 60_000, "2 h 10 left"],
    [11 * HOUR, "by tomorrow 09:30"],
    [100 * HOUR, "by 30 Nov"],
  ])("%d ms is %s", (left, words) => {
    expect(timeLeftAlone(now + left, now, "UTC")).toBe(words);
  });
});

describe("the ruler", () => {
  test("puts each case in its band, today ending at the agent's midnight", () => {
    const inTwoHours = new Date(now + 2 * HOUR).toISOString();
    expect(bandOf(new Date(now - 1).toISOString(), now, "UTC")).toBe("pastDue");
    expect(bandOf(new Date(now + HOUR).toISOString(), now, "UTC")).toBe("withinTheHour");
    expect(bandOf(inTwoHours, now, "UTC")).toBe("later");
    expect(bandOf(inTwoHours, now, "America/New_York")).toBe("today");
    expect(bandOf(null, now, "UTC")).toBe("later");
  });

  test("leaves out bands without cases and loses none", () => {
    const row = (number: number, answerBy: string | null) => ({ number, answerBy }) as WaitingRow;
    const rows = [
      row(1, null),
      row(2, new Date(now - 1).toISOString()),
      row(3, new Date(now + 60_000).toISOString()),
    ];
    const groups = inBands(rows, now, "UTC");
    expect(groups.map((group) => group.band)).toEqual(["pastDue", "withinTheHour", "later"]);
    expect(groups.flatMap((group) => group.rows)).toHaveLength(3);
  });
});
