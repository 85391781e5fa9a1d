import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import type { Editor } from "@tiptap/core";
import { act, cleanup, screen } from "@testing-library/react";
import { useEffect } from "react";
import { readMarkdown } from "#core/formats/markdown";
import type { DraftSlip } from "#server/answering/draft";
import { show } from "../testing/show";
import { useEditorOf } from "../ui/editor/use-editor";
import { answerAttrs, answerJson } from "./editor/answer-attrs";
import { answerExtensions } from "./editor/extensions";
import { setSubject } from "./editor/fill";
import { moveSlip } from "./editor/move-slip";
import SlipStack from "./editor/slip-stack";
import { dropSlip } from "./editor/slip-view";
import { ownWordsSlip, slipsOf } from "./editor/slips";
import { removeFile } from "./sending/use-own-files";
import { testLetterInputs } from "./testing";
import { useUndo } from "./use-undo";

afterEach(cleanup);

const file = { id: "7", name: "map.pdf", contentType: "application/pdf", size: 10, inWords: false };
const slips: DraftSlip[] = [
  {
    ...ownWordsSlip("en", "late"),
    title: "Running late",
    document: readMarkdown("We are {$blank.hours} hours late, at {$blank.quay}.").doc,
    blanks: {
      hours: { kind: "number", label: "hours", required: true, printed: true },
      quay: { kind: "text", label: "quay", required: true, printed: true },
    },
  },
  { ...ownWordsSlip("en", "bye"), title: "Safe travels", document: readMarkdown("Safe travels.").doc },
];

let editor: Editor;
const onChange = jest.fn();

function Page() {
  const made = useEditorOf(() => ({
    extensions: answerExtensions(testLetterInputs),
    content: answerJson(slips, { subject: { from: "thread" }, files: [file], setAside: [] }),
  }));
  useEffect(() => {
    if (made) editor = made;
  }, [made]);
  useUndo(made, onChange);
  return (
    <main>
      <input aria-label="Find" />
      <button type="button">Elsewhere</button>
      {made && <SlipStack editor={made} slips={slipsOf(made.state.doc)} />}
    </main>
  );
}

describe("undo", () => {
  let hand: ReturnType<typeof show>;
  beforeEach(async () => {
    onChange.mockClear();
    hand = show(<Page />);
    await screen.findByRole("region", { name: "Running late" });
  });
  const values = () => slipsOf(editor.state.doc)[0]?.values;
  const undo = () => hand.keyboard("{Control>}z{/Control}");
  const redo = () => hand.keyboard("{Control>}{Shift>}z{/Shift}{/Control}");

  test("takes back a value, not a letter of it, and leaves the hand in its field", async () => {
    const quay = screen.getByRole("textbox", { name: "quay" });
    await hand.type(screen.getByRole("spinbutton", { name: "hours" }), "12");
    await hand.type(quay, "Tarn Head");
    expect(values()).toEqual({ hours: 12, quay: "Tarn Head" });
    await undo();
    expect(values()).toEqual({ hours: 12 });
    expect(quay).toHaveFocus();
    expect(quay).toHaveValue("");
    await undo();
    expect(values()).toEqual({});
    await redo();
    await redo();
    expect(values()).toEqual({ hours: 12, quay: "Tarn Head" });
    expect(quay).toHaveValue("Tarn Head");
  });

  test("tells a field that is filled twice apart, by its being left between", async () => {
    const quay = screen.getByRole("textbox", { name: "quay" });
    await hand.type(quay, "Tarn");
    await hand.tab();
    await hand.clear(quay);
    await hand.type(quay, "Pellick");
    await undo();
    expect(values()).toEqual({ quay: "Tarn" });
  });

  test("goes back over an order, a file, a subject and a dropped reply, from a button elsewhere, and forth again", async () => {
    const state = () => ({
      slips: slipsOf(editor.state.doc).map((slip) => slip.title),
      files: answerAttrs(editor.state.doc).files.length,
      subject: answerAttrs(editor.state.doc).subject.from,
    });
    const before = [state()];
    const acts = [
      () => {
        const move = moveSlip(editor.state, "bye", 0);
        if (move) editor.view.dispatch(move);
      },
      () => removeFile(editor, "7"),
      () => setSubject(editor.view, { from: "own", text: "Late" }),
      () => dropSlip(editor.view, "late"),
    ];
    for (const one of acts) {
      act(one);
      before.push(state());
    }
    expect(state()).toEqual({ slips: ["Safe travels"], files: 0, subject: "own" });
    act(() => screen.getByRole("button", { name: "Elsewhere" }).focus());
    for (const expected of before.slice(0, -1).reverse()) {
      await undo();
      expect(state()).toEqual(expected);
    }
    expect(onChange).toHaveBeenCalledTimes(4);
    for (const expected of before.slice(1)) {
      await redo();
      expect(state()).toEqual(expected);
    }
    expect(screen.getByRole("button", { name: "Elsewhere" })).toHaveFocus();
  });

  test("leaves a field’s own words to the field, and takes the answer’s back where it has none", async () => {
    act(() => removeFile(editor, "7"));
    const find = screen.getByRole("textbox", { name: "Find" });
    await hand.type(find, "dogs");
    await undo();
    expect(answerAttrs(editor.state.doc).files).toHaveLength(0);
    await hand.clear(find);
    await undo();
    expect(answerAttrs(editor.state.doc).files).toHaveLength(1);
  });
});
