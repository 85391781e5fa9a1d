import { Extension, type Editor } from "@tiptap/core";
import { TextSelection } from "@tiptap/pm/state";
import { pastesLinks, toggleLink } from "./link";

/**
 * Leaves a table that nothing stands beside: in its last row downwards, in its first upwards, into a new paragraph.
 * @returns whether there was something to leave and nothing beside it
 */
export function leaveTable({ state, view }: Editor, way: "up" | "down"): boolean {
  const { $head, empty } = state.selection;
  if (!empty) return false;
  for (let depth = $head.depth; depth > 0; depth -= 1) {
    if ($head.node(depth).type.name !== "table") continue;
    const table = $head.node(depth);
    const row = $head.index(depth);
    if (row !== (way === "up" ? 0 : table.childCount - 1) || !view.endOfTextblock(way)) return false;
    const around = $head.node(depth - 1);
    const at = $head.index(depth - 1);
    const hasNeighbour = way === "up" ? at > 0 : at < around.childCount - 1;
    const paragraph = state.schema.nodes.paragraph?.create();
    if (hasNeighbour || !paragraph) return false;
    const place = way === "up" ? $head.before(depth) : $head.after(depth);
    const tr = state.tr.insert(place, paragraph);
    view.dispatch(tr.setSelection(TextSelection.create(tr.doc, place + 1)).scrollIntoView());
    return true;
  }
  return false;
}

/** Puts the hand on the bar that belongs to an editor (WAI-ARIA practices name the key). @returns whether there is one */
function toBar({ view }: Editor): boolean {
  const bar = view.dom.closest("[data-with-bar]")?.querySelector<HTMLElement>("[role=toolbar] button");
  bar?.focus();
  return bar !== null && bar !== undefined;
}

/** Keys and pasting that every editor of a letter’s words has beside those of its parts: links, and the way out of tables. */
export const formatKeys = Extension.create({
  name: "formatKeys",
  addKeyboardShortcuts: () => ({
    "Mod-k": ({ editor }) => toggleLink(editor),
    "Alt-F10": ({ editor }) => toBar(editor),
    ArrowUp: ({ editor }) => leaveTable(editor, "up"),
    ArrowDown: ({ editor }) => leaveTable(editor, "down"),
  }),
  addProseMirrorPlugins: () => [pastesLinks()],
});
