import type { Editor } from "@tiptap/core";
import { NodeSelection } from "@tiptap/pm/state";
import { useEditorState } from "@tiptap/react";

/** Whether a view's node is what is chosen in its editor, by a press or the arrow keys, while the hand is there. */
export function useChosen(editor: Editor, selected: boolean): boolean {
  return useEditorState({
    editor,
    selector: ({ editor: one }) => selected && one.isFocused && one.state.selection instanceof NodeSelection,
  });
}
