import { expect, test } from "@jest/globals";
import { reasonOf } from "./reason";

test.each([
  [new Error("The line is cut"), "The line is cut"],
  [new TypeError("not that"), "not that"],
  ["only words", "only words"],
  [undefined, "undefined"],
])("%o says %s", (thrown, words) => {
  expect(reasonOf(thrown)).toBe(words);
});
