import { closeHistory } from "@tiptap/pm/history";
import type { EditorState, Transaction } from "@tiptap/pm/state";
import { TextSelection } from "@tiptap/pm/state";
import { slipsOf } from "./slips";

/**
 * Moves a slip to another place in the stack, in one undoable step; the cursor goes along where it was in it.
 * @param to its new place among the slips, from 0
 * @returns null where it stands there already, or there is no such place
 */
export function moveSlip(state: EditorState, id: string, to: number): Transaction | null {
  const slips = slipsOf(state.doc);
  const from = slips.findIndex((slip) => slip.id === id);
  const slip = slips[from];
  const node = slip && state.doc.nodeAt(slip.position);
  if (!slip || !node || to === from || to < 0 || to >= slips.length) return null;
  const cursor = state.selection.from - slip.position;
  const tr = closeHistory(state.tr);
  tr.delete(slip.position, slip.position + node.nodeSize);
  const rest = slips.filter((one) => one.id !== id);
  const before = rest[to - 1];
  const place = before
    ? tr.mapping.map(before.position) + (state.doc.nodeAt(before.position)?.nodeSize ?? 0)
    : 0;
  tr.insert(place, node);
  if (cursor > 0 && cursor < node.nodeSize)
    tr.setSelection(TextSelection.near(tr.doc.resolve(place + cursor)));
  return tr.scrollIntoView();
}

/** The place of the slip that the cursor is in, and its id. */
export function slipAtCursor(state: EditorState): { id: string; at: number } | null {
  const slips = slipsOf(state.doc);
  const at = slips.findLastIndex((slip) => slip.position <= state.selection.from);
  const slip = slips[at];
  return slip ? { id: slip.id, at } : null;
}
