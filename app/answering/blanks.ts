import type { Editor } from "@tiptap/core";

const FIELDS = "[data-blank-field]";

function fields(editor: Editor): HTMLElement[] {
  return [...editor.view.dom.querySelectorAll<HTMLElement>(FIELDS)].filter(
    (field) => field.closest(".passage-out") === null,
  );
}

/** Puts the hand on the first blank of a slip that is still empty. @returns whether there is one */
export function focusBlank(editor: Editor, slipId: string): boolean {
  const slips = [...editor.view.dom.querySelectorAll<HTMLElement>("section.slip")];
  const at = editor.state.doc.content.content.findIndex((node) => node.attrs.id === slipId);
  const slip = slips[at];
  const open = fields(editor).find(
    (field) => slip?.contains(field) && field.closest(".blank.open, .blank.steering:not([hidden])") !== null,
  );
  open?.focus();
  return open !== undefined;
}

/** Puts the hand on a blank of a slip. @returns whether it is there */
export function focusNamedBlank(editor: Editor, { slip, name }: { slip: string; name: string }): boolean {
  const at = editor.state.doc.content.content.findIndex((node) => node.attrs.id === slip);
  const section = [...editor.view.dom.querySelectorAll<HTMLElement>("section.slip")][at];
  const field = fields(editor).find((one) => section?.contains(one) && one.dataset.blankField === name);
  field?.focus();
  return field !== undefined;
}

/** The first blank of the answer that must be filled and is not. @returns whether there is one */
export function focusOpenBlank(editor: Editor): boolean {
  const open = fields(editor).find((field) => field.closest(".blank.open") !== null);
  open?.focus();
  return open !== undefined;
}

/** Tab in the words goes to the next blank, Shift+Tab to the one before. @returns whether there is one */
export function onTab(editor: Editor, direction: 1 | -1): boolean {
  const all = fields(editor);
  const { from } = editor.state.selection;
  const placed = all.map((field) => ({ field, at: editor.view.posAtDOM(field, 0) }));
  const next = direction === 1 ? placed.find(({ at }) => at >= from) : placed.findLast(({ at }) => at < from);
  next?.field.focus();
  return next !== undefined;
}
