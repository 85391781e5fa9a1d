import { expect, test } from "@jest/globals";
import { getSchema } from "@tiptap/core";
import { EditorState, NodeSelection, TextSelection } from "@tiptap/pm/state";
import { readMarkdown } from "#core/formats/markdown";
import { bodyExtensions } from "./body";
import { underHand } from "./under-hand";

const schema = getSchema(
  bodyExtensions({
    definitions: { tokens: new Map(), blanks: {}, passages: {}, findings: [], sample: () => null },
    onBrace: () => undefined,
  }),
);

function stateOf(markdown: string): EditorState {
  return EditorState.create({ doc: schema.nodeFromJSON(readMarkdown(markdown).doc) });
}

/** Where some words, or the first node of a kind, begin. */
function placeOf(state: EditorState, what: string): number {
  let place = -1;
  state.doc.descendants((node, position) => {
    if (place >= 0) return false;
    if (node.type.name === what) place = position;
    const at = node.text?.indexOf(what) ?? -1;
    if (at >= 0) place = position + at;
    return true;
  });
  if (place < 0) throw new Error(`There is no ${what}`);
  return place;
}

const select = (state: EditorState, from: number, to: number) =>
  state.apply(state.tr.setSelection(TextSelection.create(state.doc, from, to)));

test("a chip that is pressed is what the menu is about, and is selected", () => {
  const state = stateOf("Dear {$customer.first_name}, your lane is {$blank.lane}.");
  const token = placeOf(state, "token");
  const found = underHand(state, token);
  expect(found?.chip).toEqual({ kind: "token", name: "customer.first_name" });
  expect(found?.selection).toBeInstanceOf(NodeSelection);
  expect(found?.selection.from).toBe(token);
  expect(underHand(state, placeOf(state, "blank"))?.chip).toEqual({ kind: "blank", name: "lane" });
});

test("plain words have nothing to choose from", () => {
  const state = stateOf("The gate closes at nine.");
  expect(underHand(state, 5)).toBeNull();
  expect(underHand(state, null)).toBeNull();
});

test("words that are selected stay selected where the press is on them, and not where it is beside them", () => {
  const state = select(stateOf("The gate closes at nine."), 5, 9);
  const found = underHand(state, 7);
  expect([found?.selection.from, found?.selection.to, found?.chip]).toEqual([5, 9, null]);
  expect(underHand(state, 20)).toBeNull();
  expect(underHand(state, null)?.selection.eq(state.selection)).toBe(true);
});

test("words under a condition are about it, without being selected", () => {
  const state = stateOf(":::passage{id=late}\nWe are late.\n:::\n\nYours");
  const found = underHand(state, placeOf(state, "are late"));
  expect(found?.chip).toBeNull();
  expect(found?.selection.empty).toBe(true);
  expect(underHand(state, placeOf(state, "Yours"))).toBeNull();
});

test("a press on a chip within selected words is about all of them", () => {
  const plain = stateOf("Dear {$customer.first_name}, hello.");
  const token = placeOf(plain, "token");
  const found = underHand(select(plain, 1, token + 3), token);
  expect(found?.chip).toBeNull();
  expect(found?.selection.from).toBe(1);
});
