import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { counted, fileSize, times } from "./counted";

test.each([
  [0, "0 replies"],
  [1, "1 reply"],
  [2, "2 replies"],
  [10_064, "10,064 replies"],
])("%d of them are %s", (count, words) => {
  expect(counted(count, "reply", "replies")).toBe(words);
});

test.each([
  [0, "0 times"],
  [1, "once"],
  [3, "3 times"],
  [1200, "1,200 times"],
])("%d is %s", (count, words) => {
  expect(times(count)).toBe(words);
});

test.each([
  [0, "0 bytes"],
  [1, "1 byte"],
  [999, "999 bytes"],
  [1000, "1 kB"],
  [12_400, "12 kB"],
  [999_499, "999 kB"],
  [999_500, "1.0 MB"],
  [3_440_000, "3.4 MB"],
  [20_971_520, "21.0 MB"],
])("%d bytes are %s", (bytes, words) => {
  expect(fileSize(bytes)).toBe(words);
});

test("no size is told as a thousand of its unit", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 999_000_000 }), (bytes) => {
      expect(fileSize(bytes)).not.toMatch(/^(?:1,000|1000)\b/);
    }),
  );
});
