import { describe, expect, test } from "@jest/globals";
import { cleanHtml } from "./paste";

describe("what is pasted keeps its words and loses its looks", () => {
  test.each([
    ["a plain paragraph", "<p>Dear guest</p>", "<p>Dear guest</p>"],
    ["classes, ids and events", '<p class="x" id="y" onclick="alert(1)">a</p>', "<p>a</p>"],
    ["fonts and centring", '<center><font color="red">a</font></center>', "a"],
    [
      "scripts and styles with all they hold",
      "<style>p{}</style><script>alert(1)</script><p>a</p>",
      "<p>a</p>",
    ],
    ["comments, and what offices hide in them", "<p>a<!--[if mso]><b>x</b><![endif]--></p>", "<p>a</p>"],
    [
      "bold, italic, underline and strike that stand in styles",
      '<p><span style="font-weight:700">a</span><span style="font-style:italic">b</span>' +
        '<span style="text-decoration:underline">c</span><span style="text-decoration:line-through">d</span></p>',
      "<p><span><strong>a</strong></span><span><em>b</em></span><span><u>c</u></span><span><s>d</s></span></p>",
    ],
    ["bold that says it is not", '<b style="font-weight:normal"><p>a</p></b>', "<p>a</p>"],
    ["divisions that are paragraphs", "<div>a</div><div>b</div>", "<p>a</p><p>b</p>"],
    ["divisions around paragraphs", "<div><p>a</p></div>", "<div><p>a</p></div>"],
    ["pictures of elsewhere", '<p>a<img src="https://example.net/spy.gif"></p>', "<p>a</p>"],
    [
      "cells over several columns",
      '<table><tbody><tr><td colspan="2">a</td></tr></tbody></table>',
      '<table><tbody><tr><td data-colspan="2">a</td></tr></tbody></table>',
    ],
    [
      "where a numbered list begins",
      '<ol start="4" class="x"><li>a</li></ol>',
      '<ol start="4"><li>a</li></ol>',
    ],
  ])("%s", (_what, html, clean) => {
    expect(cleanHtml(html)).toBe(clean);
  });
});

describe("links", () => {
  test.each([
    ["https://example.org/a", true],
    ["mailto:desk@example.org", true],
    ["tel:+4912345", true],
    ["https://example.org/{$case.number}", true],
    ["javascript:alert(1)", false],
    ["data:text/html,x", false],
    ["", false],
    [`https://example.org/${"a".repeat(2000)}`, false],
  ])("to %s: kept %s, and the words stay", (href, kept) => {
    const clean = cleanHtml(`<p><a href="${href}" target="_blank">here</a></p>`);
    expect(clean).toBe(kept ? `<p><a href="${href}">here</a></p>` : "<p>here</p>");
  });
});

describe("what cannot stand in a document", () => {
  test("quotations deeper than six stand in the sixth", () => {
    const clean = cleanHtml(`${"<blockquote>".repeat(60)}<p>a</p>${"</blockquote>".repeat(60)}`);
    expect(clean.match(/<blockquote>/g)).toHaveLength(6);
    expect(clean).toContain("<p>a</p>");
  });

  test("lists deeper than six likewise", () => {
    const clean = cleanHtml(`${"<ul><li>".repeat(9)}a${"</li></ul>".repeat(9)}`);
    expect(clean.match(/<ul>/g)).toHaveLength(6);
    expect(clean.match(/a/g)).toHaveLength(1);
  });
});

describe("lists of word processors", () => {
  test("become lists, without the signs that were typed for them", () => {
    const item = (words: string) => `<p class="MsoListParagraph" style="mso-list:l0 level1">${words}</p>`;
    expect(cleanHtml(`${item("· one")}${item("· two")}<p>after</p>`)).toBe(
      "<ul><li>one</li><li>two</li></ul><p>after</p>",
    );
    expect(cleanHtml(`${item("1. one")}${item("2. two")}`)).toBe("<ol><li>one</li><li>two</li></ol>");
  });

  test("of another kind, or after other words, are others", () => {
    const item = (words: string) => `<p class="MsoListParagraph">${words}</p>`;
    expect(cleanHtml(`${item("· a")}${item("1. b")}<p>c</p>${item("· d")}`)).toBe(
      "<ul><li>a</li></ul><ol><li>b</li></ol><p>c</p><ul><li>d</li></ul>",
    );
  });
});

test("values, blanks, passages and pictures of ours stay as they are", () => {
  const ours =
    '<p data-passages="[]"><span data-token="customer.first_name" class="chip">x</span>' +
    '<img data-attachment="7" src="/library-files/7"></p>';
  const clean = cleanHtml(ours);
  expect(clean).toContain('data-token="customer.first_name"');
  expect(clean).toContain('data-attachment="7"');
  expect(clean).toContain('data-passages="[]"');
});

test("cleaning twice is cleaning once", () => {
  const html =
    '<div class="a"><b style="font-weight:normal"><span style="font-weight:600">x</span></b><font>y</font></div>';
  expect(cleanHtml(cleanHtml(html))).toBe(cleanHtml(html));
});
