import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { readIn, saysWords, tagIn, writtenIn, type Written } from "./written";

const hours: Written<string> = {
  language: "en-GB",
  text: "from seven",
  others: { de: "ab sieben", "pt-BR": "a partir das sete" },
};

describe("something written in several languages", () => {
  test("reads in the language that is asked for, whatever the region", () => {
    expect(readIn(hours, "en")).toEqual({ text: "from seven", language: "en-GB", lacks: false });
    expect(readIn(hours, "de-AT")).toEqual({ text: "ab sieben", language: "de", lacks: false });
    expect(readIn(hours, "pt")).toMatchObject({ text: "a partir das sete", language: "pt-BR" });
  });

  test("reads as it was written first where a language lacks, and says so", () => {
    expect(readIn(hours, "fr")).toEqual({ text: "from seven", language: "en-GB", lacks: true });
    expect(readIn(writtenIn("en", "x"), "de").lacks).toBe(true);
  });

  test("lacks nothing where it reads the same everywhere", () => {
    expect(readIn(writtenIn(null, "52"), "fr")).toEqual({ text: "52", language: null, lacks: false });
  });

  test("takes the very region before another of the language", () => {
    const both = { language: "en", text: 1, others: { pt: 2, "pt-BR": 3 } };
    expect(readIn(both, "pt-BR").text).toBe(3);
    expect(readIn(both, "pt").text).toBe(2);
  });

  test("is never read out of what every object has", () => {
    expect(tagIn({}, "constructor")).toBeNull();
    fc.assert(
      fc.property(fc.string(), (wanted) => {
        const { lacks, text } = readIn({ language: "zxx", text: "first", others: {} }, wanted);
        expect(text).toBe("first");
        expect(lacks).toBe(wanted.split("-")[0]?.toLowerCase() !== "zxx");
      }),
    );
  });
});

test("numbers, addresses and pages are no words; what is said in letters is", () => {
  for (const text of ["+44 20 7946 0155", "05:30–22:00", "desk@example.com", "https://example.org/help", ""])
    expect(saysWords(text)).toBe(false);
  for (const text of ["52 knots", "ab 7 Uhr", "Πέντε", "write to desk@example.com"])
    expect(saysWords(text)).toBe(true);
});
