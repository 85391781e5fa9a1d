import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { nameFrom } from "./name";
import { readText } from "./text-form";

test("a label becomes a name that texts can hold and nothing else has", () => {
  expect(nameFrom("Which harbour?", new Set(), "blank")).toBe("which_harbour");
  expect(nameFrom("Größe in m²", new Set(), "blank")).toBe("grosse_in_m2");
  expect(nameFrom("2nd name", new Set(["nd_name", "nd_name_2"]), "blank")).toBe("nd_name_3");
  expect(nameFrom("???", new Set(["blank"]), "blank")).toBe("blank_2");
});

test("whatever the label, a placeholder of its name is read again", () => {
  fc.assert(
    fc.property(fc.string({ unit: "grapheme" }), fc.array(fc.string()), (label, taken) => {
      const name = nameFrom(label, new Set(taken), "blank");
      expect(taken).not.toContain(name);
      expect(readText(`{$blank.${name}}`).pieces).toMatchObject([{ type: "blank", attrs: { name } }]);
    }),
  );
});
