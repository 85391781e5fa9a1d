import { describe, expect, test } from "@jest/globals";
import { ferryDetails } from "../../demo/details";
import fc from "fast-check";
import { compose } from "../compose/compose";
import { testContext, testInput, testSlip } from "../compose/testing";
import { documentSchema } from "../document/schema";
import { readMarkdown } from "../formats/markdown";
import { writeMarkdown } from "../formats/markdown-write";
import { catalogue } from "./catalogue";
import { blanksOf, recognise, withTokens } from "./recognise";

const style = { language: "en-GB", timeZone: "Europe/Lisbon" };
const tokens = catalogue({ details: ferryDetails });
const find = (markdown: string) => recognise(readMarkdown(markdown).doc, testContext(), tokens, style);

describe("a case's own values", () => {
  test("are found in the words, the longest first, as whole words only", () => {
    expect(
      find("Dear Ottoline Achterberg, Ottolines case SF-20417, booking QW7-K2M, costs €118.00.").map(
        ({ words, node, certain }) => [words, node.attrs.name, certain],
      ),
    ).toEqual([
      ["Ottoline Achterberg", "customer.full_name", false],
      ["SF-20417", "case.number", false],
      ["QW7-K2M", "booking.reference", false],
      ["€118.00", "booking.fare", false],
    ]);
  });

  test("are found as dates in the usual forms, and offered in that form", () => {
    expect(find("It sails on 27 November 2026.").map(({ words, node }) => [words, node.attrs.fn])).toEqual([
      ["27 November 2026", "date"],
    ]);
  });

  test("are found as days with their times, also as people join them, and as weekdays", () => {
    const dates = (markdown: string) => find(markdown).map(({ words, node }) => [words, node.attrs.options]);
    expect(dates("Friday 27 November 2026 at 07:40")).toEqual([
      [
        "Friday 27 November 2026 at 07:40",
        { dateFields: "year-month-day-weekday", dateLength: "long", timePrecision: "minute" },
      ],
    ]);
    expect(dates("on 27 November, 07:40 sharp")).toEqual([
      ["27 November, 07:40", { dateFields: "month-day", dateLength: "long", timePrecision: "minute" }],
    ]);
    expect(dates("27 November 2026, not at 07:40").map(([words]) => words)).toEqual([
      "27 November 2026",
      "07:40",
    ]);
  });

  test("are numbers only beside what they count", () => {
    const names = (markdown: string) =>
      find(markdown).map(({ words, node, blank }) => [words, node.attrs.name, blank?.kind]);
    expect(names("for 2 passengers")).toEqual([["2", "booking.passengers", undefined]]);
    expect(names("for 2 more passengers")).toEqual([["2", "booking.passengers", undefined]]);
    expect(names("2 dogs on 12 decks")).toEqual([
      ["2", "dogs", "number"],
      ["12", "decks", "number"],
    ]);
    expect(names("deck 2.")).toEqual([["2", "number", "number"]]);
  });

  test("are the agent's and the house's own names too", () => {
    const context = testContext({ house: { name: "Sollen Sound Ferries" } });
    const { doc } = readMarkdown("Yours, Maren Oduya of Sollen Sound Ferries");
    expect(recognise(doc, context, tokens, style).map(({ node }) => node.attrs.name)).toEqual([
      "agent.name",
      "house.name",
    ]);
  });

  test("what only looks like a value may be a blank: the same words one, others counted", () => {
    const found = find("€40, then €40 or €50 by 3 March 2027, ref AB12345");
    expect(found.map(({ words, node }) => [words, node.type, node.attrs.name])).toEqual([
      ["€40", "blank", "amount"],
      ["€40", "blank", "amount"],
      ["€50", "blank", "amount_2"],
      ["3 March 2027", "blank", "day"],
      ["AB12345", "blank", "reference"],
    ]);
    expect(blanksOf(found)).toMatchObject({
      amount: { kind: "money", label: "amount" },
      amount_2: { kind: "money", label: "amount 2" },
      day: { kind: "date" },
      reference: { kind: "text" },
    });
    expect(blanksOf(find("Ottoline"))).toEqual({});
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
    const accepted = found.filter((one) => one.node.attrs.name !== "case.number");
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
