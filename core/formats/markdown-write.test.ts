import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Block, Doc, Inline, Mark } from "../document/types";
import { joinTexts, mapInlines } from "../document/inlines";
import { documentSchema } from "../document/schema";
import { readMarkdown } from "./markdown";
import { writeMarkdown } from "./markdown-write";

/** What was read, as if no brace were told apart: words that look like a placeholder come back as escaped ones. */
function unmarked(read: ReturnType<typeof readMarkdown>): ReturnType<typeof readMarkdown> {
  const bare = (inline: Inline): Inline => {
    const { marks = [], ...rest } = inline;
    const kept = marks.filter((mark) => mark.type !== "literal");
    return kept.length > 0 ? { ...rest, marks: kept } : rest;
  };
  const doc = mapInlines(read.doc, (inline) => [bare(inline)]);
  const joined = doc.content.map((block) =>
    block.type === "paragraph" ? { ...block, content: joinTexts(block.content) } : block,
  );
  return { ...read, doc: { ...doc, content: joined } };
}

const again = (markdown: string) => writeMarkdown(readMarkdown(markdown).doc).text;

describe("writing Markdown", () => {
  test.each([
    ["Your sailing is {$blank.hours :integer} hours late.\n"],
    [":::passage{#car}\nKeep your vehicle in its lane.\n\nAnd the engine off.\n:::\n"],
    ["::::passage{#a}\nA\n\n:::passage{#b otherwise}\nB\n:::\n::::\n"],
    ["- Hot drinks are free.\n- :passage[The lift is out of order.]{#tarn}\n"],
    ["- :item{#tarn} First\n  - inner\n"],
    ["| Harbour | Hall |\n| - | - |\n| :row{#tarn} Tarn Head | 07:00 to 19:00 |\n"],
    ["| | |\n| - | - |\n| a | b |\n"],
    ["| a |\n| - |\n| {$customer.first_name :text fallback=\\|dear guest\\|} |\n"],
    [
      '![The harbour](12 "width=240") and [here](<https://example.org/{$case.number :text fallback=|x y|}>)\n',
    ],
    ["one\\\ntwo\n\n&nbsp;\n\nthree\n"],
    [":u[under] :mark[lit] ~~gone~~ **bold _both_** {$case.number}\n"],
    ["> quoted\n\n---\n\n3. three\n4. four\n"],
  ])("%s stays as it is", (markdown) => {
    expect(readMarkdown(markdown).problems).toEqual([]);
    expect(again(markdown)).toBe(markdown);
  });

  test("words that look like syntax stay words", () => {
    const words = "* {$case.number} :passage[x]{#a} | # [a](b) <b> \\ _x_ `y` 1. ~~z~~ {";
    const doc: Doc = {
      type: "doc",
      content: [{ type: "paragraph", attrs: { passages: [] }, content: [{ type: "text", text: words }] }],
    };
    expect(unmarked(readMarkdown(writeMarkdown(doc).text))).toEqual({ doc, problems: [] });
  });

  test("a brace that is meant as one is told apart from one that was typed by chance", () => {
    const [escaped, bare] = ["Use \\{$case.number\\} here.\n", "Use {$case.number here.\n"].map(readMarkdown);
    expect(JSON.stringify(escaped?.doc).match(/literal/g)).toHaveLength(2);
    expect(JSON.stringify(bare?.doc)).not.toContain("literal");
    expect(again("Use \\{$case.number\\} and \\{{$case.number}\\}.\n")).toBe(
      "Use \\{$case.number\\} and \\{{$case.number}\\}.\n",
    );
  });

  test("what the form cannot hold is said", () => {
    const cell = (span: number): Block => ({
      type: "table",
      attrs: { passages: [] },
      content: [
        {
          type: "tableRow",
          attrs: { passages: [] },
          content: [
            {
              type: "tableCell",
              attrs: { colspan: span, rowspan: 1, colwidth: null },
              content: [{ type: "paragraph", attrs: { passages: [] }, content: [] }],
            },
          ],
        },
      ],
    });
    expect(writeMarkdown({ type: "doc", content: [cell(2)] }).losses).toEqual([
      "Cells that span columns or rows become single ones",
    ]);
    expect(writeMarkdown({ type: "doc", content: [cell(1)] }).losses).toEqual([]);
  });
});

const word = fc.stringMatching(/^[a-zA-Zäß0-9*_:{}$|<>#.\\~`!&-]{1,8}$/);
const phrase = fc.array(word, { minLength: 1, maxLength: 4 }).map((words) => words.join(" "));
const ref = fc.record({ id: fc.constantFrom("a", "b", "c"), otherwise: fc.boolean() });
const mark: fc.Arbitrary<Mark> = fc.oneof(
  fc.constantFrom<Mark>({ type: "bold" }, { type: "italic" }, { type: "strike" }, { type: "underline" }),
  fc.constant<Mark>({ type: "link", attrs: { href: "https://example.org/{$case.number}" } }),
  ref.map((one): Mark => ({ type: "passage", attrs: { passages: [one] } })),
);
const inline: fc.Arbitrary<Inline> = fc.oneof(
  fc
    .tuple(phrase, fc.uniqueArray(mark, { maxLength: 2, selector: (one) => one.type }))
    .map(([text, marks]): Inline =>
      marks.length > 0 ? { type: "text", text, marks } : { type: "text", text },
    ),
  fc.constant<Inline>({ type: "token", attrs: { name: "case.number", fn: null, options: {} } }),
  fc.constant<Inline>({
    type: "blank",
    attrs: { name: "hours", fn: "integer", options: { fallback: "a | b" } },
  }),
  fc.constant<Inline>({ type: "image", attrs: { attachment: "7", alt: "a [b]", width: 20 } }),
);
const passages = fc.array(ref, { maxLength: 2 });
const line = fc.array(inline, { maxLength: 4 });
const paragraph: fc.Arbitrary<Block> = fc
  .tuple(line, passages)
  .map(([content, under]) => ({ type: "paragraph", attrs: { passages: under }, content }));
const list: fc.Arbitrary<Block> = fc
  .tuple(fc.array(fc.tuple(line, passages), { minLength: 1, maxLength: 3 }), passages)
  .map(([items, under]) => ({
    type: "bulletList",
    attrs: { passages: under },
    content: items.map(([content, own]) => ({
      type: "listItem",
      attrs: { passages: own },
      content: [{ type: "paragraph", attrs: { passages: [] }, content }],
    })),
  }));
const table: fc.Arbitrary<Block> = fc
  .tuple(fc.array(fc.tuple(line, line, passages), { minLength: 1, maxLength: 3 }), fc.boolean())
  .map(([rows, headed]) => ({
    type: "table",
    attrs: { passages: [] },
    content: rows.map(([first, second, own], index) => ({
      type: "tableRow",
      attrs: { passages: own },
      content: [first, second].map((content) => ({
        type: headed && index === 0 ? "tableHeader" : "tableCell",
        attrs: { colspan: 1, rowspan: 1, colwidth: null },
        content: [{ type: "paragraph", attrs: { passages: [] }, content }],
      })),
    })),
  }));
const doc: fc.Arbitrary<Doc> = fc
  .array(fc.oneof(paragraph, list, table), { minLength: 1, maxLength: 4 })
  .map((content) => ({ type: "doc", content }));

describe("the round trip", () => {
  test.each([":", "::", ":::", "a:b:", ":u"])("“%s” before underlined words stays words", (text) => {
    const one: Doc = {
      type: "doc",
      content: [
        {
          type: "paragraph",
          attrs: { passages: [] },
          content: [
            { type: "text", text },
            { type: "text", text: "a", marks: [{ type: "underline" }] },
          ],
        },
      ],
    };
    expect(readMarkdown(writeMarkdown(one).text).doc).toEqual(one);
  });

  test("what is read from a written document is written the same again, and is a document", () => {
    fc.assert(
      fc.property(doc, (one) => {
        const { text } = writeMarkdown(one);
        const read = readMarkdown(text);
        expect(documentSchema.safeParse(read.doc).success).toBe(true);
        expect(writeMarkdown(read.doc).text).toBe(text);
      }),
      { numRuns: 500 },
    );
  });

  test("plain paragraphs, tokens and passages come back as they were", () => {
    const plain = fc.oneof(
      phrase.map((text): Inline => ({ type: "text", text })),
      fc.constant<Inline>({ type: "token", attrs: { name: "case.number", fn: null, options: {} } }),
    );
    const simple = fc
      .array(
        fc.tuple(plain, passages).map(([content, under]): Block => ({
          type: "paragraph",
          attrs: { passages: under },
          content: [content],
        })),
        { minLength: 1, maxLength: 4 },
      )
      .map((content): Doc => ({ type: "doc", content }));
    fc.assert(
      fc.property(simple, (one) => {
        expect(unmarked(readMarkdown(writeMarkdown(one).text))).toEqual({ doc: one, problems: [] });
      }),
      { numRuns: 500 },
    );
  });
});
