import type { Editor, JSONContent } from "@tiptap/core";
import { useEffect } from "react";
import { takeDropped, takePasted, type OnFiles } from "../../ui/editor/brought-files";
import { cleanHtml } from "../../ui/editor/paste";
import { useEditorOf } from "../../ui/editor/use-editor";
import { answerExtensions } from "./extensions";
import type { LetterInputs } from "./letter-state";
import { t } from "../../words/answering";

export interface WriterProps {
  /** What the letter depends on at first. */
  inputs: LetterInputs;
  /** The answer that the case opens with. */
  content: JSONContent;
  /** Takes files that are pasted or dropped; null where a letter has none. */
  onFiles: OnFiles | null;
  /** Told of every change of the answer. */
  onChange: () => void;
  /** Told of the editor, once it runs, and when it is gone. */
  onEditor: (editor: Editor | null) => void;
}

/** Makes the editor of an answer. What that takes is more than all the rest of the page, and comes behind it. */
export default function Writer({ inputs, content, onFiles, onChange, onEditor }: WriterProps) {
  const editor = useEditorOf(() => ({
    enableInputRules: true,
    extensions: answerExtensions(inputs),
    editorProps: {
      attributes: {
        class: "letter answer-editor",
        role: "textbox",
        "aria-label": t("ourAnswer"),
        "aria-multiline": "true",
      },
      // What the answer's document could not hold is cleaned away, and the words stay.
      transformPastedHTML: cleanHtml,
      handlePaste: (_view, event) => onFiles !== null && takePasted(event, onFiles),
      handleDrop: (view, event, _slice, moved) =>
        onFiles !== null && !moved && takeDropped(view, event, onFiles),
    },
    content,
    onUpdate: ({ transaction }) => {
      if (transaction.docChanged) onChange();
    },
  }));
  useEffect(() => {
    onEditor(editor);
    return () => onEditor(null);
  }, [editor, onEditor]);
  return null;
}
