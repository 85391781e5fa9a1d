import type { Editor, JSONContent } from "@tiptap/core";
import { useCallback, type RefObject } from "react";
import { useEditorEffect } from "../../ui/editor/use-editor-effect";
import { setDefinitions, type Definitions } from "./definitions";

/**
 * Gives an editor of a reply what its words refer to, and words that were changed elsewhere: in the text form, or by taking
 * another version.
 * @param shownRef the words that it shows already
 * @param contentOf always the same function
 */
export function useGiven<Words>(
  editor: Editor | null,
  definitions: Definitions,
  words: Words,
  shownRef: RefObject<Words>,
  contentOf: (words: Words) => JSONContent,
): void {
  useEditorEffect(
    editor,
    useCallback(({ view }) => setDefinitions(view, definitions), [definitions]),
  );
  useEditorEffect(
    editor,
    useCallback(
      ({ commands }) => {
        if (shownRef.current === words) return;
        shownRef.current = words;
        commands.setContent(contentOf(words), { emitUpdate: false });
      },
      [words, shownRef, contentOf],
    ),
  );
}
