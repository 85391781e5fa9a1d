import { describe, expect, test } from "@jest/globals";
import { ferryDetails } from "../../demo/details";
import fc from "fast-check";
import { compose } from "../compose/compose";
import { testContext, testInput, testSlip } from "../compose/testing";
import { documentSchema } from "../document/schema";
import { readMarkdown } from "../formats/markdown";
import { writeMarkdown } from "../formats/markdown-write";
import { catalogue } from "./catalogue";
import { recognise, withTokens } from "./recognise";

const style = { language: "en-GB", timeZone: "Europe/Lisbon" };
const tokens = catalogue({ details: ferryDetails });
const find = (markdown: string) => recognise(readMarkdown(markdown).doc, testContext(), tokens, style);

describe("a case's own values", () => {
  test("are found in the words, the longest first, as whole words only", () => {
    expect(
      find("Dear Ottoline Achterberg, Ottolines case SF-20417, booking QW7-K2M, costs €118.00.").map(
        ({ words, token, certain }) => [words, token.attrs.name, certain],
      ),
    ).toEqual([
      ["Ottoline Achterberg", "customer.full_name", false],
      ["SF-20417", "case.number", false],
      ["QW7-K2M", "booking.reference", false],
      ["€118.00", "booking.fare", false],
    ]);
  });

  test("are found as dates in the usual forms, and offered in that form", () => {
    expect(find("It sails on 27 November 2026.").map(({ words, token }) => [words, token.attrs.fn])).toEqual([
      ["27 November 2026", "date"],
    ]);
  });

  test("that tokens printed are known for sure", () => {
    const slip = testSlip("Hello {$customer.first_name}, from {$booking.from} with Ottoline");
    const letter = compose(testInput([slip]));
    const found = recognise({ type: "doc", content: letter.blocks }, testContext(), tokens, style);
    expect(found.map(({ words, certain }) => [words, certain])).toEqual([
      ["Ottoline", true],
      ["Tarn Head", true],
      ["Ottoline", false],
    ]);
  });

  test("become tokens where they are accepted, and stay words where they are not", () => {
    const { doc } = readMarkdown(
      "Dear **Ottoline**,\n\n- about SF-20417\n- yes\n\n| a |\n|-|\n| Tarn Head |",
    );
    const found = recognise(doc, testContext(), tokens, style);
    const accepted = found.filter((one) => one.token.attrs.name !== "case.number");
    expect(writeMarkdown(withTokens(doc, accepted)).text).toBe(
      "Dear **{$customer.first_name}**,\n\n- about SF-20417\n- yes\n\n| a |\n| - |\n| {$booking.from} |\n",
    );
  });

  test("never overlap, and accepting all or none leaves a document", () => {
    const word = fc.constantFrom(
      "Ottoline ",
      "Achterberg ",
      "SF-20417",
      "QW7-K2M, ",
      "**van** ",
      "\n\n",
      "- ",
      "x ",
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 15 }), (words) => {
        const { doc } = readMarkdown(words.join(""));
        const found = recognise(doc, testContext(), tokens, style);
        found
          .slice(1)
          .forEach((one, index) => expect(one.from).toBeGreaterThanOrEqual(found[index]?.to ?? 0));
        expect(withTokens(doc, [])).toEqual(doc);
        expect(documentSchema.safeParse(withTokens(doc, found)).success).toBe(true);
        expect(recognise(withTokens(doc, found), testContext(), tokens, style)).toEqual([]);
      }),
    );
  });
});
