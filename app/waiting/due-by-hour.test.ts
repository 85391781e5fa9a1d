import { expect, test } from "@jest/globals";
import { HOURS, dueByHour } from "./due-by-hour";

const now = Date.parse("2026-11-25T10:20:00Z");
const row = (answerBy: string | null) => ({ answerBy });
const told = (rows: { answerBy: string | null }[], timeZone = "Europe/London", at = now) =>
  dueByHour(rows, at, timeZone)
    .filter(({ due }) => due > 0)
    .map(({ hour, due }) => `${hour}: ${due}`);

test("cases are told of by the hour of the clock in which they come due", () => {
  const rows = [
    row("2026-11-25T10:40:00Z"),
    row("2026-11-25T10:59:59Z"),
    row("2026-11-25T11:00:00Z"),
    row("2026-11-25T21:59:00Z"),
  ];
  expect(told(rows)).toEqual(["11: 2", "12: 1", "22: 1"]);
  expect(told(rows, "Asia/Kolkata")).toEqual(["17: 3"]);
});

test("what is past due, has no time, or comes later than the hours ahead, is none of them", () => {
  const rows = [row("2026-11-25T10:19:00Z"), row(null), row("2026-11-25T22:00:00Z")];
  expect(told(rows)).toEqual([]);
  expect(dueByHour(rows, now, "Europe/London")).toHaveLength(HOURS);
});

test("an hour that the clock passes twice is two hours", () => {
  const hours = dueByHour([row("2026-10-25T01:30:00Z")], Date.parse("2026-10-25T00:10:00Z"), "Europe/London");
  expect(hours.slice(0, 3).map(({ hour, due }) => [hour, due])).toEqual([
    ["01", 0],
    ["02", 1],
    ["03", 0],
  ]);
});
