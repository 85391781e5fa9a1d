import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { fileName, isProgram } from "./file-name";
import { wellFormed } from "./well-formed";

test("a text that is kept has neither NUL nor half a character, and a good one stays as it is", () => {
  expect(wellFormed("a\u0000b\ud800c")).toBe("a\ufffdb\ufffdc");
  fc.assert(
    fc.property(fc.string({ unit: "binary" }), (text) => {
      const kept = wellFormed(text);
      expect(kept.isWellFormed()).toBe(true);
      expect(kept).not.toContain("\u0000");
      expect(kept).toHaveLength(text.length);
      expect(wellFormed(kept)).toBe(kept);
    }),
  );
});

describe("a file's name", () => {
  test("shows its ending where it is, however it was written", () => {
    expect(fileName("invoice\u202efdp.exe")).toBe("invoicefdp.exe");
    expect(fileName("../../etc/passwd")).toBe(".._.._etc_passwd");
    expect(fileName(" \u200b ")).toBe("unnamed");
    expect(fileName(`${"x".repeat(500)}.pdf`)).toMatch(/^x+….pdf$/);
  });

  test("tells a program, also in disguise", () => {
    for (const name of [
      "a.exe",
      "invoice\u202efdp.exe",
      "A.EXE ",
      "form.docm",
      "run.sh",
      "page.hta",
      "x.lnk.",
    ])
      expect([name, isProgram(name)]).toEqual([name, true]);
    for (const name of ["a.pdf", "exe.png", "notes.txt", "sh"])
      expect([name, isProgram(name)]).toEqual([name, false]);
  });
});
