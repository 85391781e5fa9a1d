import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { hoursText, readHours } from "./hours-text";

test.each([
  ["9-12, 13:00–17:30", "09:00–12:00, 13:00–17:30"],
  [" 09.00 to 17.30 ", "09:00–17:30"],
  ["13-17; 9-12", "09:00–12:00, 13:00–17:00"],
  ["9-12, 11-14, 14-15", "09:00–15:00"],
  ["0–24", "00:00–24:00"],
  ["8 bis 12", "08:00–12:00"],
  ["", ""],
  [" , ", ""],
])("“%s” is read as “%s”", (text, expected) => {
  const hours = readHours(text);
  expect(hours && hoursText(hours)).toBe(expected);
});

test.each(["9", "17-9", "9-9", "9-25", "24:30-25", "9:60-10", "morning", "9-12 13-17", "9:5-10"])(
  "“%s” cannot be read",
  (text) => {
    expect(readHours(text)).toBeNull();
  },
);

test("what is written reads as what it was written from", () => {
  const minute = fc.integer({ min: 0, max: 24 * 60 });
  fc.assert(
    fc.property(fc.array(fc.tuple(minute, minute), { maxLength: 5 }), (pairs) => {
      const time = (at: number) => `${Math.floor(at / 60)}:${String(at % 60).padStart(2, "0")}`;
      const text = pairs
        .filter(([from, until]) => from < until)
        .map(([from, until]) => `${time(from)}-${time(until)}`)
        .join(", ");
      const hours = readHours(text);
      expect(hours).not.toBeNull();
      expect(readHours(hoursText(hours ?? []))).toEqual(hours);
    }),
  );
});
