import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { withChosen } from "./use-in-sight";

test("the chosen row and its neighbours are drawn, wherever the list was scrolled to", () => {
  expect(withChosen([40, 41, 42], 3, 60)).toEqual([2, 3, 4, 40, 41, 42]);
  expect(withChosen([0, 1, 2], 59, 60)).toEqual([0, 1, 2, 58, 59]);
});

test("nothing chosen adds nothing", () => {
  expect(withChosen([4, 5], -5, 60)).toEqual([4, 5]);
});

test("places are in order, once each, and in the list", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 300 }).chain((count) =>
        fc.record({
          count: fc.constant(count),
          from: fc.integer({ min: 0, max: count - 1 }),
          length: fc.integer({ min: 0, max: 40 }),
          chosen: fc.integer({ min: 0, max: count - 1 }),
        }),
      ),
      ({ count, from, length, chosen }) => {
        const sight = Array.from({ length: Math.min(length, count - from) }, (_, at) => from + at);
        const places = withChosen(sight, chosen, count);
        expect(places).toEqual([...new Set(places)].sort((a, b) => a - b));
        expect(places).toEqual(expect.arrayContaining([...sight, chosen]));
        expect(places.every((place) => place >= 0 && place < count)).toBe(true);
      },
    ),
  );
});
