import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { testContext } from "../compose/testing";
import { valueOf } from "../tokens/values";
import { conditionSchema, MAX_MATCHED_LENGTH, operators, type Condition } from "./condition";
import { evaluate, valuesOf } from "./evaluate";
import { re2Patterns } from "./re2";
import { inWords } from "./in-words";

const blanks: Record<string, unknown> = {
  harbour: ["Tarn Head", "Pellick"],
  hours: 3,
  until: "2026-12-01",
  late: true,
};
const values = valuesOf(
  testContext(),
  (name) => valueOf(blanks[name] as never, null, "not filled in"),
  re2Patterns,
);
const holds = (json: unknown) => evaluate(conditionSchema.parse(json), values).holds;

describe("tests", () => {
  test.each([
    [{ value: "booking.vehicle", is: "present" }, true],
    [{ value: "booking.cabin", is: "missing" }, true],
    [{ value: "booking.to", is: "equals", to: "pellick" }, false],
    [{ value: "booking.to", is: "equals", to: "pellick", ignore_case: true }, true],
    [{ value: "booking.passengers", is: "equals", to: 2 }, true],
    [{ value: "blank.harbour", is: "contains", to: "Tarn Head" }, true],
    [{ value: "blank.harbour", is: "contains", to: "Tarn" }, false],
    [{ value: "message.body", is: "contains", to: "MONEY", ignore_case: true }, true],
    [{ value: "message.body", is: "matches", to: "(?i)money\\s+back$" }, true],
    [{ value: "message.subject", is: "starts", to: "friday" }, true],
    [{ value: "message.subject", is: "ends", to: "??" }, true],
    [{ value: "booking.from", is: "one_of", to: ["Osmer Quay", "Tarn Head"] }, true],
    [{ value: "booking.fare", is: "more", to: 100 }, true],
    [{ value: "blank.hours", is: "between", to: [1, 3] }, true],
    [{ value: "blank.until", is: "after", to: "now" }, true],
    [{ value: "booking.sails_at", is: "before", to: "2026-11-27" }, false],
    [{ value: "blank.late", is: "equals", to: true }, true],
    [{ value: "message.has_attachment", is: "equals", to: true }, false],
  ])("%j is %s", (condition, expected) => {
    expect(holds(condition)).toBe(expected);
  });

  test("a missing value satisfies no comparison but differs and lacks", () => {
    const to = (is: string) =>
      is === "one_of" || is === "between"
        ? ["a", "b"]
        : is === "present" || is === "missing"
          ? undefined
          : "a";
    const satisfied = operators.filter((is) => holds({ value: "booking.cabin", is, to: to(is) }));
    expect(satisfied).toEqual(["missing", "differs", "lacks"]);
  });
});

describe("joining", () => {
  const leaf = fc.constantFrom<Condition>(
    { value: "booking.vehicle", is: "present" },
    { value: "booking.cabin", is: "present" },
    { value: "blank.hours", is: "more", to: 2 },
  );
  const tree = fc.letrec<{ node: Condition }>((tie) => ({
    node: fc.oneof(
      { maxDepth: 3 },
      leaf,
      fc.record({ all: fc.array(tie("node"), { minLength: 1, maxLength: 3 }) }),
      fc.record({ any: fc.array(tie("node"), { minLength: 1, maxLength: 3 }) }),
      fc.record({ not: tie("node") }),
    ),
  })).node;

  test("not all is any not (De Morgan), and the words name every value", () => {
    fc.assert(
      fc.property(fc.array(tree, { minLength: 1, maxLength: 3 }), (parts) => {
        const notAll = evaluate({ not: { all: parts } }, values).holds;
        expect(notAll).toBe(evaluate({ any: parts.map((part) => ({ not: part })) }, values).holds);
      }),
    );
  });

  test("reads as a sentence", () => {
    const label = (name: string) =>
      ({ "blank.harbour": "Which harbour?", "booking.vehicle": "vehicle" })[name] ?? name;
    expect(
      inWords(
        {
          all: [
            { value: "booking.vehicle", is: "present" },
            {
              any: [
                { value: "blank.harbour", is: "contains", to: "Tarn Head" },
                { not: { value: "booking.animals", is: "more", to: 1 } },
              ],
            },
          ],
        },
        label,
      ),
    ).toBe(
      "vehicle is known and (Which harbour? contains “Tarn Head” or not (booking.animals is more than 1))",
    );
  });
});

describe("bad conditions", () => {
  test.each([
    [{ value: "booking.vehicle", is: "equals" }],
    [{ value: "booking.vehicle", is: "between", to: [1] }],
    [{ value: "vehicle", is: "present" }],
    [{ all: [] }],
    [{ value: "a.b", is: "matches", to: "x".repeat(501) }],
    [{ value: "a.b", is: "present", extra: 1 }],
  ])("%j is refused", (json) => {
    expect(conditionSchema.safeParse(json).success).toBe(false);
  });

  test("a regular expression that does not parse holds never, even negated, and is reported", () => {
    const bad: Condition = { value: "message.body", is: "matches", to: "(" };
    expect(evaluate(bad, values)).toMatchObject({ holds: false, problems: [expect.stringContaining("(")] });
    expect(evaluate({ not: bad }, values).holds).toBe(false);
  });

  test("a pattern that would take an exponential engine for ever gives its answer", () => {
    const long = valuesOf(
      testContext({ message: { body: "a".repeat(50_000) + "!" } }),
      () => ({ kind: "missing", why: "" }),
      re2Patterns,
    );
    expect(evaluate({ value: "message.body", is: "matches", to: "^(a+)+$" }, long).holds).toBe(false);
  });

  test.each(["a{1001}", "(a{1000}){1000}", "((a{0,50}){0,50}){0,50}"])(
    "%s repeats more often than is counted, and is reported",
    (to) => {
      const { holds, problems } = evaluate({ value: "message.body", is: "matches", to }, values);
      expect({ holds, problems: problems.length }).toEqual({ holds: false, problems: 1 });
    },
  );

  test("of a long message the beginning is looked through for a pattern, and little of it is told", () => {
    const at = (start: number) =>
      evaluate(
        { value: "message.body", is: "matches", to: "needle" },
        valuesOf(
          testContext({ message: { body: `${"hay ".repeat(start / 4)}needle` } }),
          () => ({ kind: "missing", why: "" }),
          re2Patterns,
        ),
      );
    expect(at(MAX_MATCHED_LENGTH - 8).holds).toBe(true);
    expect(at(MAX_MATCHED_LENGTH).holds).toBe(false);
    expect(at(MAX_MATCHED_LENGTH).seen[0]).toMatch(/^message\.body: hay .{200,300}…$/);
  });
});

test.each([
  ["(abc", "it lacks a closing ) at its end"],
  ["[a-", "it lacks a closing ] at its end"],
  ["abc)", "unexpected ): “abc)” at character 1"],
  ["ab**", "invalid nested repetition operator: “**” at character 3"],
  ["x(?=a)", "invalid or unsupported Perl syntax: “(?=” at character 2"],
  ["a{1001}", "invalid repeat count: “{1001}” at character 2"],
  ["x".repeat(501), "it is longer than 500 characters"],
  ["ab+c", null],
])("what is wrong with a pattern is told with its place: %s", (source, problem) => {
  expect(re2Patterns.problem?.(source)).toBe(problem);
});
