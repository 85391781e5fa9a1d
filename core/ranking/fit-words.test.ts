import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { fitWords, staleFit } from "./fit-words";

test("what is behind its original is never a close fit, and stands no higher than it would", () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (fit) => {
      expect(fitWords(staleFit(fit))).not.toBe("close fit");
      expect(staleFit(fit)).toBeLessThanOrEqual(fit);
      if (fitWords(fit) !== "close fit") expect(staleFit(fit)).toBe(fit);
    }),
  );
});
