import { describe, expect, test } from "@jest/globals";
import type { ChangedRow, WaitingFilter, WaitingRow } from "#server/cases/waiting";
import { isAsLoaded, isListed, withChanges } from "./use-changes";

const row = (number: number, answerBy: string | null = null): WaitingRow => ({
  number,
  label: `SF-${number}`,
  customer: "Ana",
  organisation: null,
  subject: "boat",
  words: "",
  channel: "email",
  topic: "refunds",
  answerBy,
  waitingSince: null,
  updatedAt: "2026-11-25T10:00:00Z",
  status: "new",
  assignee: null,
  people: [],
  refused: false,
});
const filter = (changes: Partial<WaitingFilter> = {}): WaitingFilter => ({
  list: "us",
  whose: "my team",
  channel: null,
  topic: null,
  text: "",
  ...changes,
});
const viewer = { id: 7, name: "Maren", teams: [1] };
const changed = (changes: Partial<ChangedRow> = {}): ChangedRow => ({
  row: row(1),
  list: "us",
  team: 1,
  assignee: null,
  ...changes,
});

test("a case is as it was loaded where only who is on it changed", () => {
  const loaded = [row(1), row(2)];
  expect(isAsLoaded(loaded, { ...row(2), people: ["Bram"] })).toBe(true);
  expect(isAsLoaded(loaded, { ...row(2), updatedAt: "2026-11-25T10:00:01Z" })).toBe(false);
  expect(isAsLoaded(loaded, { ...row(2), refused: true })).toBe(false);
  expect(isAsLoaded(loaded, row(3))).toBe(false);
});

describe("a case that changed", () => {
  test("is on the lists that choose it, and on no other", () => {
    expect(isListed(changed(), filter(), viewer)).toBe(true);
    expect(isListed(changed({ list: "customer" }), filter(), viewer)).toBe(false);
    expect(isListed(changed({ team: 2 }), filter(), viewer)).toBe(false);
    expect(isListed(changed({ team: 2 }), filter({ whose: "all" }), viewer)).toBe(true);
    expect(isListed(changed(), filter({ whose: "mine" }), viewer)).toBe(false);
    expect(isListed(changed({ assignee: 7 }), filter({ whose: "mine" }), viewer)).toBe(true);
    expect(isListed(changed({ assignee: 7 }), filter({ whose: "nobody's" }), viewer)).toBe(false);
    expect(isListed(changed(), filter({ whose: "nobody's" }), viewer)).toBe(true);
    expect(isListed(changed({ team: 2 }), filter({ whose: "nobody's" }), viewer)).toBe(false);
    expect(isListed(changed(), filter({ topic: "dogs" }), viewer)).toBe(false);
    expect(isListed(changed(), filter({ channel: "chat" }), viewer)).toBe(false);
  });

  test("stands in its place by the time left, and goes where it is answered", () => {
    const rows = [row(1, "2026-11-25T11:00:00Z"), row(2, "2026-11-25T13:00:00Z"), row(3)];
    const later = new Map([
      [4, row(4, "2026-11-25T12:00:00Z")],
      [2, null],
    ]);
    expect(withChanges(rows, later, "us").map((one) => one.number)).toEqual([1, 4, 3]);
    expect(withChanges(rows, new Map(), "us")).toBe(rows);
  });
});
