import { describe, expect, test } from "@jest/globals";
import { blanksSchema } from "../tokens/blanks";
import { passagesSchema } from "./condition";
import { choicesOf, coverage } from "./coverage";
import { re2Patterns } from "./re2";

const blanks = blanksSchema.parse({
  way: { kind: "choice", label: "Refund or change", options: ["refund", "change", "neither"] },
  where: { kind: "choice", options: ["Osmer Quay", "Tarn Head"], many: true },
  car: { kind: "yes_no" },
  name: { kind: "text" },
});
const when = (value: string, is: string, to?: unknown) => ({
  when: { value, is, ...(to === undefined ? {} : { to }) },
});
const findings = (passages: object, uses: string[] = Object.keys(passages)) =>
  coverage(
    passagesSchema.parse(passages),
    blanks,
    uses.map((use) => ({ id: use.replace("!", ""), otherwise: use.startsWith("!") })),
    re2Patterns,
  ).map((one) => one.message);

describe("passages of one blank", () => {
  test("leave a choice uncovered", () => {
    expect(
      findings({ a: when("blank.way", "equals", "refund"), b: when("blank.way", "equals", "change") }),
    ).toEqual(["Where Refund or change is “neither”, none of its passages stands"]);
  });

  test("cover everything by an “otherwise”, which is fine", () => {
    expect(findings({ a: when("blank.way", "equals", "refund") }, ["a", "!a"])).toEqual([]);
    expect(findings({ a: when("blank.car", "equals", true) }, ["a", "!a"])).toEqual([]);
  });

  test("can never both be out, and sometimes both stand", () => {
    expect(
      findings({ a: when("blank.way", "differs", "refund"), b: when("blank.way", "differs", "change") }),
    ).toEqual(["The passages “a” and “b” overlap: one always stands, and sometimes both do"]);
  });

  test("never or always stand", () => {
    expect(
      findings({
        a: when("blank.way", "equals", "tea"),
        b: when("blank.way", "one_of", ["refund", "change", "neither"]),
      }),
    ).toEqual(["The passage “a” can never stand", "The passage “b” stands whatever is chosen"]);
  });

  test("of several choices are looked at in every combination", () => {
    expect(choicesOf(blanks.where ?? { kind: "yes_no", required: true, printed: true })).toEqual([
      ["Osmer Quay"],
      ["Tarn Head"],
      ["Osmer Quay", "Tarn Head"],
    ]);
    expect(
      findings({
        a: when("blank.where", "contains", "Osmer Quay"),
        b: when("blank.where", "contains", "Tarn Head"),
      }),
    ).toEqual(["The passages “a” and “b” overlap: one always stands, and sometimes both do"]);
  });

  test("that depend on anything else as well, or on words, are left alone", () => {
    expect(
      findings({
        a: {
          when: {
            all: [when("blank.way", "equals", "refund").when, { value: "booking.vehicle", is: "present" }],
          },
        },
        b: when("blank.name", "equals", "x"),
      }),
    ).toEqual([]);
  });
});
