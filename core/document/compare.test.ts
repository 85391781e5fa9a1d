import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { readMarkdown } from "../formats/markdown";
import { compareDocuments, compareTexts, isUnchanged, type ComparedLine } from "./compare";
import { placeholderText } from "./placeholder";

const doc = (markdown: string) => readMarkdown(markdown).doc;
const compare = (before: string, after: string) => compareDocuments(doc(before), doc(after));

/** A comparison as text: added words in +…+, removed in -…-, restyled in ~…~. */
const told = (lines: ComparedLine[]) =>
  lines.map(({ kind, lead, pieces }) => {
    const words = pieces.map((piece) => {
      const text =
        piece.inline.type === "text"
          ? piece.inline.text
          : piece.inline.type === "token" || piece.inline.type === "blank"
            ? placeholderText(piece.inline)
            : piece.inline.type;
      const sign = { same: "", added: "+", removed: "-", restyled: "~" }[piece.kind];
      return sign + text + sign;
    });
    return `${kind === "same" ? "" : `${kind} `}${lead.join(" ")}: ${words.join("")}`;
  });

describe("comparing documents", () => {
  test("words that changed are shown, the others stay", () => {
    expect(told(compare("A change costs 6 euros.", "A change costs {$house.fee} now."))).toEqual([
      "paragraph: A change costs -6-+{$house.fee}+ -euros-+now+.",
    ]);
  });

  test("formatting and passages count", () => {
    expect(told(compare("Bring your ticket.", "Bring **your** ticket."))).toEqual([
      "paragraph: Bring ~your~ ticket.",
    ]);
    const lines = compare("Lane 4.", ":::passage{#car}\nLane 4.\n:::");
    expect(lines.map((line) => [line.kind, line.passages.length])).toEqual([
      ["removed", 0],
      ["added", 1],
    ]);
    expect(isUnchanged(lines)).toBe(false);
  });

  test("items and rows say what they are", () => {
    expect(told(compare("- one\n- two", "- one\n- three\n- two"))).toEqual([
      "item: one",
      "added item: +three+",
      "item: two",
    ]);
    expect(told(compare("| a |\n|-|\n| 1 |", "| a |\n|-|\n| 2 |"))).toEqual([
      "row: ",
      "headingCell: a",
      "row: ",
      "cell: -1-+2+",
    ]);
  });

  test("a document compared with itself is unchanged, and both sides can be read off a comparison", () => {
    const text = fc
      .array(fc.constantFrom("one ", "two ", "**three** ", "\n\n", "- four\n", "{$case.number} "), {
        maxLength: 12,
      })
      .map((parts) => doc(parts.join("")));
    fc.assert(
      fc.property(text, text, (a, b) => {
        expect(isUnchanged(compareDocuments(a, a))).toBe(true);
        const lines = compareDocuments(a, b);
        const side = (without: "added" | "removed") =>
          lines
            .filter((line) => line.kind !== without)
            .map((line) => line.lead)
            .join();
        const whole = (one: typeof a) =>
          compareDocuments(one, one)
            .map((line) => line.lead)
            .join();
        expect(side("removed")).toBe(whole(b));
        expect(side("added")).toBe(whole(a));
      }),
    );
  });
});

test("texts are compared word by word", () => {
  expect(compareTexts("Your sailing on Friday", "Your ferry on Friday")).toEqual([
    { kind: "same", text: "Your " },
    { kind: "removed", text: "sailing" },
    { kind: "added", text: "ferry" },
    { kind: "same", text: " on Friday" },
  ]);
});
