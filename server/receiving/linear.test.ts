import { expect, test } from "@jest/globals";
import { growth, LINEAR } from "#core/testing/growth";
import { sanitiseMessage } from "../reading/sanitise";
import { searchTerms } from "../replies/search";
import { readBeginning, readMail, type RawMail } from "../reading/parse";

/** Sanitising as a message is shown: without pictures of its own. */
const sanitise = (html: string) => sanitiseMessage(html, new Map(), false);

test.each([
  ["nested divisions", "<div>", "</div>"],
  ["nested tables", "<table><tr><td>", "</td></tr></table>"],
  ["nested quotations", "<blockquote>", ""],
  ["never closed", "<b", ""],
  ["attributes without end", "<a href='", ""],
  ["lengths", "<p style='margin:1 1 1 1 1 1 1 1'>", "</p>"],
  ["comments", "<!-- ", ""],
  ["entities", "&amp;&#x1f600;&", ""],
])("HTML of %s is made safe in time in proportion to it", async (_what, open, close) => {
  const make = (size: number) => {
    const count = Math.ceil(size / (open.length + close.length));
    return open.repeat(count) + close.repeat(count);
  };
  expect(await growth(make, 3000, sanitise)).toBeLessThan(LINEAR);
});

test("a style of many lengths is made safe in time in proportion to it", async () => {
  const make = (size: number) => `<p style="margin:${"1 ".repeat(size / 2)}">x</p>`;
  expect(await growth(make, 4000, sanitise)).toBeLessThan(LINEAR);
});

test("words that are searched for are read in time in proportion to them", async () => {
  for (const piece of ["a", "a ", "é-", "1.2,", "\u0301"]) {
    const make = (size: number) => piece.repeat(Math.ceil(size / piece.length));
    expect(await growth(make, 4000, (text) => searchTerms(text, 5000))).toBeLessThan(LINEAR);
  }
});

const mail = (text: string): RawMail => ({
  raw: Buffer.from(text),
  envelopeFrom: "ines@example.org",
  trusted: ["mx.example.com"],
});
const head = "From: Ines <ines@example.org>\r\nTo: desk@example.com\r\nSubject: x\r\n";

test.each([
  ["many short lines", (size: number) => `${head}\r\n${"> a\r\nb\r\n".repeat(size / 8)}`],
  ["one long line", (size: number) => `${head}\r\n${"a".repeat(size)}`],
  ["many recipients", (size: number) => `To: ${"a <a@example.org>, ".repeat(size / 19)}\r\n${head}\r\nx`],
  [
    "an address of brackets",
    (size: number) => `From: ${"<(".repeat(size / 2)}\r\nTo: desk@example.com\r\n\r\nx`,
  ],
  ["many headers", (size: number) => `${"X-A: b\r\n".repeat(size / 8)}${head}\r\nx`],
  ["one long header", (size: number) => `X-A: ${"b c ".repeat(size / 4)}\r\n${head}\r\nx`],
  ["many references", (size: number) => `References: ${"<a@b> ".repeat(size / 6)}\r\n${head}\r\nx`],
  [
    "many results of receivers",
    (size: number) =>
      `${"Authentication-Results: mx.example.com; spf=fail\r\n".repeat(size / 50)}${head}\r\nx`,
  ],
  [
    "encoded words",
    (size: number) => `${head.replace("Subject: x", `Subject: ${"=?utf-8?q?a?= ".repeat(size / 14)}`)}\r\nx`,
  ],
  [
    "formatted text alone",
    (size: number) => `${head}Content-Type: text/html\r\n\r\n${"<div><p>a".repeat(size / 9)}`,
  ],
])("a message of %s is read in time in proportion to it", async (_what, make) => {
  expect(await growth((size) => mail(make(size)), 8000, readMail)).toBeLessThan(LINEAR);
});

test("the beginning of what cannot be read in time is read at once", async () => {
  for (const piece of ["From: a@", "Subject: ", "Message-ID: <", "\r\n", "a"]) {
    const make = (size: number) => mail(piece.repeat(Math.ceil(size / piece.length)));
    expect(await growth(make, 20_000, readBeginning)).toBeLessThan(LINEAR);
  }
});
