import { describe, expect, test } from "@jest/globals";
import { compose } from "../compose/compose";
import { testContext, testInput, testSlip } from "../compose/testing";
import { writtenIn } from "../language/written";
import { readMarkdown } from "../formats/markdown";
import { toPlainText } from "../document/text";
import { lacking, plainSurrounding } from "./surroundings";

const signature = writtenIn("en", readMarkdown("Kind regards,\n\nMaren Oduya").doc);

function lacks(...slips: ReturnType<typeof testSlip>[]) {
  return lacking(compose(testInput(slips, { signature })), slips);
}

describe("what a letter lacks around its answers", () => {
  test("both, for an answer alone, whatever the signature says below it", () => {
    expect(lacks(testSlip("Dogs are welcome."))).toEqual(["opening", "closing"]);
  });

  test("neither, where replies of these parts stand, or words that do the same", () => {
    const around = [
      testSlip("Good day to you {$customer.first_name}!", { id: "o", part: "opening" }),
      testSlip("Yes."),
      testSlip("See you on board.", { id: "c", part: "closing" }),
    ];
    expect(lacks(...around)).toEqual([]);
    expect(lacks(testSlip("Hello {$customer.first_name},\n\nyes.\n\nBest wishes,\n\nMaren"))).toEqual([]);
    expect(lacks(testSlip("Guten Tag,\n\nja.\n\nViele Grüße"))).toEqual([]);
  });

  test("the one that is lacking", () => {
    expect(lacks(testSlip("Hello Ana, yes."))).toEqual(["closing"]);
    expect(lacks(testSlip("Yes.\n\nKind regards,"))).toEqual(["opening"]);
  });

  test("what only begins like a greeting, or signs off in the midst of it, is none", () => {
    expect(lacks(testSlip("Hellomat is closed.\n\nKind regards are sent."))).toEqual(["opening", "closing"]);
    expect(lacks(testSlip("Cheers,\n\none\n\ntwo\n\nthree"))).toEqual(["opening", "closing"]);
  });
});

describe("a plain one", () => {
  const reads = (part: "opening" | "closing", language: string, customer?: Record<string, string>) => {
    const context = testContext(customer && { customer });
    const document = plainSurrounding(part, language, context);
    if (!document) return null;
    const input = testInput([testSlip("", { document })], { context, language });
    return toPlainText(compose(input).blocks);
  };

  test.each([
    ["en", "Hello Ottoline,", "Kind regards,"],
    ["de-AT", "Guten Tag Ottoline Achterberg,", "Freundliche Grüße"],
    ["fr", "Bonjour Ottoline Achterberg,", "Cordialement,"],
    ["es", "Hola Ottoline:", "Un cordial saludo,"],
  ])("reads as people write it: %s", (language, opening, closing) => {
    expect([reads("opening", language), reads("closing", language)]).toEqual([opening, closing]);
  });

  test("greets without a name who has none, and is none in a language that we do not write", () => {
    expect(reads("opening", "de", {})).toBe("Guten Tag,");
    expect(reads("opening", "pt")).toBeNull();
  });

  test.each(["de", "en", "es", "fr"])("is taken for what it is: %s", (language) => {
    const context = testContext({ customer: {} });
    const slips = (["opening", "closing"] as const).map((part) =>
      testSlip("", {
        id: part,
        document: plainSurrounding(part, language, context) ?? { type: "doc", content: [] },
      }),
    );
    expect(lacking(compose(testInput(slips, { context })), slips)).toEqual([]);
  });
});
