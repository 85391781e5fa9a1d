import { describe, expect, test } from "@jest/globals";
import { getSchema } from "@tiptap/core";
import type { Node as PmNode } from "@tiptap/pm/model";
import { EditorState, TextSelection, type Transaction } from "@tiptap/pm/state";
import { CellSelection } from "@tiptap/pm/tables";
import fc from "fast-check";
import { readDocument } from "#core/document/schema";
import { readMarkdown } from "#core/formats/markdown";
import { writeMarkdown } from "#core/formats/markdown-write";
import { bodyExtensions } from "./body";
import { refsOf } from "./brackets";
import { addOtherwise, freeOf, passagesAt, putUnder, scopesAt, turnAround } from "./passage-commands";

const schema = getSchema(
  bodyExtensions({
    definitions: { tokens: new Map(), blanks: {}, passages: {}, findings: [], sample: () => null },
    onBrace: () => undefined,
  }),
);

/** An editor's state with the words between `<` and `>` selected; a lone `<` is the cursor. */
function state(markdown: string): EditorState {
  const doc = schema.nodeFromJSON(readMarkdown(markdown).doc);
  const places: number[] = [];
  doc.descendants((node, position) => {
    for (const found of (node.text ?? "").matchAll(/[‹›]/g)) places.push(position + found.index);
  });
  const made = EditorState.create({ doc });
  const tr = made.tr;
  for (const place of [...places].reverse()) tr.delete(place, place + 1);
  const [from = 1, to = from + 1] = places;
  return made.apply(tr.setSelection(TextSelection.create(tr.doc, from, places.length > 1 ? to - 1 : from)));
}

const text = (tr: Transaction) => {
  const read = readDocument(tr.doc.toJSON());
  if (!read.ok) throw new Error(read.problem);
  return writeMarkdown(read.doc).text.trim();
};
const scope = (one: EditorState, label: string) => {
  const found = scopesAt(one).find((each) => each.label === label);
  if (!found)
    throw new Error(
      `${label} is not offered: ${scopesAt(one)
        .map((each) => each.label)
        .join(", ")}`,
    );
  return found;
};
const labels = (one: EditorState) => scopesAt(one).map((each) => each.label);
/** How often each passage is used in a document. */
function passageUses(doc: PmNode): Map<string, number> {
  const uses = new Map<string, number>();
  doc.descendants((node) => {
    for (const { id } of refsOf(node)) uses.set(id, (uses.get(id) ?? 0) + 1);
  });
  return uses;
}

const ref = { id: "car", otherwise: false };

describe("what may stand under a condition", () => {
  test.each([
    ["at a cursor, its paragraph", "one\n\ntw‹o", ["this paragraph"]],
    ["selected words, and their paragraph", "one ‹two› three", ["these words", "this paragraph"]],
    ["in an item, the item and its list", "- one\n- tw‹o", ["this item", "the list"]],
    ["in a cell, its row and the table", "| a | b |\n|---|---|\n| c‹ | d |", ["this row", "the table"]],
    ["over paragraphs, those", "o‹ne\n\ntwo\n\nthr›ee", ["these 3 paragraphs"]],
    ["over items, those, and the list", "- o‹ne\n- tw›o\n- three", ["these 2 items", "the list"]],
    ["in a quotation, both", "> on‹e", ["this paragraph", "the quotation"]],
  ])("%s", (_what, markdown, offered) => {
    expect(labels(state(markdown))).toEqual(offered);
  });

  test("selected cells of two rows offer both rows", () => {
    const one = state("| a | b |\n|---|---|\n| c | d |\n| e | f |");
    const cells: number[] = [];
    one.doc.descendants((node, position) => {
      if (node.type.name === "tableCell") cells.push(position);
    });
    const [first = 0, , third = 0] = cells;
    const selected = one.apply(one.tr.setSelection(CellSelection.create(one.doc, first, third)));
    expect(labels(selected)).toContain("these 2 rows");
    expect(
      text(putUnder(selected, scope(selected, "these 2 rows"), ref)).match(/:row\{#car\}/g),
    ).toHaveLength(2);
  });
});

describe("putting under, turning, freeing", () => {
  test("words, items and rows read as they do in the text form", () => {
    const words = state("one ‹two› three");
    expect(text(putUnder(words, scope(words, "these words"), ref))).toBe("one :passage[two]{#car} three");
    const item = state("- one\n- tw‹o");
    expect(text(putUnder(item, scope(item, "this item"), ref))).toBe("- one\n- :passage[two]{#car}");
    const row = state("| a | b |\n|---|---|\n| c‹ | d |");
    expect(text(putUnder(row, scope(row, "this row"), ref))).toContain(":row{#car}");
  });

  test("conditions nest, and one is freed without the other", () => {
    const one = state("one tw‹o");
    const outer = one.apply(putUnder(one, scope(one, "this paragraph"), ref));
    const both = outer.apply(putUnder(outer, scope(outer, "this paragraph"), { id: "dog", otherwise: true }));
    expect(passagesAt(both).map(({ ref: { id, otherwise } }) => [id, otherwise])).toEqual([
      ["car", false],
      ["dog", true],
    ]);
    const [car] = passagesAt(both);
    const freed = both.apply(freeOf(both, "car", car?.from ?? 0, car?.to ?? 0));
    expect(passagesAt(freed).map((each) => each.ref.id)).toEqual(["dog"]);
    expect([...passageUses(freed.doc)]).toEqual([["dog", 1]]);
  });

  test("a passage of words is found from any place in it, and only it is freed", () => {
    const one = state(":passage[one **tw‹o** three]{#car} and :passage[four]{#car}");
    const [found] = passagesAt(one);
    expect(found && one.doc.textBetween(found.from, found.to)).toBe("one two three");
    expect(text(freeOf(one, "car", found?.from ?? 0, found?.to ?? 0))).toBe(
      "one **two** three and :passage[four]{#car}",
    );
  });

  test("an otherwise stands right behind, and behind a whole table for one of its rows", () => {
    const one = state(":::passage{#car}\nyes‹\n:::\n\nlast");
    const [found] = passagesAt(one);
    const added = addOtherwise(one, ref, found?.to ?? 0);
    expect(added.doc.child(1).attrs.passages).toEqual([{ id: "car", otherwise: true }]);
    expect(added.doc.child(2).textContent).toBe("last");
    const row = state("| a |\n|---|\n| :row{#car} b‹ |\n\nlast");
    const [inRow] = passagesAt(row);
    expect(addOtherwise(row, ref, inRow?.to ?? 0).doc.child(1).attrs.passages).toEqual([
      { id: "car", otherwise: true },
    ]);
  });

  test("turning around twice, and putting under then freeing, change nothing", () => {
    const documents = fc.constantFrom(
      "one ‹two› three",
      "- one\n- tw‹o",
      "| a | b |\n|---|---|\n| c‹ | d |",
      "o‹ne\n\ntwo\n\nthr›ee",
      "one ‹{$case.number} **two**› three",
      "> 1. on‹e",
    );
    fc.assert(
      fc.property(documents, fc.nat(5), (markdown, pick) => {
        const one = state(markdown);
        const scopes = scopesAt(one);
        const chosen = scopes[pick % scopes.length];
        if (!chosen) return;
        const under = one.apply(putUnder(one, chosen, ref));
        const { size } = under.doc.content;
        const turned = under.apply(turnAround(under, "car", 0, size));
        expect(turned.doc.eq(under.doc)).toBe(false);
        expect(turned.apply(turnAround(turned, "car", 0, size)).doc.eq(under.doc)).toBe(true);
        expect(under.apply(freeOf(under, "car", 0, size)).doc.eq(one.doc)).toBe(true);
      }),
    );
  });
});
