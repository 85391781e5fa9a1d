import { beforeAll, describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { calendarSchema, weekdays, type Calendar } from "./calendar";
import { dueAt, dueWords } from "./due";
import { noHolidays, publicHolidays } from "./holidays";
import { OpenHours, joined, left, type Span } from "./open-hours";

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const office: Calendar["hours"] = {
  mon: [["09:00", "17:30"]],
  tue: [["09:00", "17:30"]],
  wed: [["09:00", "17:30"]],
  thu: [["09:00", "17:30"]],
  fri: [
    ["09:00", "12:00"],
    ["13:00", "16:00"],
  ],
};
const always = Object.fromEntries(weekdays.map((day) => [day, [["00:00", "24:00"]]])) as Calendar["hours"];

const hoursOf = (hours: Calendar["hours"], more: Partial<Calendar> = {}) => {
  const calendar = calendarSchema.parse({ time_zone: "Europe/London", hours, holidays: [], ...more });
  const known = calendar.country ? publicHolidays(calendar.country, calendar.region) : null;
  if (known?.ok === false) throw new Error(known.message);
  return new OpenHours(calendar, known?.of ?? noHolidays);
};
const due = (hours: OpenHours, since: string, minutes: number, pauses: [string, string][] = []) => {
  const found = dueAt(
    hours,
    Date.parse(since),
    minutes * MINUTE,
    pauses.map(([from, until]) => ({ from: Date.parse(from), until: Date.parse(until) })),
  );
  return found && new Date(found.at).toISOString();
};

describe("when an answer is due", () => {
  const london = hoursOf(office);
  test.each([
    ["within the day", "2026-11-25T10:00:00Z", 60, "2026-11-25T11:00:00.000Z"],
    ["used up at closing, it is due at closing", "2026-11-25T16:30:00Z", 60, "2026-11-25T17:30:00.000Z"],
    ["over the night", "2026-11-25T17:00:00Z", 60, "2026-11-26T09:30:00.000Z"],
    ["it came before opening", "2026-11-25T03:00:00Z", 60, "2026-11-25T10:00:00.000Z"],
    ["it came as it closed", "2026-11-25T17:30:00Z", 60, "2026-11-26T10:00:00.000Z"],
    ["over a break at noon", "2026-11-27T11:30:00Z", 60, "2026-11-27T13:30:00.000Z"],
    ["over the weekend", "2026-11-27T15:30:00Z", 60, "2026-11-30T09:30:00.000Z"],
    ["with its seconds", "2026-11-25T10:00:12.345Z", 60, "2026-11-25T11:00:12.345Z"],
    ["no time is given", "2026-11-28T03:00:00Z", 0, "2026-11-28T03:00:00.000Z"],
  ])("%s", (_, since, minutes, expected) => {
    expect(due(london, since, minutes)).toBe(expected);
  });

  test("an hour that is passed twice counts twice, and one that is skipped not at all", () => {
    const round = hoursOf(always);
    expect(due(round, "2026-10-25T00:00:00Z", 120)).toBe("2026-10-25T02:00:00.000Z");
    const sunday = hoursOf({ sun: [["00:00", "24:00"]] });
    expect(sunday.openBetween(Date.parse("2026-10-24T00:00Z"), Date.parse("2026-10-27T00:00Z"))).toBe(
      25 * HOUR,
    );
    expect(sunday.openBetween(Date.parse("2026-03-28T00:00Z"), Date.parse("2026-03-31T00:00Z"))).toBe(
      23 * HOUR,
    );
    // From half past one to half past two stands on the wall for thirty minutes, and again for an hour.
    const night = hoursOf({ sun: [["01:30", "02:30"]] });
    expect(night.openBetween(Date.parse("2026-10-24T12:00Z"), Date.parse("2026-10-25T12:00Z"))).toBe(
      1.5 * HOUR,
    );
    expect(due(night, "2026-10-24T12:00:00Z", 31)).toBe("2026-10-25T01:31:00.000Z");
    // What would open within the hour that is skipped opens with its end.
    const skipped = hoursOf({ sun: [["01:30", "02:30"]] });
    expect(due(skipped, "2026-03-28T12:00:00Z", 30)).toBe("2026-03-29T01:30:00.000Z");
    expect(due(skipped, "2026-03-28T12:00:00Z", 31)).toBe("2026-04-05T00:31:00.000Z");
  });

  test("half an hour is skipped where clocks change by so much", () => {
    const island = hoursOf(always, { time_zone: "Australia/Lord_Howe" });
    const days = { ...always };
    const changing = hoursOf({ sun: days.sun }, { time_zone: "Australia/Lord_Howe" });
    const around = (from: string, until: string) =>
      changing.openBetween(Date.parse(from), Date.parse(until)) / HOUR;
    expect(around("2026-10-02T00:00Z", "2026-10-06T00:00Z")).toBe(23.5);
    expect(around("2026-04-03T00:00Z", "2026-04-07T00:00Z")).toBe(24.5);
    expect(due(island, "2026-10-03T12:00:00Z", 24 * 60)).toBe("2026-10-04T12:00:00.000Z");
  });

  test("a day that a zone left out has no hours", () => {
    // Samoa went from Thursday to Saturday by changing sides of the date line.
    const friday = hoursOf({ fri: [["00:00", "24:00"]] }, { time_zone: "Pacific/Apia" });
    expect(friday.openBetween(Date.parse("2011-12-29T00:00Z"), Date.parse("2012-01-01T00:00Z"))).toBe(0);
  });

  test("holidays are closed: the calendar’s own by their local date, and a country’s", () => {
    const own = hoursOf(office, { holidays: ["2026-11-26"] });
    expect(due(own, "2026-11-25T17:00:00Z", 60)).toBe("2026-11-27T09:30:00.000Z");
    const auckland = hoursOf(always, { time_zone: "Pacific/Auckland", holidays: ["2026-11-26"] });
    expect(due(auckland, "2026-11-25T10:30:00Z", 60)).toBe("2026-11-26T11:30:00.000Z");
    const country = hoursOf(office, { country: "GB", region: "ENG" });
    expect(due(country, "2026-12-24T17:00:00Z", 60)).toBe("2026-12-29T09:30:00.000Z");
  });

  test("pauses do not count, may overlap, and may begin before anybody wrote", () => {
    expect(
      due(london, "2026-11-25T10:00:00Z", 60, [
        ["2026-11-25T10:30:00Z", "2026-11-25T12:00:00Z"],
        ["2026-11-25T11:00:00Z", "2026-11-25T12:30:00Z"],
        ["2026-11-25T09:00:00Z", "2026-11-25T10:15:00Z"],
      ]),
    ).toBe("2026-11-25T13:15:00.000Z");
    expect(due(london, "2026-11-25T16:30:00Z", 60, [["2026-11-25T17:00:00Z", "2026-11-26T03:00:00Z"]])).toBe(
      "2026-11-26T09:30:00.000Z",
    );
  });

  test("whatever is never open is never due", () => {
    expect(due(hoursOf({}), "2026-11-25T10:00:00Z", 1)).toBeNull();
    expect(due(london, "2026-11-25T10:00:00Z", 60, [["2026-01-01T00:00Z", "2090-01-01T00:00Z"]])).toBeNull();
  });

  test("says why, day by day", () => {
    const hours = hoursOf(office, { country: "GB", region: "ENG" });
    const found = dueAt(hours, Date.parse("2026-12-24T16:00:00Z"), 9 * HOUR, [
      { from: Date.parse("2026-12-29T10:00Z"), until: Date.parse("2026-12-29T11:00Z") },
    ]);
    expect(found && dueWords(found, "Europe/London", "en-GB")).toEqual([
      "Thursday, 24 December 2026: 16:00 to 17:30, 1 h 30 min",
      "Tuesday, 29 December 2026: 09:00 to 17:30, 7 h 30 min",
      "Friday, 25 December 2026: closed, Christmas Day",
      "Monday, 28 December 2026: closed, Boxing Day (substitute day)",
      "paused from 29 Dec 2026, 10:00 to 29 Dec 2026, 11:00",
    ]);
    const night = dueAt(hoursOf(always), Date.parse("2026-10-24T23:30:00Z"), 60 * MINUTE * 24 * 9);
    const words = night ? dueWords(night, "Europe/London", "en-GB") : [];
    expect(words).toContain("Monday, 26 October 2026: 00:00 to 24:00, 24 h");
    expect(words).toContain("and 2 days more, 47 h 30 min");
    expect(words).toContain("Sunday, 25 October 2026: the clocks go back, and 1 h is passed twice");
  });
});

describe.each(["Europe/London", "America/New_York", "Australia/Lord_Howe"])(
  "a year of business hours, %s",
  (zone) => {
    const start = Date.UTC(2026, 0, 1);
    const minutes = 366 * 24 * 60;
    const hours = hoursOf(
      { ...office, sun: [["00:30", "03:15"]] },
      { time_zone: zone, holidays: ["2026-04-03"] },
    );
    /** Open minutes before each minute of the year, as the clock on the wall tells them one by one. */
    const before = new Int32Array(minutes + 1);

    beforeAll(() => {
      const parts = new Intl.DateTimeFormat("en-GB", {
        ...{
          weekday: "short",
          year: "numeric",
          month: "2-digit",
          day: "2-digit",
          hour: "2-digit",
          minute: "2-digit",
        },
        ...{ hourCycle: "h23", timeZone: zone },
      });
      const ranges = { ...office, sun: [["00:30", "03:15"]] } as Record<string, [string, string][]>;
      for (let minute = 0; minute < minutes; minute += 1) {
        // “Wed, 25/11/2026, 10:00”
        const said = parts.format(start + minute * MINUTE);
        const time = said.slice(-5);
        const isOpen =
          !said.includes("03/04/2026") &&
          (ranges[said.slice(0, 3).toLowerCase()] ?? []).some(
            ([from, until]) => from <= time && time < until,
          );
        before[minute + 1] = (before[minute] ?? 0) + (isOpen ? 1 : 0);
      }
    });

    const moment = fc.integer({ min: 0, max: minutes - 1 });
    const at = (minute: number) => start + minute * MINUTE;

    test("as many minutes are open between any two moments as the wall tells", () => {
      fc.assert(
        fc.property(moment, moment, (one, other) => {
          const [from, until] = [Math.min(one, other), Math.max(one, other)];
          expect(hours.openBetween(at(from), at(until))).toBe(
            ((before[until] ?? 0) - (before[from] ?? 0)) * MINUTE,
          );
        }),
      );
    });

    test("an answer is due with the last of its minutes, whatever is paused", () => {
      const pauses = fc.array(fc.tuple(moment, fc.integer({ min: 0, max: 3000 })), { maxLength: 4 });
      fc.assert(
        fc.property(
          fc.integer({ min: 0, max: 300_000 }),
          fc.integer({ min: 1, max: 6000 }),
          pauses,
          (since, within, paused) => {
            const spans: Span[] = paused.map(([from, length]) => ({
              from: at(from),
              until: at(from + length),
            }));
            const found = dueAt(hours, at(since), within * MINUTE, spans);
            expect(found).not.toBeNull();
            if (!found) return;
            expect(found.counted).toBe(within * MINUTE);
            // Counted by the wall, minute by minute.
            const without = joined(spans);
            let counted = 0;
            let minute = since;
            while (counted < within) {
              const isOpen = (before[minute + 1] ?? 0) > (before[minute] ?? 0);
              if (isOpen && !without.some((one) => one.from <= at(minute) && at(minute) < one.until))
                counted += 1;
              minute += 1;
            }
            expect(found.at).toBe(at(minute));
          },
        ),
      );
    });

    test("more time is never due earlier, and a pause never makes it earlier", () => {
      fc.assert(
        fc.property(
          moment,
          fc.nat(3000),
          fc.nat(3000),
          moment,
          fc.nat(5000),
          (since, one, more, from, length) => {
            const shorter = dueAt(hours, at(since), one * MINUTE)?.at ?? 0;
            expect(dueAt(hours, at(since), (one + more) * MINUTE)?.at).toBeGreaterThanOrEqual(shorter);
            const paused = dueAt(hours, at(since), one * MINUTE, [
              { from: at(from), until: at(from + length) },
            ]);
            expect(paused?.at).toBeGreaterThanOrEqual(shorter);
          },
        ),
      );
    });
  },
);

test("spans that touch or overlap are one, and what is left of one lies within it and outside the others", () => {
  const span = fc.tuple(fc.nat(50), fc.nat(20)).map(([from, length]) => ({ from, until: from + length }));
  fc.assert(
    fc.property(fc.array(span), span, (spans, whole) => {
      const without = joined(spans);
      const has = (list: readonly Span[], at: number) =>
        list.some(({ from, until }) => from <= at && at < until);
      const rest = [...left(whole, without)];
      for (let at = 0; at <= 70; at += 1) {
        expect(has(without, at)).toBe(has(spans, at));
        expect(has(rest, at)).toBe(has([whole], at) && !has(spans, at));
      }
    }),
  );
});

describe("a calendar", () => {
  const said = (calendar: object) => {
    const read = calendarSchema.safeParse(calendar);
    return read.success ? null : [read.error.issues[0]?.path.join("."), read.error.issues[0]?.message];
  };
  test.each([
    [{ hours: {}, time_zone: "Sollen/Sound" }, "time_zone"],
    [{ hours: { mon: [["9:00", "17:00"]] }, time_zone: "UTC" }, "hours.mon.0.0"],
    [{ hours: { mon: [["22:00", "06:00"]] }, time_zone: "UTC" }, "hours.mon.0"],
    [{ hours: { mon: [["00:00", "24:30"]] }, time_zone: "UTC" }, "hours.mon.0.1"],
    [{ hours: { monday: [] }, time_zone: "UTC" }, "hours"],
    [{ hours: {}, time_zone: "UTC", holidays: ["2026-02-30"] }, "holidays.0"],
    [{ hours: {}, time_zone: "UTC", country: "England" }, "country"],
    [{ hours: {}, time_zone: "UTC", days: [] }, ""],
  ])("%j is refused where it is wrong", (calendar, path) => {
    expect(said(calendar)?.[0]).toBe(path);
    expect(said(calendar)?.[1]).toMatch(/\S/);
  });

  test("takes holidays of countries and regions that are known, and says which there are", () => {
    expect(publicHolidays("gb", "sct")).toMatchObject({ ok: true });
    const bavaria = publicHolidays("DE", "BY");
    expect(bavaria.ok && bavaria.of(2026).get("2026-11-01")).toBe("Allerheiligen");
    expect(publicHolidays("XX")).toMatchObject({ ok: false, in: "country" });
    expect(publicHolidays("DE", "ZZ")).toMatchObject({ ok: false, in: "region" });
    expect(JSON.stringify(publicHolidays("DE", "ZZ"))).toContain("BY");
  });
});
