import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { tokenTypes, type TokenType } from "../tokens/catalogue";
import { networkProblem } from "./networks";
import { addressFor, pathProblem, readAnswer, referenceIn, type SourceField } from "./source";

const field = (type: TokenType, path: string, always = false): SourceField => ({
  ...{ key: "x", label: "ship", type, path, always },
});
const one = (type: TokenType, value: unknown) => readAnswer([field(type, "$.v")], { v: value });

describe("an answer of an outside system", () => {
  test.each<[TokenType, unknown, unknown]>([
    ["text", "Kittiwake", "Kittiwake"],
    ["text", 7, "7"],
    ["text", ["van", "trailer"], ["van", "trailer"]],
    ["long_text", "two\nlines", "two\nlines"],
    ["integer", 2, 2],
    ["integer", "12", 12],
    ["number", "-2.5", -2.5],
    ["money", { amount: 36, currency: "EUR", more: 1 }, { amount: 36, currency: "EUR" }],
    ["money", { amount: "36.50", currency: "EUR" }, { amount: 36.5, currency: "EUR" }],
    ["money", "36.50 EUR", { amount: 36.5, currency: "EUR" }],
    ["date", "2026-11-27", "2026-11-27"],
    ["date", "2026-11-27T07:40:00Z", "2026-11-27"],
    ["time", "07:40", "07:40"],
    ["datetime", "2026-11-27T07:40:00+01:00", "2026-11-27T07:40:00+01:00"],
    ["yes_no", true, true],
    ["yes_no", "false", false],
    ["link", "https://example.com/x", "https://example.com/x"],
    ["text", null, null],
    ["integer", "", null],
  ])("is read as %s: %j", (type, value, kept) => {
    expect(one(type, value)).toEqual({ ok: true, data: { x: kept } });
  });

  test.each<[TokenType, unknown]>([
    ["text", { a: 1 }],
    ["integer", 2.5],
    ["integer", "two"],
    ["number", "1e400000"],
    ["money", 36],
    ["money", { amount: 36, currency: "euro" }],
    ["date", "27.11.2026"],
    ["time", "25:00"],
    ["datetime", "2026-11-27T07:40:00"],
    ["yes_no", "perhaps"],
    ["link", "javascript:alert(1)"],
  ])("is not read where it is no %s: %j", (type, value) => {
    expect(one(type, value)).toEqual({ ok: false, problem: "ship: what stands at $.v is of another kind" });
  });

  test("is read wherever it stands, and one value of several places as a list", () => {
    const answer = { trip: { legs: [{ ship: "A" }, { ship: "B" }] } };
    const read = (path: string) => readAnswer([field("text", path)], answer);
    expect(read("$.trip.legs[1].ship")).toEqual({ ok: true, data: { x: "B" } });
    expect(read("$.trip.legs[*].ship")).toEqual({ ok: true, data: { x: ["A", "B"] } });
    expect(read("$.trip.legs[9].ship")).toEqual({ ok: true, data: { x: null } });
  });

  test("without what it always has is no answer", () => {
    expect(readAnswer([field("text", "$.v", true)], {})).toEqual({
      ok: false,
      problem: "ship: nothing stands at $.v",
    });
    expect(readAnswer([field("text", "$.v", true)], "a page")).toMatchObject({ ok: false });
    expect(readAnswer([], null)).toEqual({ ok: true, data: {} });
  });

  test("is never run, and never throws, whatever it holds", () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.constantFrom(...tokenTypes), (answer, type) => {
        const read = readAnswer([field(type, "$.v"), field(type, "$..constructor")], answer);
        expect(typeof read.ok).toBe("boolean");
      }),
    );
  });
});

describe("a path", () => {
  test.each(["$.ship", "$.legs[0].ship", "$['a b']", "$..ship", "$.legs[*].ship"])("may be %s", (path) => {
    expect(pathProblem(path)).toBeNull();
  });
  test.each(["ship", "$.legs[?(@.x)]", "$.legs[(1)]", ""])("may not be %s", (path) => {
    expect(pathProblem(path)).not.toBeNull();
  });
});

describe("a reference", () => {
  const pattern = String.raw`\b([A-Z0-9]{3}-[A-Z0-9]{3})\b`;
  test.each([
    [pattern, "my booking is QW7-K2M, please", "QW7-K2M"],
    [pattern, "first AB1-CD2 then QW7-K2M", "AB1-CD2"],
    ["(?i)parcel no\\.? ?([0-9]{6})", "Parcel No 123456 is lost", "123456"],
    ["[0-9]{6}", "it is 123456", "123456"],
    [pattern, "nothing here", null],
    ["(", "(", null],
    ["x*", "yyy", null],
    ["(.*)", "x".repeat(200), null],
  ])("by %s in “%s” is %s", (by, words, found) => {
    expect(referenceIn(by, words)).toBe(found);
  });

  test("is looked for in time linear in the words", () => {
    // A search that goes back and tries again would not end.
    expect(referenceIn("(a+)+$", `${"a".repeat(45_000)}b`)).toBeNull();
  });

  test("stands in an address as one part, whatever it holds", () => {
    expect(addressFor("https://x.example.com/b/{reference}?r={reference}", "A/../?#B")).toBe(
      "https://x.example.com/b/A%2F..%2F%3F%23B?r=A%2F..%2F%3F%23B",
    );
    fc.assert(
      fc.property(fc.string({ maxLength: 50 }), (reference) => {
        const asked = new URL(addressFor("https://x.example.com/b/{reference}/end", reference));
        expect(asked.host).toBe("x.example.com");
        expect(asked.pathname.split("/").length <= 4 || reference === "..").toBe(true);
      }),
    );
  });
});

describe("a network that may be asked", () => {
  test.each(["93.184.216.34", "2606:2800:220:1::1"])("is a public one: %s", (address) => {
    expect(networkProblem(address, [])).toBeNull();
  });

  test.each([
    "127.0.0.1",
    "10.1.2.3",
    "172.16.0.1",
    "192.168.1.1",
    "169.254.169.254",
    "100.64.0.1",
    "0.0.0.0",
    "224.0.0.1",
    "255.255.255.255",
    "::1",
    "::",
    "fe80::1",
    "fd00::1",
    "::ffff:127.0.0.1",
    "::ffff:10.0.0.1",
    "64:ff9b::7f00:1",
    "no address",
  ])("is not %s", (address) => {
    expect(networkProblem(address, [])).toContain("private network");
  });

  test("is one that is allowed, and no other", () => {
    const allowed = ["10.1.0.0/16", "127.0.0.1", "fd00::/8"];
    expect(networkProblem("10.1.200.3", allowed)).toBeNull();
    expect(networkProblem("::ffff:10.1.0.1", allowed)).toBeNull();
    expect(networkProblem("fd12::1", allowed)).toBeNull();
    expect(networkProblem("10.2.0.1", allowed)).not.toBeNull();
    expect(networkProblem("127.0.0.2", allowed)).not.toBeNull();
  });
});
