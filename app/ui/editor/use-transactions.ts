import type { Editor } from "@tiptap/core";
import { useEffect, useReducer } from "react";

/** Draws a component anew with every change of an editor's document or selection. */
export function useTransactions(editor: Editor | null): void {
  const [, draw] = useReducer((count: number) => count + 1, 0);
  useEffect(() => {
    if (!editor) return;
    editor.on("transaction", draw);
    return () => {
      editor.off("transaction", draw);
    };
  }, [editor]);
}
