import { describe, expect, test } from "@jest/globals";
import { ferryDetails } from "../../demo/details";
import { passagesSchema } from "../conditions/condition";
import { re2Patterns } from "../conditions/re2";
import { readMarkdown } from "../formats/markdown";
import { blanksSchema } from "../tokens/blanks";
import { catalogue, type OwnToken } from "../tokens/catalogue";
import { outOfDate } from "../language/dates";
import { tokensUsed } from "./tokens-used";
import { smsSegments } from "../sms/segments";
import { checkReply } from "./writing";
import type { WrittenReply } from "./written";

const facts: OwnToken[] = [
  { key: "fee", label: "fee", type: "money", example: { amount: 6, currency: "EUR" } },
  { key: "address", label: "our address", type: "text", example: "1 Harbour Stairs" },
  { key: "days", label: "days", type: "number", example: 5 },
];
const tokens = catalogue({ houseFacts: facts, details: ferryDetails });
const now = "2026-11-25T10:00:00Z";

function written(markdown: string, changes: Record<string, unknown> = {}): WrittenReply {
  const { blanks = {}, passages = {}, subject = null, ...rest } = changes;
  return {
    part: "answer",
    channels: ["email"],
    about: { topics: [], withBooking: false },
    blanks: blanksSchema.parse(blanks),
    passages: passagesSchema.parse(passages),
    variants: [{ language: "en", subject: subject as string | null, document: readMarkdown(markdown).doc }],
    ...rest,
  };
}
const findings = (markdown: string, changes: Record<string, unknown> = {}) =>
  checkReply(written(markdown, changes), {
    tokens,
    facts,
    patterns: re2Patterns,
    segments: smsSegments,
    now,
  });
const codes = (markdown: string, changes: Record<string, unknown> = {}) =>
  findings(markdown, changes).map((one) => one.code);

describe("tokens that may be missing", () => {
  test("are told where they stand, with why", () => {
    expect(findings("Your ship is {$booking.ship}.")).toEqual([
      {
        severity: "look",
        code: "token-uncertain",
        message: "The ship may be missing (not every case has a booking), and nothing stands in for it",
        language: "en",
        channel: null,
        at: { in: "body", from: 14, to: 15 },
      },
    ]);
  });

  test("are fine with a fallback, by the subject matter, or inside a passage that knows them", () => {
    expect(
      codes("Hi {$customer.first_name :text fallback=there}, {$case.number} {$house.fee} {$agent.name}"),
    ).toEqual([]);
    expect(codes("{$booking.ship}", { about: { topics: [], withBooking: true } })).toEqual([]);
    expect(codes("{$booking.vehicle}", { about: { topics: [], withBooking: true } })).toEqual([
      "token-uncertain",
    ]);
    const passages = {
      car: {
        when: {
          all: [
            { value: "booking.vehicle", is: "present" },
            { value: "booking.ship", is: "equals", to: "Kittiwake" },
          ],
        },
      },
    };
    expect(codes(":passage[{$booking.vehicle} on {$booking.ship}]{#car}", { passages })).toEqual([]);
    expect(codes(":passage[{$booking.vehicle}]{#car otherwise}", { passages })).toEqual(["token-uncertain"]);
    expect(
      codes(":passage[{$booking.vehicle}]{#car otherwise}", {
        passages: { car: { when: { value: "booking.vehicle", is: "missing" } } },
      }),
    ).toEqual([]);
  });
});

describe("what a writer overlooks", () => {
  test("links without address and pictures without words", () => {
    expect(codes("[here](nowhere) ![](4) [there](https://example.org/{$case.number})")).toEqual([
      "link-without-address",
      "picture-without-text",
    ]);
  });

  test("a greeting or a sign-off inside an answer, not inside other parts", () => {
    expect(codes("Hello {$customer.first_name :text fallback=there},\n\nyes.\n\nKind regards,")).toEqual([
      "greeting-inside",
      "sign-off-inside",
    ]);
    expect(codes("Hello,", { part: "opening" })).toEqual([]);
    expect(codes("Hidden charges do not exist.")).toEqual([]);
  });

  test("facts typed out, as whole words, but not bare numbers", () => {
    expect(findings("It costs €6 at 1 harbour stairs, 5 days.").map((one) => one.message)).toEqual([
      "“€6” is a house fact: use {$house.fee}, and it changes with it",
      "“1 Harbour Stairs” is a house fact: use {$house.address}, and it changes with it",
    ]);
    expect(codes("It costs €60.")).toEqual([]);
  });

  test("dates that have passed", () => {
    expect(findings("From 3 May 2026 until 1 May 2027.").map((one) => [one.code, one.at])).toEqual([
      ["date-passed", { in: "body", from: 6, to: 16 }],
    ]);
  });

  test("an SMS of several messages", () => {
    expect(codes(`${"word ".repeat(40)}`, { channels: ["email", "sms"] })).toEqual(["sms-segments"]);
    expect(codes("Short.", { channels: ["sms"] })).toEqual([]);
  });

  test("the subject, the conditions and the defaults as well as the body", () => {
    expect(
      codes("x {$blank.a}", {
        subject: "At {$booking.moon} {",
        blanks: { a: { kind: "text", default: "{$booking.sun}" } },
        passages: { p: { when: { value: "booking.star", is: "present" } } },
      }),
    ).toEqual(["token-unknown", "passage-unused", "token-unknown", "text-unreadable", "token-unknown"]);
  });
});

test("dates are found in several forms and languages, and only real ones", () => {
  const found = (text: string, language = "en") => outOfDate(text, language, now).map((one) => one.words);
  expect(found("2026-01-31, 31.01.2026, January 31st, 2026, 2026-02-31")).toEqual([
    "2026-01-31",
    "31.01.2026",
    "January 31st, 2026",
  ]);
  expect(found("03/04/2026 12/11/2026 12/12/2026")).toEqual(["03/04/2026"]);
  expect(found("am 3. März 2026", "de")).toEqual(["3. März 2026"]);
  expect(found("el 3 de mayo de 2026", "es")).toEqual(["3 de mayo de 2026"]);
  expect(found("In 2026, 3 Kittiwake 2026")).toEqual([]);
});

test("a reply's tokens are found wherever they are read", () => {
  const reply = written("[a {$case.number}](https://example.org/{$house.days}) ![{$house.fee}](1)", {
    subject: "{$customer.email}",
    blanks: { a: { kind: "text", default: "{$agent.phone}" } },
    passages: { p: { when: { value: "booking.ship", is: "present" } } },
  });
  expect([...tokensUsed(reply)].sort()).toEqual([
    "agent.phone",
    "booking.ship",
    "case.number",
    "customer.email",
    "house.days",
    "house.fee",
  ]);
});

describe("a translation", () => {
  const both = (translated: string, language = "de") => ({
    ...written("Dogs are welcome on deck 3."),
    variants: [
      { language: "en", subject: null, document: readMarkdown("Dogs are welcome on deck 3.").doc },
      { language, subject: null, document: readMarkdown(translated).doc },
    ],
  });
  const said = (reply: WrittenReply) =>
    checkReply(reply, { tokens, facts: [], patterns: re2Patterns, segments: smsSegments, now }).map(
      ({ code, language }) => [code, language],
    );

  test("that still has the original’s words is not nothing to see to", () => {
    expect(said(both("Dogs are welcome on deck 3."))).toEqual([["untranslated", "de"]]);
    expect(said(both("Hunde sind auf Deck 3 willkommen."))).toEqual([]);
  });

  test("into the same language elsewhere may well say the same", () => {
    expect(said(both("Dogs are welcome on deck 3.", "en-US"))).toEqual([]);
  });
});

test("a passage is named by its first words, in whatever it stands, and by when it does", () => {
  const passages = { p: { when: { value: "customer.first_name", is: "equals", to: 3 } } };
  const message = (markdown: string) => {
    const reply = {
      ...written(markdown),
      passages: passagesSchema.parse({
        p: { when: { all: [passages.p.when, { value: "customer.first_name", is: "equals", to: "Bo" }] } },
      }),
    };
    return checkReply(reply, { tokens, facts: [], patterns: re2Patterns, segments: smsSegments, now }).find(
      ({ code }) => code === "passage-never",
    )?.message;
  };
  expect(message(":::passage{id=p}\nOne two three four five six seven.\n:::")).toContain(
    "“One two three four five six …” (when first name",
  );
  expect(message(":::passage{id=p}\n- In a list\n:::")).toContain("“In a list” (when");
  // A passage that stands only in a channel’s own text is known by its words there.
  const own = written("Words.", {
    passages: {
      p: { when: { all: [passages.p.when, { value: "customer.first_name", is: "equals", to: "Bo" }] } },
    },
  });
  const variants = own.variants.map((one) => ({
    ...one,
    texts: { sms: readMarkdown(":passage[Short words]{#p}").doc },
  }));
  const inOwn = checkReply(
    { ...own, channels: ["email", "sms"], variants },
    {
      ...{ tokens, facts, patterns: re2Patterns, segments: smsSegments, now },
    },
  );
  expect(inOwn.find(({ code }) => code === "passage-never")?.message).toContain("“Short words” (when");
});
