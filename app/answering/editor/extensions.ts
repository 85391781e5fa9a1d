import { Extension, type AnyExtension, type Editor } from "@tiptap/core";
import { Placeholder } from "@tiptap/extensions/placeholder";
import { UndoRedo } from "@tiptap/extensions/undo-redo";
import { formatKeys } from "../../ui/editor/format-keys";
import { documentExtensions } from "../../ui/editor/schema";
import { onTab } from "./blanks";
import { decorationsPlugin } from "./decorations";
import { BlankInAnswer, TokenInAnswer } from "./inline-views";
import { letterPlugin, type LetterInputs } from "./letter-state";
import { moveSlip, slipAtCursor } from "./move-slip";
import { Answer, SlipInAnswer } from "./slip-view";
import { t } from "../../words/answering";

/** Moves the slip that the cursor is in; the keys are taken also where it cannot go further. */
function moveAtCursor(editor: Editor, by: 1 | -1): boolean {
  const slip = slipAtCursor(editor.state);
  const move = slip && moveSlip(editor.state, slip.id, slip.at + by);
  if (move) editor.view.dispatch(move);
  return true;
}

/** What an answer may consist of. */
export const answerNodes: AnyExtension[] = [
  Answer,
  SlipInAnswer,
  TokenInAnswer,
  BlankInAnswer,
  ...documentExtensions,
];

/** What the editor of an answer is made of. @param inputs what its letter depends on at first */
export function answerExtensions(inputs: LetterInputs): AnyExtension[] {
  return [
    ...answerNodes,
    UndoRedo,
    formatKeys,
    Placeholder.configure({
      placeholder: t("writeOrTakeAReplyFrom"),
      includeChildren: true,
    }),
    Extension.create({
      name: "letter",
      addProseMirrorPlugins() {
        return [letterPlugin(inputs), decorationsPlugin(this.editor)];
      },
      addKeyboardShortcuts: () => ({
        Tab: ({ editor }) => onTab(editor, 1),
        "Shift-Tab": ({ editor }) => onTab(editor, -1),
        "Alt-Shift-ArrowUp": ({ editor }) => moveAtCursor(editor, -1),
        "Alt-Shift-ArrowDown": ({ editor }) => moveAtCursor(editor, 1),
      }),
    }),
  ];
}
