import type { Editor } from "@tiptap/core";

const FIELDS = "[data-blank-field] :is(input, textarea, button):not([aria-hidden=true])";

/** Where blanks are filled, in their order; of those with several controls the first. */
function fields(editor: Editor): HTMLElement[] {
  const seen = new Set<Element | null>();
  return [...editor.view.dom.querySelectorAll<HTMLElement>(FIELDS)].filter((field) => {
    const blank = field.closest("[data-blank-field]");
    if (seen.has(blank) || field.closest(".passage-out") !== null) return false;
    seen.add(blank);
    return true;
  });
}

function slipOf(editor: Editor, id: string): HTMLElement | null {
  return editor.view.dom.querySelector<HTMLElement>(`[data-slip="${CSS.escape(id)}"]`);
}

/** Puts the hand on the first blank of a slip that is still empty, where there is one; of a slip that was just taken once it is drawn. */
export function focusBlank(editor: Editor, slipId: string): void {
  const focus = () => {
    const slip = slipOf(editor, slipId);
    const open = fields(editor).find(
      (field) => slip?.contains(field) && field.closest(".blank.open, .blank.steering") !== null,
    );
    open?.focus();
    return open !== undefined;
  };
  if (focus()) return;
  const drawn = new MutationObserver(() => focus() && drawn.disconnect());
  drawn.observe(editor.view.dom, { childList: true, subtree: true });
  // Views are drawn before the next picture is.
  requestAnimationFrame(() => drawn.disconnect());
}

/** Puts the hand on a blank of a slip. @returns whether it is there */
export function focusNamedBlank(editor: Editor, { slip, name }: { slip: string; name: string }): boolean {
  const section = slipOf(editor, slip);
  const field = fields(editor).find(
    (one) =>
      section?.contains(one) && one.closest<HTMLElement>("[data-blank-field]")?.dataset.blankField === name,
  );
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
