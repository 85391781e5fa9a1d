import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { compose } from "../compose/compose";
import { testContext, testInput, testSlip } from "../compose/testing";
import { catalogue } from "../tokens/catalogue";
import { addressesIn, linkAddresses } from "./addresses";
import { htmlOf } from "./html";
import type { Block, Inline, TextNode } from "./types";

const found = (text: string) => addressesIn(text).map(({ from, to, href }) => [text.slice(from, to), href]);

describe("addresses in words", () => {
  test.each([
    ["See https://example.org/map.", "https://example.org/map", "https://example.org/map"],
    ["(at www.example.org/a_(b))", "www.example.org/a_(b)", "https://www.example.org/a_(b)"],
    ["Write to desk@example.com, please", "desk@example.com", "mailto:desk@example.com"],
    ["https://example.org/?a=1&b=2!", "https://example.org/?a=1&b=2", "https://example.org/?a=1&b=2"],
  ])("%s", (text, words, href) => {
    expect(found(text)).toEqual([[words, href]]);
  });

  test.each([
    "What is the time.It is late.",
    "timetable.pdf and notes.md",
    "javascript:alert(1)",
    "ftp://example.org/x",
    "a @ b",
    "//example.org",
  ])("none: %s", (text) => {
    expect(found(text)).toEqual([]);
  });
});

describe("in a letter's HTML", () => {
  const html = (markdown: string) => compose(testInput([testSlip(markdown)])).html ?? "";

  test("a bare address becomes a link, and the words stay the same", () => {
    expect(html("The map: https://example.org/?a=1&b=2.")).toContain(
      'The map: <a href="https://example.org/?a=1&amp;b=2">https://example.org/?a=1&amp;b=2</a>.',
    );
  });

  test("an address that a value ends is one link, also where the value stands in other marks", () => {
    const line = (...content: Inline[]): Block => ({ type: "paragraph", attrs: { passages: [] }, content });
    const own = { type: "text" as const, text: "at https://example.org/" };
    const value: TextNode = {
      type: "text",
      text: "SF-1",
      marks: [{ type: "bold" }],
      source: { slip: "s", from: 1, to: 2, kind: "token", name: "case.number" },
    };
    expect(htmlOf(linkAddresses(line(own, value)))).toContain(
      'at <a href="https://example.org/SF-1">https://example.org/SF-1</a></p>',
    );
  });

  test("what a customer calls themselves never becomes a link, nor tells where one leads; a house fact may", () => {
    const customer = (first_name: string) =>
      compose(
        testInput([testSlip("Dear {$customer.first_name}, https\\://www.{$customer.first_name}/x")], {
          context: testContext({ customer: { first_name } }),
        }),
      ).html;
    for (const name of ["https://evil.example", "evil.example", "x@evil.example"])
      expect(customer(name)).not.toMatch(/href="[^"]*evil/);
    const fact = compose(
      testInput([testSlip("See {$house.page}.")], {
        tokens: catalogue({ houseFacts: [{ key: "page", label: "page", type: "text", example: "x" }] }),
        context: testContext({ house: { page: "https://example.org/fares" } }),
      }),
    ).html;
    expect(fact).toContain('<a href="https://example.org/fares">');
  });

  test("a link stays the link that it is, also where its words are an address", () => {
    const made = html(
      "[https://example.org/here](https://example.org/there) and **[bold](https://example.org/b)**",
    );
    expect(made.match(/<a /g)).toHaveLength(2);
    expect(made).toContain('<a href="https://example.org/there">https://example.org/here</a>');
  });

  test("what is written as HTML stays words", () => {
    const made = html('\\<a href="https://example.org/x"\\>press\\</a\\>');
    expect(made).toContain("&lt;a href=&quot;");
    expect(made).not.toContain('<a href="https://example.org/x">press');
  });
});

test("whatever the words are, what is read of them is unchanged, and linking twice is linking once", () => {
  const piece = fc.oneof(
    fc.string(),
    fc.webUrl(),
    fc.emailAddress(),
    fc.constantFrom("www.example.org", "<", "&amp;", '"', "'>", " "),
  );
  const read = (html: string) => html.replace(/<[^>]*>/g, "");
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 6 }), (pieces) => {
      const content = pieces.filter((text) => text !== "").map((text) => ({ type: "text" as const, text }));
      const block: Block = { type: "paragraph", attrs: { passages: [] }, content };
      const once = linkAddresses(block);
      expect(read(htmlOf(once))).toBe(read(htmlOf(block)));
      expect(linkAddresses(once)).toEqual(once);
      expect(htmlOf(once)).not.toMatch(/href="(?!https?:|mailto:)/);
    }),
  );
});
