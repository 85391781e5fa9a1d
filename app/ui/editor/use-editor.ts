import type { Editor, EditorOptions } from "@tiptap/core";
import { useEditor } from "@tiptap/react";
import { useState } from "react";

/**
 * An editor for as long as its screen stands; `EditorContent` is where it lives.
 * @param options read once, when the editor is made
 * @returns the editor, null until it runs
 */
export function useEditorOf(options: () => Partial<EditorOptions>): Editor | null {
  // A page that is rendered on the server has no editor, and does without what one is made of.
  const [first] = useState(() => (typeof document === "undefined" ? {} : options()));
  return useEditor({
    ...first,
    injectCSS: false,
    immediatelyRender: false,
    shouldRerenderOnTransaction: false,
  });
}
