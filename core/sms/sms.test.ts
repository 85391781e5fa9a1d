import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { readPhoneNumber, shownNumber } from "./number";
import { plainerCharacter, plainerText, smsLength, smsSegments } from "./segments";

describe("a number", () => {
  test.each([
    ["+44 7400 123456", null, "+447400123456", "+44 7400 123456"],
    ["07400 123456", "GB", "+447400123456", "+44 7400 123456"],
    ["0171 / 2345678", "DE", "+491712345678", "+49 171 2345678"],
    ["(+34) 612-34-56-78", null, "+34612345678", "+34 612 34 56 78"],
  ])("%s of %s is %s", (text, country, e164, shown) => {
    expect(readPhoneNumber(text, country)).toEqual({ ok: true, e164, shown });
    expect(shownNumber(e164)).toBe(shown);
  });

  test.each([
    ["07400 123456", null, /country’s code first/],
    ["07400 123456", "XX", /country’s code first/],
    ["+44 7400 12", null, /no such telephone number/],
    ["+44 20 7946 0000", null, /fixed line/],
    ["hello", "GB", /no telephone number/],
    ["", "GB", /no telephone number/],
    ["1".repeat(100_000), "GB", /number/],
  ])("“%.20s” of %s is refused, and told why", (text, country, problem) => {
    const read = readPhoneNumber(text, country);
    expect(read).toMatchObject({ ok: false, problem: expect.stringMatching(problem) });
    expect(shownNumber("desk")).toBe("desk");
  });
});

describe("the length of a short message", () => {
  test("is counted in seven-bit parts of 160, and of 153 once there are several; a bracket counts twice", () => {
    expect(smsLength("a".repeat(160))).toMatchObject({ segments: 1, encoding: "GSM-7", forcing: [] });
    expect(smsLength("a".repeat(161)).segments).toBe(2);
    expect(smsLength("a".repeat(306)).segments).toBe(2);
    expect(smsLength("a".repeat(307)).segments).toBe(3);
    expect(smsLength("[".repeat(81)).segments).toBe(2);
    expect(smsLength("Grüße, Señora: 5 €")).toMatchObject({ encoding: "GSM-7" });
  });

  test("more than doubles by a character that the alphabet lacks, which is told with what says the same", () => {
    const text = `${"a".repeat(120)} – “Kittiwake”… 🚢 Łódź`;
    expect(smsLength(text)).toEqual({
      segments: 3,
      plainerSegments: 3,
      encoding: "UCS-2",
      forcing: [
        { character: "–", replacement: "-" },
        { character: "“", replacement: '"' },
        { character: "”", replacement: '"' },
        { character: "…", replacement: "..." },
        { character: "🚢", replacement: null },
        { character: "Ł", replacement: "L" },
        { character: "ó", replacement: "o" },
        { character: "ź", replacement: "z" },
      ],
    });
    expect(smsLength(text.replace("🚢 ", "")).plainerSegments).toBe(1);
  });

  test("what is written plainer is so once and for all, and never takes more parts", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 200 }), (text) => {
        const plainer = plainerText(text);
        expect(plainerText(plainer)).toBe(plainer);
        const { forcing } = smsLength(plainer);
        expect(forcing.every(({ character }) => plainerCharacter(character) === null)).toBe(true);
        if (forcing.length === 0) expect(smsLength(text).plainerSegments).toBe(smsSegments(plainer));
      }),
    );
  });
});
