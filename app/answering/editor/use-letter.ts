import type { Editor } from "@tiptap/core";
import { useEditorState } from "@tiptap/react";
import { letterKey, type LetterState } from "./letter-state";

/**
 * A part of the letter that an editor's slips make, read anew whenever it is composed.
 * @param read what of it is wanted; drawn again only when that is another
 * @returns null where the editor does not run yet
 */
export function useLetter<Part>(editor: Editor | null, read: (letter: LetterState) => Part): Part | null {
  return useEditorState({
    editor,
    selector: ({ editor: one }) => {
      const letter = one && letterKey.getState(one.state);
      return letter ? read(letter) : null;
    },
    equalityFn: Object.is,
  });
}
