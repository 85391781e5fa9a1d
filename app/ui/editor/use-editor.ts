import { Editor, type EditorOptions } from "@tiptap/core";
import { useCallback, useRef, useState } from "react";

/**
 * An editor that lives in an element of the page: made when the element appears, gone when it goes.
 * @param options read once, when the editor is made
 * @returns the editor, null until it runs, and the ref of the element it is to live in
 */
export function useEditorIn(
  options: () => Partial<EditorOptions>,
): [Editor | null, (element: HTMLElement | null) => void] {
  const [editor, setEditor] = useState<Editor | null>(null);
  const made = useRef<Editor | null>(null);
  const wanted = useRef(options);
  const place = useCallback((element: HTMLElement | null) => {
    made.current?.destroy();
    made.current = element ? new Editor({ ...wanted.current(), element }) : null;
    setEditor(made.current);
  }, []);
  return [editor, place];
}
