import { describe, expect, test } from "@jest/globals";
import { getSchema } from "@tiptap/core";
import fc from "fast-check";
import { marks, nodes } from "#core/document/definition";
import { readDocument } from "#core/document/schema";
import { readMarkdown } from "#core/formats/markdown";
import { BlankInAnswer, TokenInAnswer } from "./inline-views";
import { documentExtensions } from "../../ui/editor/schema";
import { Answer, SlipInAnswer } from "./slip-view";
import { ownWordsSlip, slipJson, slipsOf } from "./slips";

const schema = getSchema([Answer, SlipInAnswer, TokenInAnswer, BlankInAnswer, ...documentExtensions]);

describe("the editor's schema is the document's", () => {
  test.each(Object.keys(nodes).filter((name) => name !== "doc" && name !== "text"))("node %s", (name) => {
    const definition: { content?: string; group?: string; attrs: object } = nodes[name as keyof typeof nodes];
    const node = schema.nodes[name];
    expect({ content: node?.spec.content ?? "", group: node?.spec.group ?? "" }).toEqual({
      content: definition.content ?? "",
      group: definition.group ?? "",
    });
    expect(Object.keys(node?.spec.attrs ?? {}).sort()).toEqual(Object.keys(definition.attrs).sort());
  });

  test.each(Object.entries(marks))("mark %s", (name, attrs) => {
    expect(Object.keys(schema.marks[name]?.spec.attrs ?? {}).sort()).toEqual(Object.keys(attrs).sort());
  });

  test("has nothing beyond it but the answer's slips", () => {
    expect(Object.keys(schema.nodes).sort()).toEqual([...Object.keys(nodes), "slip"].sort());
    expect(Object.keys(schema.marks).sort()).toEqual(Object.keys(marks).sort());
  });
});

test("a document goes into the editor and comes out the same", () => {
  const bits = fc.constantFrom(
    "- a\n",
    "1. b\n",
    "> c\n\n",
    "| a |\n|---|\n| :row{#r} {$booking.from} |\n\n",
    "**d** ",
    "{$customer.first_name :text fallback=you} ",
    "{$blank.x} ",
    ":passage[e]{#p} ",
    ":::passage{#q}\nf\n:::\n\n",
    "[g](https://example.org) ",
    "~~h~~ :u[i] :mark[j]\n\n",
    "---\n\n",
    "# k\n\n",
    "l\\\nm\n\n",
  );
  fc.assert(
    fc.property(fc.array(bits, { maxLength: 12 }), (parts) => {
      const { doc } = readMarkdown(parts.join(""));
      const node = schema.nodeFromJSON({
        type: "doc",
        content: [slipJson({ ...ownWordsSlip("en", "one"), document: doc })],
      });
      node.check();
      const [slip] = slipsOf(node);
      expect(readDocument(JSON.parse(JSON.stringify(slip?.document)))).toEqual({ ok: true, doc });
    }),
  );
});
