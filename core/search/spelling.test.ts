import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { spelledLike, spellingDistance } from "./spelling";

test.each([
  ["wind", "wind", 0],
  ["wind", "wnid", 1],
  ["bicycle", "bycicle", 2],
  ["refund", "refnud", 1],
  ["ferry", "fery", 1],
  ["", "abc", 3],
  ["ca", "abc", 3],
  ["fähre", "fahre", 1],
])("%s and %s are %i apart", (one, other, distance) => {
  expect(spellingDistance(one, other)).toBe(distance);
});

const word = fc.stringMatching(/^[abc]{0,7}$/);

test("the distance is the same both ways, nothing for the same word, and never more than the longer word has letters", () => {
  fc.assert(
    fc.property(word, word, (one, other) => {
      const distance = spellingDistance(one, other);
      expect(distance).toBe(spellingDistance(other, one));
      expect(distance === 0).toBe(one === other);
      expect(distance).toBeLessThanOrEqual(Math.max(one.length, other.length));
      expect(distance).toBeGreaterThanOrEqual(Math.abs(one.length - other.length));
    }),
  );
});

test("two neighbours swapped are one mistake, wherever they stand", () => {
  fc.assert(
    fc.property(fc.stringMatching(/^[a-z]{2,12}$/), fc.nat(), (letters, place) => {
      const at = place % (letters.length - 1);
      const swapped = `${letters.slice(0, at)}${letters[at + 1]}${letters[at]}${letters.slice(at + 2)}`;
      expect(spellingDistance(letters, swapped)).toBe(swapped === letters ? 0 : 1);
    }),
  );
});

test("what was meant is near enough for the length of what was typed, the nearest first", () => {
  const words = ["wind", "wine", "window", "refund", "refunds", "bicycle", "bicycles", "harbour", "bus"];
  expect(spelledLike("wnid", words, 6)).toEqual(["wind"]);
  expect(spelledLike("wimd", words, 6)).toEqual(["wind"]);
  expect(spelledLike("refnud", words, 6)).toEqual(["refund", "refunds"]);
  expect(spelledLike("bycicle", words, 6)).toEqual(["bicycle", "bicycles"]);
  expect(spelledLike("bycicle", words, 1)).toEqual(["bicycle"]);
  expect(spelledLike("habuor", words, 6)).toEqual(["harbour"]);
  expect(spelledLike("accomodaton", ["accommodation"], 6)).toEqual(["accommodation"]);
  expect(spelledLike("xyzzy", words, 6)).toEqual([]);
  expect(spelledLike("xylophone", ["telephone"], 6)).toEqual([]);
});
