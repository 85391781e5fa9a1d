import { expect, test } from "@jest/globals";
import type { WaitingRow } from "#server/cases/waiting";
import type { Best } from "#server/ranking/kept";
import { inAlike } from "./alike";

const row = (number: number) => ({ number }) as WaitingRow;
const best = (key: string, fit: number): Best => ({
  reply: { key, title: key, mark: "M", ready: true, fit, why: "" },
});

test("cases that one reply fits stand together, the most and the surest first; those without a sure one come last", () => {
  const known = {
    2: best("dogs", 0.9),
    3: best("bikes", 0.5),
    4: { reply: null },
    5: best("bikes", 0.8),
    6: best("dogs", 0.2),
  };
  const groups = inAlike([1, 2, 3, 4, 5, 6].map(row), known);
  expect(groups.map(({ reply, rows }) => [reply?.key ?? null, rows.map((one) => one.number)])).toEqual([
    ["bikes", [5, 3]],
    ["dogs", [2]],
    [null, [1, 4, 6]],
  ]);
  expect(inAlike([], known)).toEqual([]);
});
