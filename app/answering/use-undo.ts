import type { Editor } from "@tiptap/core";
import { useShortcut } from "../ui/use-shortcut";

/** Whether a field's own words are taken back by its own undo: of one that fills the letter in, the letter's is. */
function undoesItself(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.matches("input, textarea") &&
    target.closest("[data-blank-field], [data-fills-letter], .answer-editor") === null &&
    (target as HTMLInputElement).value !== ""
  );
}

/**
 * Undo and redo of the answer, wherever the focus is on the page: takes, swaps, values, files and words, each a step.
 * @param onChange called before the answer changes, that it be on the page
 */
export function useUndo(editor: Editor | null, onChange: () => void): void {
  const step = (how: "undo" | "redo") => (event: KeyboardEvent) => {
    if (!editor || event.isComposing || undoesItself(event.target)) return;
    // An open list or dialog is finished with first.
    if (
      event.target instanceof HTMLElement &&
      event.target.closest("[role=dialog], [role=alertdialog], [role=listbox]")
    )
      return;
    event.preventDefault();
    event.stopPropagation();
    onChange();
    editor.commands[how]();
    // What held the focus may have gone with what was taken back.
    if (!document.activeElement || document.activeElement === document.body) editor.view.focus();
  };
  useShortcut("undoTyping", step("undo"), { capture: true, also: true });
  useShortcut("redoTyping", step("redo"), { capture: true, also: true });
}
