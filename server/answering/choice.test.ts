import { describe, expect, test } from "@jest/globals";
import { editsOf, isGap } from "./choice";

describe("what was written anew", () => {
  test("nothing where the words are those of the shelf", () => {
    expect(editsOf("The ship is late.", "The ship is late.")).toEqual({ edits: [], rewritten: 0 });
    expect(editsOf("", "")).toEqual({ edits: [], rewritten: 0 });
  });

  test("words that came and went, and their share of all", () => {
    const { edits, rewritten } = editsOf("The ship is late.", "The ferry is late.");
    expect(edits.filter(({ kind }) => kind !== "same")).toEqual([
      { kind: "removed", text: "ship" },
      { kind: "added", text: "ferry" },
    ]);
    expect(rewritten).toBeCloseTo(2 / 8, 6);
    expect(editsOf("one two", "three four").rewritten).toBe(1);
  });
});

test("a gap is a letter by hand where nothing on the shelf was likely", () => {
  const answer = { reply: "fee", part: "answer" as const };
  const hello = { reply: "hello", part: "opening" as const };
  const own = { reply: null, part: "answer" as const };
  expect(isGap([hello, own], [{ fit: 0.2 }, { fit: 0.1 }])).toBe(true);
  expect(isGap([own], [])).toBe(true);
  expect(isGap([hello, own], [{ fit: 0.7 }, { fit: 0.1 }])).toBe(false);
  expect(isGap([answer], [{ fit: 0.1 }])).toBe(false);
});
