import { expect, test } from "@jest/globals";
import { personNames } from "./names";

test.each([
  ["Ana Brandt", "Ana", "Brandt"],
  ["Brandt, Ana", "Ana", "Brandt"],
  [" Ana  van der Berg ", "Ana", "van der Berg"],
  ["O’Neil, Ana Maria", "Ana Maria", "O’Neil"],
])("“%s” is a person’s name", (name, firstName, lastName) => {
  expect(personNames(name)).toMatchObject({ firstName, lastName });
});

test("either way of writing a name is the same name", () => {
  expect(personNames("Brandt, Ana").nameKey).toBe("ana brandt");
  expect(personNames("Ana Brandt").nameKey).toBe("ana brandt");
});

test.each(["Nordwind", "ana@example.com", "Buyer 48121", "", "  ", null])(
  "“%s” tells no first and last name",
  (name) => {
    expect(personNames(name)).toEqual({ firstName: null, lastName: null, nameKey: null });
  },
);
