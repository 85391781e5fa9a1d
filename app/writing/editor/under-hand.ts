import { NodeSelection, TextSelection, type EditorState, type Selection } from "@tiptap/pm/state";
import { passagesAt } from "./passage-commands";

/** What a press of the other mouse button, or the key for menus, is about. */
export interface UnderHand {
  /** What is selected for it: what was selected stays so where the press is on it. */
  selection: Selection;
  /** The name of the chip that was pressed. */
  chip: { kind: "token" | "blank"; name: string } | null;
}

/**
 * What of a document is under the hand.
 * @param position where in the document the press was; null for the key, which is about what is selected
 * @returns null for plain words, which have nothing to choose from
 */
export function underHand(state: EditorState, position: number | null): UnderHand | null {
  const { selection, doc } = state;
  const on = position === null ? selection : selectionAt(state, position);
  const node = on instanceof NodeSelection ? on.node : null;
  const kind = node?.type.name;
  if (kind === "token" || kind === "blank")
    return { selection: on, chip: { kind, name: String(node?.attrs.name) } };
  const there = state.apply(state.tr.setSelection(on));
  if (on.empty && passagesAt(there).length === 0) return null;
  return doc.content.size === 0 ? null : { selection: on, chip: null };
}

function selectionAt({ doc, selection }: EditorState, position: number): Selection {
  if (!selection.empty && position >= selection.from && position <= selection.to) return selection;
  const node = doc.nodeAt(position);
  if (node?.isAtom && node.isInline && !node.isText) return NodeSelection.create(doc, position);
  return TextSelection.near(doc.resolve(position));
}
