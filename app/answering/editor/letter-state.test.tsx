import { beforeEach, describe, expect, test } from "@jest/globals";
import { Editor } from "@tiptap/core";
import { EditorState } from "@tiptap/pm/state";
import type { DecorationSet } from "@tiptap/pm/view";
import { readMarkdown } from "#core/formats/markdown";
import { testLetterInputs as inputs } from "../testing";
import { decorationsPlugin } from "./decorations";
import { answerExtensions } from "./extensions";
import { letterKey, letterPlugin, letterState, withInputs } from "./letter-state";
import { ownWordsSlip, slipJson } from "./slips";

const editor = new Editor({ element: null, extensions: answerExtensions(inputs) });
const { schema } = editor;
const slip = (id: string, markdown: string) => ({
  ...ownWordsSlip("en", id),
  document: readMarkdown(markdown).doc,
});

let state: EditorState;
beforeEach(() => {
  const doc = schema.nodeFromJSON({
    type: "doc",
    content: [slipJson(slip("a", "The boat TODO sails.")), slipJson(slip("b", "Safe travels."))],
  });
  state = EditorState.create({ schema, doc, plugins: [letterPlugin(inputs), decorationsPlugin(editor)] });
});

/** The words that the second look points at in the editor. */
function pointedAt(of: EditorState): string[] {
  const [, plugin] = of.plugins;
  const set = plugin?.props.decorations?.call(plugin, of) as DecorationSet | undefined;
  return (set?.find() ?? []).map(({ from, to }) => of.doc.textBetween(from, to));
}

describe("while words are typed", () => {
  test("the letter is composed anew when it is asked for, once", () => {
    const before = letterKey.getState(state);
    const typed = state.apply(state.tr.insertText("Hello! ", 2));
    expect(letterKey.getState(typed)).toBe(before);
    const letter = letterState(typed);
    expect(letter.letter.text).toContain("Hello! The boat");
    expect(letterState(typed)).toBe(letter);
  });

  test("what the second look found stays at its words until then", () => {
    expect(pointedAt(state)).toEqual(["TODO"]);
    const typed = state.apply(state.tr.insertText("Hello! ", 2));
    expect(pointedAt(typed)).toEqual(["TODO"]);
    const gone = typed.apply(typed.tr.insertText("now", 18, 22));
    const found = (of: EditorState) =>
      letterState(of).checks.filter(({ message }) => message.includes("TODO"));
    expect([found(typed).length, found(gone).length]).toEqual([1, 0]);
  });

  test("once they are painted it is the letter of the state, the one that was asked for before", () => {
    const typed = state.apply(state.tr.insertText("Hello! ", 2));
    const asked = letterState(typed);
    const painted = typed.apply(typed.tr.setMeta(letterKey, { compose: true }));
    expect(letterKey.getState(painted)).toBe(asked);
  });
});

describe("at once it is composed", () => {
  test("when a slip is filled in", () => {
    const filled = state.apply(state.tr.setNodeAttribute(0, "values", { hours: 3 }));
    expect(letterKey.getState(filled)?.slips[0]?.values).toEqual({ hours: 3 });
  });

  test("when a slip comes or goes", () => {
    const size = state.doc.child(0).nodeSize;
    const dropped = state.apply(state.tr.delete(0, size));
    expect(letterKey.getState(dropped)?.letter.text).not.toContain("The boat");
  });

  test("when the case changes, with the words that were typed before", () => {
    const typed = state.apply(state.tr.insertText("Hello! ", 2));
    const changed = typed.apply(withInputs(typed, { ...inputs, caseNumber: "SF-9" }));
    expect(letterKey.getState(changed)?.letter.subject).toContain("SF-9");
    expect(letterKey.getState(changed)?.letter.text).toContain("Hello!");
  });
});
