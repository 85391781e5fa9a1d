import { expect, test } from "@jest/globals";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

/** The sources below a folder, by their paths. */
function sources(folder: string): { path: string; text: string }[] {
  return readdirSync(folder, { recursive: true, encoding: "utf8" })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name))
    .map((name) => ({ path: join(folder, name), text: readFileSync(join(folder, name), "utf8") }));
}

const all = ["app", "core", "server"].flatMap(sources);
const catalogues = all.filter(({ text }) => text.includes("= wordsOf("));
const said = all
  .filter((one) => !catalogues.includes(one))
  .map(({ text }) => text)
  .join("\n");

test.each(catalogues.map(({ path, text }) => [path, text] as const))(
  "all that %s holds is said somewhere, and plurals have the forms of English",
  (_path, text) => {
    const names = [...text.matchAll(/^ {2}(\w+):/gm)].map(([, name = ""]) => name);
    expect(names.length).toBeGreaterThan(5);
    expect(names.filter((name) => !said.includes(`"${name.replace(/_(one|other)$/, "")}"`))).toEqual([]);
    const stems = (form: string) =>
      names.filter((name) => name.endsWith(form)).map((name) => name.slice(0, -form.length));
    expect(stems("_one")).toEqual(stems("_other"));
  },
);

test("every screen, the server and the second look have a catalogue", () => {
  expect(catalogues.map(({ path }) => path).sort()).toEqual([
    ...["account", "answering", "outside", "setup", "shelves", "ui", "waiting", "writing"].map(
      (screen) => `app/words/${screen}.ts`,
    ),
    "core/words/second-look.ts",
    "server/words.ts",
  ]);
});
