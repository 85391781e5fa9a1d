import { expect, test } from "@jest/globals";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

const files = readdirSync("app", { recursive: true, encoding: "utf8" }).filter(
  (name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name),
);
const catalogues = files.filter((name) => /^words\/(?!words-of|sentence)/.test(name));
const screens = files
  .filter((name) => !name.startsWith("words/"))
  .map((name) => readFileSync(join("app", name), "utf8"))
  .join("\n");

test.each(catalogues)(
  "all that %s holds is said somewhere, and plurals have the forms of English",
  (name) => {
    const names = [...readFileSync(join("app", name), "utf8").matchAll(/^ {2}(\w+):/gm)].map(
      ([, key = ""]) => key,
    );
    expect(names.length).toBeGreaterThan(5);
    expect(names.filter((key) => !screens.includes(`"${key.replace(/_(one|other)$/, "")}"`))).toEqual(
      // What is told by a near day is named by it.
      name === "words/ui.ts"
        ? ["yesterday", "today", "tomorrow"].filter((day) => !screens.includes(`"${day}"`))
        : [],
    );
    const stems = (form: string) =>
      names.filter((key) => key.endsWith(form)).map((key) => key.slice(0, -form.length));
    expect(stems("_one")).toEqual(stems("_other"));
  },
);
