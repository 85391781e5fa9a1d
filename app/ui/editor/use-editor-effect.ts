import type { Editor } from "@tiptap/core";
import { useEffect } from "react";

/**
 * Tells an editor what changed around it, once the page is drawn with that. Views of nodes make the page draw itself while the
 * editor is still taking a change in; what is told it then would be lost.
 * @param tell the same as long as there is nothing new to tell
 */
export function useEditorEffect(editor: Editor | null, tell: (editor: Editor) => void): void {
  useEffect(() => {
    if (!editor) return;
    let isLate = false;
    queueMicrotask(() => {
      if (!isLate && !editor.isDestroyed) tell(editor);
    });
    return () => {
      isLate = true;
    };
  }, [editor, tell]);
}
