import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { guessLanguage } from "../language/guess";
import { secondLook } from "../checks/second-look";
import type { Condition } from "../conditions/condition";
import type { Block, Inline, Mark } from "../document/types";
import { compose } from "./compose";
import { testContext, testInput, testSlip } from "./testing";

/** What strangers, files and mistakes may put into a place that takes words. */
const hostile = fc.oneof(
  fc.string({ unit: "binary", maxLength: 40 }),
  fc.constantFrom(
    "constructor",
    "__proto__",
    "toString",
    "{$case.number}",
    "{$",
    "}}{{",
    "\\",
    "\u0000",
    "\ud800",
    "\u202efdp.exe",
    "a\r\nBcc: x@example.org",
    "0000-00-00",
    "275760-09-13T00:00:00.000Z",
    "9".repeat(400),
    "en-@",
    "Nowhere/Land",
    "(a+)+$",
  ),
);
const name = fc
  .oneof(
    hostile,
    fc.constantFrom(
      "case.number",
      "booking.sails_at",
      "customer.first_name",
      "house.fee",
      "blank.a",
      "a",
      "b",
    ),
  )
  .filter((text) => text !== "");
const detail = fc.oneof(
  hostile,
  fc.double(),
  fc.boolean(),
  fc.constant(null),
  fc.array(hostile, { maxLength: 3 }),
  fc.record({ amount: fc.double(), currency: fc.oneof(hostile, fc.constant("EUR")) }),
);
const details = fc.dictionary(name, detail, { maxKeys: 4 });
const options = fc.dictionary(
  fc.oneof(hostile, fc.constantFrom("fallback", "case", "currency", "timeZone", "length", "style")),
  hostile,
  { maxKeys: 3 },
);
const fn = fc.oneof(
  fc.constant(null),
  hostile,
  fc.constantFrom("date", "time", "datetime", "number", "integer", "currency", "percent", "text"),
);
const ref = fc.record({ id: name, otherwise: fc.boolean() });
const mark: fc.Arbitrary<Mark> = fc.oneof(
  fc.constantFrom<Mark>({ type: "bold" }, { type: "literal" }),
  hostile.map((href): Mark => ({ type: "link", attrs: { href } })),
  fc
    .array(ref, { minLength: 1, maxLength: 2 })
    .map((passages): Mark => ({ type: "passage", attrs: { passages } })),
);
const marks = fc.array(mark, { maxLength: 2 });
const inline: fc.Arbitrary<Inline> = fc.oneof(
  fc
    .tuple(
      hostile.filter((text) => text !== ""),
      marks,
    )
    .map(([text, own]): Inline => ({ type: "text", text, marks: own })),
  fc.tuple(name, fn, options, marks).map(([one, format, given, own]): Inline => ({
    type: "token",
    attrs: { name: one, fn: format, options: given },
    marks: own,
  })),
  fc.tuple(name, fn, options).map(([one, format, given]): Inline => ({
    type: "blank",
    attrs: { name: one, fn: format, options: given },
  })),
  fc.tuple(hostile, hostile).map(([attachment, alt]): Inline => ({
    type: "image",
    attrs: { attachment, alt, width: null },
  })),
);
const paragraph: fc.Arbitrary<Block> = fc
  .tuple(fc.array(inline, { maxLength: 4 }), fc.array(ref, { maxLength: 2 }))
  .map(([content, passages]) => ({ type: "paragraph", attrs: { passages }, content }));
const to = fc.oneof(hostile, fc.double(), fc.boolean(), fc.array(hostile, { maxLength: 2 }));
const operator = fc.constantFrom(
  "present",
  "missing",
  "equals",
  "contains",
  "matches",
  "one_of",
  "before",
  "between",
);
const testing = fc.tuple(name, operator, to).map(([value, is, against]) => ({ value, is, to: against }));
const condition: fc.Arbitrary<Condition> = fc.oneof(
  testing,
  testing.map((one): Condition => ({ not: one })),
  fc.array(testing, { maxLength: 3 }).map((all): Condition => ({ all })),
  fc.array(testing, { maxLength: 3 }).map((any): Condition => ({ any })),
);
const blank = fc.oneof(
  fc.constantFrom("text", "long_text", "number", "money", "date", "time", "yes_no").chain((kind) =>
    fc.record({
      kind: fc.constant(kind),
      required: fc.boolean(),
      printed: fc.boolean(),
      default: hostile,
      currency: fc.constant("EUR"),
    }),
  ),
  fc.record({
    kind: fc.constant("choice"),
    options: fc.array(hostile, { minLength: 1, maxLength: 3 }),
    many: fc.boolean(),
    required: fc.boolean(),
    printed: fc.boolean(),
  }),
);

test("composing and the second look never throw, whatever stands at any place of any input", () => {
  fc.assert(
    fc.property(
      fc.record({
        content: fc.array(paragraph, { minLength: 1, maxLength: 3 }),
        blanks: fc.dictionary(name, blank, { maxKeys: 3 }),
        passages: fc.dictionary(
          name,
          condition.map((when) => ({ when })),
          { maxKeys: 3 },
        ),
        values: fc.dictionary(name, detail, { maxKeys: 3 }),
        subject: fc.oneof(fc.constant(null), hostile),
        slipLanguage: fc.oneof(hostile, fc.constant("de")),
        language: fc.oneof(hostile, fc.constant("en")),
        groups: fc.record({
          case: details,
          customer: details,
          organisation: details,
          booking: details,
          agent: details,
          house: details,
        }),
        zone: fc.oneof(hostile, fc.constant("UTC")),
        customerTimeZone: fc.oneof(hostile, fc.constant(null)),
        caseNumber: hostile,
        threadSubject: fc.oneof(hostile, fc.constant(null)),
        channel: fc.oneof(hostile, fc.constantFrom("email", "chat")),
        recipient: fc.oneof(hostile, fc.constant(null)),
        from: fc.constantFrom("thread", "reply"),
      }),
      (given) => {
        const slip = testSlip("", {
          document: { type: "doc", content: given.content },
          blanks: given.blanks,
          passages: given.passages,
          values: given.values,
          subject: given.subject,
          language: given.slipLanguage,
        });
        const input = testInput([slip], {
          context: { ...testContext(), ...(given.groups as object), time_zone: given.zone },
          language: given.language,
          customerTimeZone: given.customerTimeZone,
          caseNumber: given.caseNumber,
          threadSubject: given.threadSubject,
          channel: given.channel,
          subject: { from: given.from },
          contentId: (id) => id,
        });
        const letter = compose(input);
        expect(letter.subject).not.toMatch(/[\u0000-\u001f\u007f\u2028\u2029]/);
        expect(
          Array.isArray(
            secondLook({
              ...input,
              letter,
              recipient: given.recipient,
              standing: { is: "known", news: null, confirmed: false },
              otherNames: [],
              sentReplies: [],
              languageOf: guessLanguage,
            }),
          ),
        ).toBe(true);
      },
    ),
    { numRuns: 1500 },
  );
});

test("a language that nobody can write in is told, and the letter exists all the same", () => {
  const letter = compose(testInput([testSlip("On {$booking.sails_at :date}.")], { language: "en-@" }));
  expect(letter.problems.map((one) => one.code)).toEqual(["language-unusable"]);
  expect(letter.text).toMatch(/^On .*2026\.$/);
});

test("values are written in the language of the words around them", () => {
  const german = testSlip("Am {$booking.sails_at :date length=long}.", { language: "de" });
  expect(compose(testInput([german], { language: "es" })).text).toBe("Am 27. November 2026.");
});

test("a line break in a case number or value never reaches a subject", () => {
  const context = testContext({ booking: { from: "Tarn\r\nBcc: x@example.org" } });
  const letter = compose(
    testInput([testSlip("Yes.", { subject: "To {$booking.from}" })], {
      context,
      caseNumber: "SF-1\r\nBcc: y@example.org",
      subject: { from: "reply" },
    }),
  );
  expect(letter.subject).toBe("To Tarn Bcc: x@example.org [SF-1 Bcc: y@example.org]");
});
