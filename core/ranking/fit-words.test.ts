import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { fitWords, staleFit } from "./fit-words";

test("a fit is told in words", () => {
  expect([1, 0.7, 0.69, 0.35, 0.34, 0.05, 0.04, 0].map(fitWords)).toEqual([
    "close fit",
    "close fit",
    "likely",
    "likely",
    "maybe",
    "maybe",
    null,
    null,
  ]);
});

test("what is behind its original is never a close fit, and stands no higher than it would", () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (fit) => {
      expect(fitWords(staleFit(fit))).not.toBe("close fit");
      expect(staleFit(fit)).toBeLessThanOrEqual(fit);
      if (fitWords(fit) !== "close fit") expect(staleFit(fit)).toBe(fit);
    }),
  );
});
