import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { documentSchema } from "../document/schema";
import { toPlainText } from "../document/text";
import { readFolder } from "./folder";
import { readLibraryFile } from "./library";
import { readMarkdown } from "./markdown";

const inlines = (markdown: string) => {
  const [block] = readMarkdown(markdown).doc.content;
  return block?.type === "paragraph" ? block.content : null;
};

describe("Markdown", () => {
  test("placeholders keep their colons and bars, in paragraphs and in table cells", () => {
    const token = {
      type: "token",
      attrs: { name: "customer.first_name", fn: "text", options: { fallback: "dear | guest" } },
    };
    expect(inlines("{$customer.first_name :text fallback=|dear \\| guest|}")).toEqual([token]);
    const cell = readMarkdown("| a |\n|---|\n| {$x.y :text fallback=\\|none yet\\|} |").doc.content[0];
    expect(JSON.stringify(cell)).toContain('"options":{"fallback":"none yet"}');
  });

  test("a colon in ordinary words is no directive, an escaped brace is a brace", () => {
    expect(inlines("Open:daily from 05:30, note:this \\{not a token}")).toEqual([
      { type: "text", text: "Open:daily from 05:30, note:this " },
      { type: "text", text: "{", marks: [{ type: "literal" }] },
      { type: "text", text: "not a token}" },
    ]);
  });

  test("passages around blocks, words, items and rows", () => {
    const { doc, problems } = readMarkdown(
      "::::passage{#a}\n:::passage{#b otherwise}\nA\n:::\n::::\n\n- x :passage[y]{#c} z\n- :passage[**all** of it]{#d}\n\n| H |\n|---|\n| :row{#e} R |",
    );
    expect(problems).toEqual([]);
    const ref = (id: string, otherwise = false) => ({ id, otherwise });
    expect(doc.content[0]).toMatchObject({ attrs: { passages: [ref("a"), ref("b", true)] } });
    expect(doc.content[1]).toMatchObject({
      content: [
        {
          attrs: { passages: [] },
          content: [
            {
              content: [
                { text: "x " },
                { text: "y", marks: [{ attrs: { passages: [ref("c")] } }] },
                { text: " z" },
              ],
            },
          ],
        },
        {
          attrs: { passages: [ref("d")] },
          content: [{ content: [{ text: "all", marks: [{ type: "bold" }] }, { text: " of it" }] }],
        },
      ],
    });
    expect(doc.content[2]).toMatchObject({
      content: [
        {},
        { attrs: { passages: [ref("e")] }, content: [{ content: [{ content: [{ text: "R" }] }] }] },
      ],
    });
  });

  test("what it has no node for stays as text, with a report where it matters", () => {
    const { doc, problems } = readMarkdown("<div>hi</div>\n\n```\ncode\n```\n\n:passage[x]");
    expect(toPlainText(doc.content)).toBe("<div>hi</div>\n\ncode\n\n:passage[x]");
    expect(problems).toEqual([
      { message: "HTML is not read here; it stays as text", line: 1, column: 1 },
      { message: "A passage names its condition, as in {#car}", line: 7, column: 1 },
    ]);
  });

  test("whatever is read is a document", () => {
    const bits = fc.constantFrom(
      "- ",
      "1. ",
      "> ",
      "| a |\n|---|\n",
      "**",
      "{$a.b}",
      "{$a.b :date",
      ":passage[x]{#a}",
      ":::passage{#a}\n",
      ":::\n",
      "\n",
      "\n\n",
      "text ",
      "# ",
      "![x](y)",
      "[z](q)",
      "<b>",
      "`c`",
      "\\",
      "~~",
      "[^1]",
      "---\n",
      "    ",
    );
    fc.assert(
      fc.property(fc.array(bits, { maxLength: 30 }), (parts) => {
        const { doc } = readMarkdown(parts.join(""));
        expect(documentSchema.safeParse(doc)).toMatchObject({ success: true, data: doc });
      }),
      { numRuns: 400 },
    );
  });
});

describe("a folder", () => {
  const reply = (id: string, more = "") => `---\nid: ${id}\ntitle: T ${id}\n${more}---\nBody of ${id}.\n`;

  test("reads replies by shelf with their variants, facts and shelves", () => {
    const { library, problems } = readFolder([
      { path: "weather/b.md", text: reply("b") },
      {
        path: "weather/b.de.md",
        text: "\uFEFF---\r\nvariant_of: b\r\nlanguage: de\r\nsubject: Wetter\r\n---\r\nText.\r\n",
      },
      {
        path: "library.yaml",
        text: "shelves:\n  - { id: weather, name: Weather, mark: W }\nhouse_facts:\n  fee: { label: Fee, type: money, value: { amount: 6, currency: EUR } }\n",
      },
      { path: "notes.txt", text: "ignored" },
    ]);
    expect(problems).toEqual([]);
    expect(library.shelves).toEqual([{ id: "weather", name: "Weather", mark: "W" }]);
    expect(library.replies).toMatchObject([
      {
        id: "b",
        shelf: "weather",
        part: "answer",
        channels: ["email"],
        variants: [{ language: "en" }, { language: "de", subject: "Wetter" }],
      },
    ]);
  });

  test("reports what is wrong with its place, and reads the rest", () => {
    const { library, problems } = readFolder([
      { path: "w/good.md", text: reply("good") },
      { path: "w/again.md", text: reply("good") },
      { path: "w/none.md", text: "No front matter" },
      { path: "w/yaml.md", text: "---\nid: [\n---\nx" },
      { path: "w/keys.md", text: reply("keys", "colour: green\npart: middle\n") },
      { path: "w/lost.fr.md", text: "---\nvariant_of: lost\nlanguage: fr\n---\nx" },
    ]);
    expect(library.replies.map((one) => one.id)).toEqual(["good", "good"]);
    expect(problems.map(({ where, message }) => `${where}: ${message}`)).toEqual([
      expect.stringMatching(/^w\/keys.md: part: /),
      "w/keys.md: : Unknown key “colour”",
      "w/none.md: The file has no front matter between two lines of ---",
      expect.stringMatching(/^w\/yaml.md: YAML: /),
      "w/lost.fr.md: There is no reply “lost” to be a variant of",
      "good: Two replies have the id “good”",
    ]);
  });
});

describe("library.json", () => {
  const file = (changes = {}) => ({
    format: "plain-shelf-library",
    version: 1,
    shelves: [],
    replies: [{ id: "a", title: "A", body: "Hi {$customer.first_name}" }],
    house_facts: {},
    ...changes,
  });

  test("is read with its defaults", () => {
    const { library, problems } = readLibraryFile(file());
    expect(problems).toEqual([]);
    expect(library.replies[0]).toMatchObject({
      id: "a",
      channels: ["email"],
      state: "shelved",
      variants: [{ language: "en" }],
    });
  });

  test.each([
    [{ version: 2 }, "version", "newer version"],
    [{ colour: 1 }, "library", "Unknown key “colour”"],
    [
      { replies: [{ id: "a", title: "A", body: "x", blanks: { b: { kind: "colour" } } }] },
      "replies.0.blanks.b.kind",
      "",
    ],
    [{ replies: [{ id: "A!", title: "A", body: "x" }] }, "replies.0.id", "Small letters"],
  ])("refuses %j with its path", (changes, where, message) => {
    const { library, problems } = readLibraryFile(file(changes));
    expect(library.replies).toEqual([]);
    expect(problems[0]).toMatchObject({ where, message: expect.stringContaining(message) });
  });
});
