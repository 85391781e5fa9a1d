import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Condition } from "./condition";
import { evaluate, type Values } from "./evaluate";
import { wanting } from "./wanting";

const names = ["a", "b", "c"] as const;
const test1 = fc
  .constantFrom(...names)
  .map((name): Condition => ({ value: `blank.${name}`, is: "equals", to: "yes" }));
const known = fc
  .boolean()
  .map((holds): Condition => ({ value: "case.topic", is: "equals", to: holds ? "refund" : "other" }));
const { condition } = fc.letrec<{ condition: Condition }>((tie) => ({
  condition: fc.oneof(
    { depthSize: "small" },
    test1,
    known,
    tie("condition").map((one): Condition => ({ not: one })),
    fc.array(tie("condition"), { minLength: 1, maxLength: 3 }).map((all): Condition => ({ all })),
    fc.array(tie("condition"), { minLength: 1, maxLength: 3 }).map((any): Condition => ({ any })),
  ),
}));

const values = (answers: Partial<Record<string, string>>): Values => ({
  now: "2026-11-25T10:00:00Z",
  patterns: () => null,
  value(name) {
    const text = name === "case.topic" ? "refund" : answers[name.slice("blank.".length)];
    return text === undefined ? { kind: "missing", why: "" } : { kind: "value", value: text, type: "text" };
  },
});

test("a condition that waits for nothing comes out the same whatever is answered", () => {
  fc.assert(
    fc.property(
      condition,
      fc.array(fc.constantFrom("yes", "no"), { minLength: 3, maxLength: 3 }),
      (one, said) => {
        const waits = wanting(one, values({}), () => true);
        const answers = Object.fromEntries(names.map((name, index) => [name, said[index] ?? "no"]));
        if (waits.size === 0) {
          const other = Object.fromEntries(names.map((name) => [name, "no"]));
          expect(evaluate(one, values(answers)).holds).toBe(evaluate(one, values(other)).holds);
        }
        // With every answer there, nothing is waited for.
        expect(wanting(one, values(answers), () => false).size).toBe(0);
      },
    ),
  );
});

test("what is settled anyway keeps nothing open", () => {
  const refund: Condition = { value: "case.topic", is: "equals", to: "refund" };
  const asked: Condition = { value: "blank.a", is: "present" };
  const waits = (one: Condition) => [...wanting(one, values({}), () => true)];
  expect(waits({ any: [refund, asked] })).toEqual([]);
  expect(waits({ all: [{ not: refund }, asked] })).toEqual([]);
  expect(waits({ all: [refund, { not: asked }] })).toEqual(["a"]);
});
