import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { withParams } from "./params";
import { emptySelection, isSelected, toggled, type Selection } from "./selection";

const page = ["a", "b", "c"];
const all: Selection = { all: true, filter: "q=boat", keys: new Set() };

describe("selection across pages", () => {
  test("takes rows in and lets them go", () => {
    const two = toggled(toggled(emptySelection, ["a"], true, page), ["x"], true, page);
    expect([isSelected(two, "a"), isSelected(two, "x"), isSelected(two, "b")]).toEqual([true, true, false]);
    expect(isSelected(toggled(two, ["a"], false, page), "a")).toBe(false);
  });

  test("of all that was found holds rows of every page, until one is let go: then the others of the page stay", () => {
    expect(isSelected(all, "on another page")).toBe(true);
    const fewer = toggled(all, ["b"], false, page);
    expect(fewer.all).toBe(false);
    expect([...fewer.keys]).toEqual(["a", "c"]);
    expect(isSelected(fewer, "on another page")).toBe(false);
  });

  test("is as before after a row was taken in and let go again", () => {
    const keys = fc.uniqueArray(fc.constantFrom("a", "b", "c", "d", "e"));
    fc.assert(
      fc.property(keys, fc.constantFrom("a", "b", "c", "d", "e"), (chosen, one) => {
        const before = toggled(emptySelection, chosen, true, page);
        const after = toggled(toggled(before, [one], true, page), [one], false, page);
        expect([...after.keys].sort()).toEqual(chosen.filter((key) => key !== one).sort());
      }),
    );
  });
});

describe("addresses of the list", () => {
  test.each([
    ["", { q: "boat" }, "/shelves?q=boat"],
    ["q=boat&page=4", { tag: "dogs" }, "/shelves?q=boat&tag=dogs"],
    ["q=boat&page=4", { page: "5" }, "/shelves?q=boat&page=5"],
    ["q=boat&tag=dogs", { q: null, tag: "" }, "/shelves"],
    ["q=a%26b", { sort: "title" }, "/shelves?q=a%26b&sort=title"],
  ])("%s with %j is %s", (from, changes: Record<string, string | null>, to) => {
    expect(withParams(new URLSearchParams(from), changes)).toBe(to);
  });
});
