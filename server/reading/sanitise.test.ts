import { expect, test } from "@jest/globals";
import { sanitiseMessage } from "./sanitise";

const clean = (html: string, remote = false) =>
  sanitiseMessage(html, new Map([["pic@x", "data:image/png;base64,AA=="]]), remote);

test.each([
  ["<p onclick='x()'>a</p><script>alert(1)</script>", "<p>a</p>"],
  ['<a href="javascript:alert(1)">a</a>', '<a target="_blank" rel="noopener noreferrer nofollow">a</a>'],
  ['<form action="https://example.org"><input name="a"></form>', ""],
  ['<iframe src="https://example.org"></iframe><object></object><svg><script>x</script></svg>', ""],
  [
    '<p style="position:fixed;background:url(https://example.org/x);color:red">a</p>',
    '<p style="color:red">a</p>',
  ],
  [
    '<meta http-equiv="refresh" content="0;url=https://example.org"><base href="https://example.org"><p>a</p>',
    "<p>a</p>",
  ],
])("%s is made harmless", (html, expected) => {
  expect(clean(html).html.trim()).toBe(expected);
});

test("remote pictures are held back and counted until they are asked for; the message's own are shown", () => {
  const html =
    '<img src="https://example.org/a.gif" alt="A"><img src="cid:pic@x"><img src="//example.org/b.gif">';
  const held = clean(html);
  expect(held.blocked).toBe(2);
  expect(held.html).not.toContain("example.org");
  expect(held.html).toContain("data:image/png;base64,AA==");
  expect(clean(html, true).html).toContain("https://example.org/a.gif");
});
