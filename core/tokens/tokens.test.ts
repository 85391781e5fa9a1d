import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { testContext } from "../compose/testing";
import { placeholderText } from "../document/placeholder";
import { blankSchema, blankValue, joinChoices, unfitness } from "./blanks";
import { formatValue } from "./format";
import { escapeText, readPlaceholder, readText } from "./text-form";
import { lookUp, valueOf } from "./values";

const style = { language: "en-GB", timeZone: "Europe/Lisbon" };
const format = (value: unknown, source: string, type = null, changes = {}) => {
  const read = readPlaceholder(source);
  if (!read.ok) throw new Error(read.message);
  return formatValue(valueOf(value as never, type, "not said"), read.node.attrs, { ...style, ...changes });
};

describe("the text form", () => {
  test("reads tokens, blanks, functions and options", () => {
    expect(
      readText(
        "Case {$case.number}: {$booking.sails_at :datetime dateLength=long timePrecision=minute}, {$blank.harbour}",
      ).pieces,
    ).toEqual([
      { type: "text", text: "Case " },
      { type: "token", attrs: { name: "case.number", fn: null, options: {} } },
      { type: "text", text: ": " },
      {
        type: "token",
        attrs: {
          name: "booking.sails_at",
          fn: "datetime",
          options: { dateLength: "long", timePrecision: "minute" },
        },
      },
      { type: "text", text: ", " },
      { type: "blank", attrs: { name: "harbour", fn: null, options: {} } },
    ]);
  });

  test("a text that begins with a dot, or looks like a declaration, is just text", () => {
    for (const source of [".match $x", ".input here", "..."])
      expect(readText(source)).toEqual({ pieces: [{ type: "text", text: source }], problems: [] });
  });

  test("what cannot be read stays, with its place, and loses nothing around it", () => {
    const { pieces, problems } = readText("Hi {$customer.first_name}, {oops and {$case.number}");
    expect(
      pieces.map((piece) => (piece.type === "text" ? piece.text : placeholderText(piece))).join(""),
    ).toContain("oops");
    expect(pieces.filter((piece) => piece.type === "token")).toHaveLength(2);
    expect(problems).toHaveLength(1);
    const bad = readText("a {$case.number :date length=$x} b");
    expect(bad.problems).toEqual([
      { message: "The option length takes a plain value, not another token", from: 2, to: 32 },
    ]);
    expect(bad.pieces[1]).toEqual({ type: "text", text: "{$case.number :date length=$x}" });
  });

  test("reading never throws, and words survive escaping", () => {
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom("{", "}", "|", "\\", "$", "a", ".", ":", " ", "=", "#", "/", "@"),
        }),
        (source) => {
          expect(() => readText(source)).not.toThrow();
        },
      ),
    );
    fc.assert(
      fc.property(fc.string(), (words) => {
        const read = readText(escapeText(words));
        expect(read.problems).toEqual([]);
        expect(read.pieces).toEqual(words === "" ? [] : [{ type: "text", text: words }]);
      }),
    );
  });

  test("a placeholder's text form reads back as the same placeholder", () => {
    const name = fc.stringMatching(/^[a-z]{1,8}\.[a-z][a-z0-9_]{0,8}$/);
    const options = fc.dictionary(fc.stringMatching(/^[a-zA-Z]{1,10}$/), fc.string({ maxLength: 20 }), {
      maxKeys: 3,
    });
    fc.assert(
      fc.property(name, fc.constantFrom(null, "date", "number", "text"), options, (full, fn, given) => {
        const node = {
          type: "token" as const,
          attrs: {
            name: full,
            fn: fn === "text" && Object.keys(given).length === 0 ? null : fn,
            options: given,
          },
        };
        if (node.attrs.fn === null && Object.keys(given).length > 0) node.attrs.fn = "text";
        if (full.startsWith("blank.")) return;
        // MessageFormat 2 compares names in NFC and forbids a null character.
        if (Object.values(given).some((value) => /[\0\ud800-\udfff]/.test(value))) return;
        expect(readPlaceholder(placeholderText(node))).toEqual({ ok: true, node });
      }),
    );
  });
});

describe("formatting", () => {
  test("uses MessageFormat 2's functions and options", () => {
    expect(
      format("2026-11-27T07:40:00Z", "{$x.y :datetime dateLength=long timePrecision=minute}"),
    ).toMatchObject({ text: "27 November 2026 at 07:40" });
    expect(format("2026-11-27", "{$x.y :date length=long fields=month-day-weekday}")).toMatchObject({
      text: "Friday 27 November",
    });
    expect(format(118, "{$x.y :currency currency=EUR}", null, { language: "fr" })).toMatchObject({
      text: "118,00\u00a0€",
    });
    expect(format(0.25, "{$x.y :percent}")).toMatchObject({ text: "25%" });
    expect(format("ostermere", "{$x.y :text case=title}")).toMatchObject({ text: "Ostermere" });
    expect(format("straße", "{$x.y :text case=upper}", null, { language: "de" })).toMatchObject({
      text: "STRASSE",
    });
  });

  test("a calendar date does not shift with the zone, an instant does", () => {
    const far = { timeZone: "Pacific/Auckland" };
    expect(format("2026-11-27", "{$x.y :date length=short}", null, far)).toMatchObject({
      text: "27/11/2026",
    });
    expect(format("2026-11-27T23:00:00Z", "{$x.y :date length=short}", null, far)).toMatchObject({
      text: "28/11/2026",
    });
    expect(
      format("2026-11-27T23:00:00Z", "{$x.y :time timeZone=customer}", null, {
        ...far,
        customerTimeZone: "UTC",
      }),
    ).toMatchObject({ text: "23:00" });
  });

  test("says why a value cannot be written as asked", () => {
    expect(format("soon", "{$x.y :date}")).toEqual({
      kind: "problem",
      problem: "“soon” cannot be written as a date",
    });
    expect(format("a", "{$x.y :shout}")).toMatchObject({ kind: "problem" });
    expect(format("a", "{$x.y :text case=zigzag}")).toMatchObject({ kind: "problem" });
    expect(format(5, "{$x.y :currency}")).toMatchObject({ kind: "problem" });
  });
});

describe("looking up", () => {
  test("reaches a group's own values and nothing else", () => {
    const context = testContext();
    for (const name of [
      "customer.constructor",
      "customer.__proto__",
      "toString.call",
      "case",
      "message.body",
      "now.x",
    ]) {
      expect(lookUp(context, name, null).kind).toBe("missing");
    }
    expect(lookUp(context, "organisation.name", "text")).toEqual({
      kind: "missing",
      why: "the customer belongs to no organisation",
    });
  });
});

describe("blanks", () => {
  const blank = (json: object) => blankSchema.parse(json);
  test.each([
    [{ kind: "number", min: 1, max: 72 }, 73, "takes at most 72"],
    [{ kind: "number" }, "3", "takes a number"],
    [{ kind: "time" }, "25:00", "takes a time, as in 07:40"],
    [{ kind: "date", min: "2026-01-01" }, "2025-12-31", "takes no date before 2026-01-01"],
    [{ kind: "choice", options: ["a"] }, "b", "takes only what is offered"],
    [{ kind: "choice", options: ["a", "b"] }, ["a", "b"], "takes one choice"],
    [{ kind: "yes_no" }, "yes", "takes yes or no"],
    [{ kind: "money" }, 5, null],
  ])("%j with %j", (json, value, problem) => {
    expect(unfitness(blank(json), value)).toBe(problem);
  });

  test("several choices are joined as the language does, or by the blank's own text", () => {
    const many = { kind: "choice", options: ["a", "b", "c"], many: true };
    expect(joinChoices(["a", "b", "c"], blank(many), "de")).toBe("a, b und c");
    expect(joinChoices(["a", "b"], blank({ ...many, join: " / " }), "de")).toBe("a / b");
  });

  test("money takes the blank's currency", () => {
    expect(
      blankValue("fee", blank({ kind: "money", currency: "GBP" }), 6, testContext(), style),
    ).toMatchObject({ value: { amount: 6, currency: "GBP" } });
  });
});
