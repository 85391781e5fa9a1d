import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { blankSchema, type Blank } from "../tokens/blanks";
import { asKind, blankFields, blankFormSchema, type BlankFields } from "./blank";

const line = fc.stringMatching(/^[A-Za-zé{$.}]([A-Za-z é]{0,10}[a-z])?$/);
const count = fc.integer({ min: 1, max: 999 });
const day = fc
  .date({ min: new Date("1990-01-01"), max: new Date("2090-01-01"), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));
const common = {
  label: fc.option(line, { nil: undefined }),
  hint: fc.option(line, { nil: undefined }),
  default: fc.option(line, { nil: undefined }),
  required: fc.boolean(),
  printed: fc.boolean(),
};
const maybe = <T>(one: fc.Arbitrary<T>) => fc.option(one, { nil: undefined });
const record = (shape: Record<string, fc.Arbitrary<unknown>>) => fc.record({ ...common, ...shape });
const blank: fc.Arbitrary<Blank> = fc
  .oneof(
    record({ kind: fc.constantFrom("text", "long_text"), max: maybe(count) }),
    record({ kind: fc.constant("number"), min: maybe(fc.integer()), max: maybe(count), step: maybe(count) }),
    record({ kind: fc.constant("money"), currency: fc.constantFrom("EUR", "SEK"), min: maybe(count) }),
    record({ kind: fc.constant("date"), min: maybe(day), max: maybe(day) }),
    record({ kind: fc.constantFrom("time", "yes_no") }),
    record({
      kind: fc.constant("choice"),
      options: fc.uniqueArray(line, { minLength: 1, maxLength: 5 }),
      many: fc.boolean(),
      join: maybe(line),
    }),
  )
  .map((made) => blankSchema.parse(JSON.parse(JSON.stringify(made))));

const text: BlankFields = blankFields({ kind: "text", required: true, printed: true });
const problems = (form: BlankFields) =>
  blankFormSchema.safeParse(form).error?.issues.map(({ path, message }) => `${path.join(".")}: ${message}`);

describe("a blank’s form", () => {
  test("gives back the blank that it shows", () => {
    fc.assert(fc.property(blank, (one) => expect(blankFormSchema.parse(blankFields(one))).toEqual(one)));
  });

  test("of any kind can be made one of any other, and keeps what all kinds have", () => {
    const kinds = fc.constantFrom<Blank["kind"][]>(
      "text",
      "number",
      "money",
      "date",
      "time",
      "choice",
      "yes_no",
    );
    fc.assert(
      fc.property(blank, kinds, (one, kind) => {
        const { label, hint, required, printed } = one;
        const read = blankFormSchema.parse(asKind(blankFields(one), kind));
        expect(read).toMatchObject(
          JSON.parse(JSON.stringify({ kind, label, hint, required, printed })) as object,
        );
        expect(read.default).toBeUndefined();
      }),
    );
  });

  test.each<[Partial<BlankFields>, string]>([
    [{ kind: "money", currency: "euro" }, "currency: Three letters, as in EUR"],
    [{ kind: "text", max: "0" }, "max: More than 0"],
    [{ kind: "text", max: "2.5" }, "max: A whole number"],
    [{ kind: "number", step: "-1" }, "step: More than 0"],
    [{ kind: "choice", options: " \n " }, "options: Write a choice at least"],
    [{ kind: "date", min: "1 March" }, "min: A day, as in 2027-03-01"],
  ])("%j is refused at its field", (changes, problem) => {
    expect(problems({ ...text, ...changes })).toEqual([problem]);
  });

  test("takes nothing from fields that its kind does not have", () => {
    expect(blankFormSchema.parse({ ...text, min: "3", step: "x", options: "a\nb", many: true })).toEqual({
      kind: "text",
      required: true,
      printed: true,
    });
  });
});
