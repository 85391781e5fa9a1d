import { expect, test } from "@jest/globals";

process.env.DATABASE_URL ||= "postgresql://unused.example.com/x";
process.env.SESSION_SECRET ||= "x".repeat(32);
const { isSame, proofOf } = await import("./proof");

test("a proof is of its words alone, and the same each time", () => {
  expect(proofOf("letter 1", "hex")).toMatch(/^[0-9a-f]{64}$/);
  expect(proofOf("letter 1", "base64url")).toBe(
    Buffer.from(proofOf("letter 1", "hex"), "hex").toString("base64url"),
  );
  expect(proofOf("letter 1", "hex")).not.toBe(proofOf("letter 2", "hex"));
});

test.each([
  ["abc", "abc", true],
  ["abc", "abd", false],
  ["abc", "abcd", false],
  ["", "", true],
  // As many characters, but more bytes.
  ["ééé", "abc", false],
])("%j is %j: %j", (given, wanted, same) => expect(isSame(given, wanted)).toBe(same));
