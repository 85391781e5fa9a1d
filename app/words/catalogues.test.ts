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

/** By its name, or as what a shortcut of that name does. */
function isSaid(name: string): boolean {
  return said.includes(`"${name}"`) || new RegExp(`^  ${name}: \\{`, "m").test(said);
}

test.each(catalogues.map(({ path, text }) => [path, text] as const))(
  "all that %s holds is said somewhere, and plurals have the forms of English",
  (_path, text) => {
    const names = [...text.matchAll(/^ {2}(\w+):/gm)].map(([, name = ""]) => name);
    expect(names.length).toBeGreaterThan(2);
    expect(names.filter((name) => !isSaid(name.replace(/_(?:one|other)$/, "")))).toEqual([]);
    const stems = (form: string) =>
      names.filter((name) => name.endsWith(form)).map((name) => name.slice(0, -form.length));
    expect(stems("_one")).toEqual(stems("_other"));
  },
);

test("every screen, the server and each part of the core have a catalogue, under a name of its own", () => {
  expect(catalogues.map(({ path }) => path).sort()).toEqual([
    ...[
      "account",
      "answering",
      "chats",
      "keys",
      "outside",
      "public",
      "record",
      "report",
      "setup",
      "shelves",
      "standing",
      "ui",
    ].map((screen) => `app/words/${screen}.ts`),
    "app/words/waiting.ts",
    "app/words/writing.ts",
    ...[
      "checks",
      "clock",
      "conditions",
      "details",
      "forms",
      "labels",
      "letters",
      "library",
      "mail",
      "names",
      "questions",
      "ranking",
    ].map((part) => `core/words/${part}.ts`),
    "core/words/second-look.ts",
    "core/words/sms.ts",
    "core/words/standing.ts",
    "core/words/tokens.ts",
    "server/words.ts",
  ]);
  const kept = catalogues.map(({ text }) => /= wordsOf\("([^"]+)"/.exec(text)?.[1]);
  expect(new Set(kept).size).toBe(catalogues.length);
});
