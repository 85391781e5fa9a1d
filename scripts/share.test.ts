import { expect, test } from "@jest/globals";
import { shareOf } from "./share";

test("tests are what stands beside code as such, the tests of the interface, and what serves both", () => {
  const files: [string, string][] = [
    ["core/tokens/format.ts", "a\n\n  \nb\n"],
    ["core/tokens/format.test.ts", "a\nb\nc"],
    ["core/testing/growth.ts", "a"],
    ["app/ui/toast.test.tsx", "a"],
    ["app/ui/testing.ts", "a"],
    ["app/ui/latest.tsx", "a"],
    ["e2e/house.ts", "a"],
    ["app/styles.css", "a\na\na"],
    ["core/ranking/vectors/english.vec", "a"],
  ];
  expect(shareOf(files)).toEqual({ lines: 10, tests: 7 });
});
