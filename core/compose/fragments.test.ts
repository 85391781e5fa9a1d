import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { toEmailHtml } from "../document/html";
import { toPieces } from "../document/text";
import type { PassageRef } from "../document/definition";
import type { Block, Inline, Mark } from "../document/types";
import { compose, styleOf } from "./compose";
import { fill } from "./fill";
import { testContext, testInput, testSlip } from "./testing";

const words = fc.constantFrom("Hello", " ", "a & b", "<b>", "two\u00a0words", ",", "{", "x y ");
const mark: fc.Arbitrary<Mark> = fc.constantFrom<Mark>(
  { type: "bold" },
  { type: "literal" },
  { type: "link", attrs: { href: "https://example.org/a" } },
  { type: "link", attrs: { href: "https://example.org/{$case.number}" } },
  { type: "passage", attrs: { passages: [{ id: "in", otherwise: false }] } },
  { type: "passage", attrs: { passages: [{ id: "out", otherwise: false }] } },
);
const marks = fc.uniqueArray(mark, { maxLength: 2, selector: (one) => one.type });
const inline: fc.Arbitrary<Inline> = fc.oneof(
  fc
    .tuple(words, marks)
    .map(([text, own]): Inline => ({ type: "text", text, ...(own.length > 0 ? { marks: own } : {}) })),
  fc
    .tuple(fc.constantFrom("customer.first_name", "booking.from", "booking.ship", "case.number"), marks)
    .map(([name, own]): Inline => ({
      type: "token",
      attrs: { name, fn: null, options: {} },
      ...(own.length > 0 ? { marks: own } : {}),
    })),
  fc
    .constantFrom("note", "extra", "hidden", "empty", "nowhere")
    .map((name): Inline => ({ type: "blank", attrs: { name, fn: null, options: {} } })),
  fc.constant<Inline>({ type: "hardBreak" }),
  fc.constant<Inline>({ type: "image", attrs: { attachment: "7", alt: "A {$case.number}", width: null } }),
);
const under = fc.constantFrom<PassageRef[]>(
  [],
  [],
  [{ id: "in", otherwise: false }],
  [{ id: "out", otherwise: false }],
  [{ id: "none", otherwise: true }],
);
const line = fc.tuple(fc.array(inline, { maxLength: 4 }), under);
const block: fc.Arbitrary<Block> = fc.oneof(
  line.map(([content, passages]): Block => ({ type: "paragraph", attrs: { passages }, content })),
  line.map(([content, passages]): Block => ({ type: "heading", attrs: { level: 2, passages }, content })),
  fc.array(line, { minLength: 1, maxLength: 2 }).map((items): Block => ({
    type: "bulletList",
    attrs: { passages: [] },
    content: items.map(([content, passages]) => ({
      type: "listItem",
      attrs: { passages },
      content: [{ type: "paragraph", attrs: { passages: [] }, content }],
    })),
  })),
  fc.constant<Block>({ type: "horizontalRule", attrs: { passages: [] } }),
);

test("what is laid out before says the same as filling a document from its beginning, in words, HTML, record and problems", () => {
  const file = { id: "7", name: "a.png", contentType: "image/png", size: 1 };
  fc.assert(
    fc.property(
      fc.array(block, { minLength: 1, maxLength: 4 }),
      fc.constantFrom("one\ntwo", "one", ""),
      (content, note) => {
        const slip = testSlip("", {
          document: { type: "doc", content },
          attachments: [file],
          blanks: {
            note: { kind: "long_text", required: true, printed: true },
            extra: { kind: "text", required: false, printed: true },
            hidden: { kind: "text", required: false, printed: false },
            empty: { kind: "text", required: true, printed: true },
          },
          values: { note },
          passages: {
            in: { when: { value: "booking.from", is: "present" } },
            out: { when: { value: "booking.from", is: "missing" } },
          },
        });
        const input = testInput([slip], { context: testContext(), contentId: (id) => id });
        const letter = compose(input);
        const filled = fill({
          slip,
          context: input.context,
          style: styleOf(input),
          tokens: input.tokens,
          decisions: letter.decisions.get(slip.id) ?? new Map(),
        });
        const says = filled.blocks.some((one) => one.type !== "paragraph" || one.content.length > 0);
        expect(letter.pieces).toEqual(says ? toPieces(filled.blocks) : []);
        expect(letter.blocks).toEqual(says ? filled.blocks : []);
        const html = toEmailHtml(
          { type: "doc", content: filled.blocks },
          { pictureSource: (id) => `cid:${id}` },
        );
        if (says) expect(letter.html).toContain(`;color:#17211d">${html}</td>`);
        expect(letter.trace.filter((one) => one.kind === "token" || one.kind === "blank")).toEqual(
          filled.trace,
        );
        expect(letter.problems.filter((one) => one.code !== "blank-empty").map((one) => one.message)).toEqual(
          filled.problems.filter((one) => one.code !== "blank-empty").map((one) => one.message),
        );
        expect(
          letter.fragments.every(({ fragment, start }) => letter.text.startsWith(fragment.words.text, start)),
        ).toBe(true);
        expect(compose(input)).toEqual(letter);
      },
    ),
    { numRuns: 1000 },
  );
});
