import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { fieldTypes, readFieldValue, type FieldType } from "./fields";

const read = (type: FieldType, given: unknown, options: string[] = []) =>
  readFieldValue({ type, options }, given);
const value = (type: FieldType, given: unknown, options: string[] = []) => {
  const found = read(type, given, options);
  return found.ok ? found.value : found.problem;
};

describe("a field’s value", () => {
  test.each<[FieldType, unknown, unknown]>([
    ["text", "  Tarn Head ", "Tarn Head"],
    ["long_text", "one\ntwo", "one\ntwo"],
    ["number", "6,5", 6.5],
    ["number", 3, 3],
    ["number", "-2", -2],
    ["money", { amount: "10", currency: "eur" }, { amount: 10, currency: "EUR" }],
    ["date", "2027-03-01", "2027-03-01"],
    ["yes_no", "no", false],
    ["yes_no", true, true],
    ["choice", "van", "van"],
    ["link", "https://example.org/a", "https://example.org/a"],
  ])("of kind %s: %j is %j", (type, given, wanted) => {
    expect(value(type, given, ["car", "van"])).toEqual(wanted);
  });

  test.each(fieldTypes)("of kind %s is taken away by nothing", (type) => {
    for (const nothing of [null, undefined, "", "   "]) expect(value(type, nothing, ["a"])).toBeNull();
    expect(value("money", { amount: " ", currency: "EUR" })).toBeNull();
  });

  test.each<[FieldType, unknown]>([
    ["number", "six"],
    ["number", "1e400"],
    ["money", { amount: 5, currency: "euros" }],
    ["money", 5],
    ["date", "2027-02-30"],
    ["date", "0001-01-01"],
    ["yes_no", "perhaps"],
    ["choice", "boat"],
    ["link", "javascript:alert(1)"],
    ["text", "x".repeat(1001)],
    ["text", { toString: 1 }],
  ])("of kind %s that is %j is refused with what is wrong", (type, given) => {
    const found = read(type, given, ["car", "van"]);
    expect(found.ok).toBe(false);
    expect(found).toHaveProperty("problem", expect.stringMatching(/\S/));
  });

  test("read again it is the same, whatever was given", () => {
    fc.assert(
      fc.property(fc.constantFrom(...fieldTypes), fc.anything(), (type, given) => {
        const once = read(type, given, ["a", "b"]);
        if (once.ok) expect(read(type, once.value, ["a", "b"])).toEqual(once);
      }),
    );
  });
});
