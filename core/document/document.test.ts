import { describe, expect, test } from "@jest/globals";
import { readMarkdown } from "../formats/markdown";
import { toEmailHtml } from "./html";
import { bareAddress, safeHref } from "./links";
import { emptyDocument, readDocument } from "./schema";
import { toPlainText } from "./text";
import { sizeOf, walk } from "./walk";

const html = (markdown: string) => toEmailHtml(readMarkdown(markdown).doc).replace(/ style="[^"]*"/g, "");
const plain = (markdown: string) => toPlainText(readMarkdown(markdown).doc.content);

describe("the schema", () => {
  test("attributes that are left out take their defaults", () => {
    const read = readDocument({
      type: "doc",
      content: [{ type: "heading", content: [{ type: "text", text: "A" }] }],
    });
    expect(read).toEqual({
      ok: true,
      doc: {
        type: "doc",
        content: [
          { type: "heading", attrs: { level: 2, passages: [] }, content: [{ type: "text", text: "A" }] },
        ],
      },
    });
  });

  test.each([
    [{ type: "doc", content: [] }, "“doc” cannot be empty"],
    [{ type: "paragraph" }, "A document starts with a node of type doc at type"],
    [{ type: "doc", content: [{ type: "marquee" }] }, "Unknown kind of node “marquee” at content.0"],
    [
      { type: "doc", content: [{ type: "listItem", content: [{ type: "paragraph" }] }] },
      "“doc” cannot hold listItem",
    ],
    [
      {
        type: "doc",
        content: [{ type: "bulletList", content: [{ type: "listItem", content: [{ type: "bulletList" }] }] }],
      },
      "“bulletList” cannot be empty at content.0.content.0.content.0",
    ],
    [
      { type: "doc", content: [{ type: "paragraph", attrs: { onclick: "x" } }] },
      "Unknown attribute “onclick” at content.0.attrs.onclick",
    ],
    [
      {
        type: "doc",
        content: [{ type: "paragraph", content: [{ type: "text", text: "a", marks: [{ type: "blink" }] }] }],
      },
      "Unknown mark at content.0.content.0.marks.0",
    ],
    ["words", "Not a node"],
  ])("refuses %j with its path", (json, problem) => {
    expect(readDocument(json)).toEqual({ ok: false, problem });
  });

  test("refuses what is nested too deep instead of overflowing", () => {
    let node: unknown = { type: "paragraph" };
    for (let depth = 0; depth < 5000; depth += 1) node = { type: "blockquote", content: [node] };
    expect(readDocument({ type: "doc", content: [node] })).toMatchObject({ ok: false });
  });
});

describe("HTML", () => {
  test("writes lists, tables, quotes and marks with inline styles and nothing else", () => {
    const source = "# T\n\nA **b** *c* ~~d~~ :u[e] :mark[f]\n\n> q\n\n---\n\n3. x\n   - y";
    expect(html(source)).toBe(
      '<h1>T</h1>\n<p>A <strong>b</strong> <em>c</em> <s>d</s> <u>e</u> <span>f</span></p>\n<blockquote><p>q</p></blockquote>\n<hr>\n<ol start="3"><li>x<ul><li>y</li></ul></li></ol>',
    );
    expect(toEmailHtml(readMarkdown(source).doc)).not.toContain("class=");
  });

  test("escapes what is written and refuses scripts in links", () => {
    expect(html('a < b & "c" <script>x</script>')).toBe(
      "<p>a &lt; b &amp; &quot;c&quot; &lt;script&gt;x&lt;/script&gt;</p>",
    );
    expect(html("[x](javascript:alert(1))")).toBe("<p>x</p>");
    expect(safeHref("java\nscript:alert(1)")).toBeNull();
    expect(safeHref(" https://example.org/a ")).toBe("https://example.org/a");
  });
});

describe("plain text", () => {
  test("shows a link's address behind its words, once", () => {
    expect(
      plain(
        "See [our page](https://example.org/a), <https://example.org> or [www.example.net](https://www.example.net/).",
      ),
    ).toBe("See our page <https://example.org/a>, https://example.org or www.example.net.");
    expect(plain("[**bold** and plain](https://example.org/a)")).toBe(
      "bold and plain <https://example.org/a>",
    );
    expect(bareAddress("https://www.Example.net/")).toBe("example.net");
  });

  test("indents nested lists and keeps numbers", () => {
    expect(plain("9. a\n10. b\n\n    more\n    - c\n      - d")).toBe(
      "9. a\n10. b\n\n    more\n    - c\n      - d",
    );
  });

  test("lays a narrow table out in columns and tells a wide one row by row", () => {
    expect(plain("| A | B |\n|---|---|\n| 1 | 日本 |\n| 22 | x |")).toBe("A   B\n--  --\n1   日本\n22  x");
    const long = "word ".repeat(12).trim();
    expect(plain(`| Harbour | Hall |\n|---|---|\n| Osmer Quay | ${long} ${long} |\n| Pellick | shut |`)).toBe(
      `Harbour: Osmer Quay\nHall: ${long} ${long}\n\nHarbour: Pellick\nHall: shut`,
    );
  });
});

test("positions count as ProseMirror's do", () => {
  const { doc } = readMarkdown("Hi {$case.number}!\n\n- a");
  const seen: [string, number][] = [];
  walk(doc, (node, position) => seen.push([node.type, position]));
  expect(seen).toEqual([
    ["paragraph", 0],
    ["text", 1],
    ["token", 4],
    ["text", 5],
    ["bulletList", 7],
    ["listItem", 8],
    ["paragraph", 9],
    ["text", 10],
  ]);
  expect(sizeOf(emptyDocument())).toBe(4);
});
