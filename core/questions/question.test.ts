import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { compose } from "../compose/compose";
import { testContext, testInput, testSlip } from "../compose/testing";
import { catalogue } from "../tokens/catalogue";
import { answerType, answerWords, askedIn, buttonsOf, questionKinds, readAnswer } from "./question";

const options = ["refund", "another sailing"];
const of = (kind: (typeof questionKinds)[number]) => ({ kind, options });

describe("answers", () => {
  test("what can be pressed is read as an answer, and nothing else is", () => {
    fc.assert(
      fc.property(fc.constantFrom(...questionKinds), fc.string(), (kind, typed) => {
        const values = (buttonsOf(of(kind)) ?? []).map(({ value }) => value);
        for (const value of values) expect(readAnswer(of(kind), value)).not.toBeNull();
        if (kind !== "date" && !values.includes(typed)) expect(readAnswer(of(kind), typed)).toBeNull();
      }),
    );
  });

  test("dates are days that there are", () => {
    expect(readAnswer(of("date"), "2028-02-29")).toBe("2028-02-29");
    for (const wrong of [
      "2027-02-29",
      "2027-13-01",
      "27-01-01",
      "2027-1-1",
      "0001-01-01",
      "2027-01-01T00:00",
    ])
      expect(readAnswer(of("date"), wrong)).toBeNull();
  });

  test("they read as people say them, each as a value of its kind", () => {
    expect(questionKinds.map(answerType)).toEqual(["integer", "text", "date", "yes_no"]);
    expect(answerWords("scale", 4, "en")).toBe("4 of 5");
    expect(answerWords("choice", "refund", "en")).toBe("refund");
    expect(answerWords("yes_no", false, "en")).toBe("no");
    expect(answerWords("date", "2027-03-01", "de")).toBe("1. März 2027");
  });
});

describe("in a letter", () => {
  const tokens = catalogue({
    questions: [{ key: "how", words: "How was it?", type: "integer", example: 4 }],
  });
  const letter = (words: string, channel: string, ask: object) =>
    compose({
      ...testInput([testSlip(words)], { channel }),
      context: testContext({ ask }),
      tokens,
    });
  const link = { how: "https://shelf.example.com/q/abc" };

  test("a question is its words, which lead to where it is answered", () => {
    const mail = letter("Tell us: **{$ask.how}**", "email", link);
    expect(mail.text).toContain("Tell us: How was it? <https://shelf.example.com/q/abc>");
    expect(mail.html).toContain('<a href="https://shelf.example.com/q/abc"');
    expect(mail.html).toMatch(/<strong[^>]*>.*How was it\?|<a[^>]*>.*How was it\?/);
    expect(askedIn(mail.trace)).toEqual(["how"]);
    expect(letter("Tell us: {$ask.how}", "sms", link).text).toBe(
      "Tell us: How was it? https://shelf.example.com/q/abc",
    );
  });

  test("where its answers stand beside it, it is its words alone", () => {
    const piece = letter("Tell us: {$ask.how}", "chat", { how: true });
    expect(piece.text).toBe("Tell us: How was it?");
    expect(piece.html).toBeNull();
    expect(askedIn(piece.trace)).toEqual(["how"]);
  });

  test("one that cannot be asked stops the letter, and is not asked", () => {
    const mail = letter("{$ask.how}", "email", {});
    expect(mail.problems.map(({ code }) => code)).toEqual(["token-missing"]);
    expect(askedIn(mail.trace)).toEqual([]);
    expect(askedIn(letter("hello", "email", link).trace)).toEqual([]);
  });
});
