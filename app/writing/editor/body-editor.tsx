import type { Editor } from "@tiptap/core";
import { EditorContent } from "@tiptap/react";
import { useEffect, useRef } from "react";
import { readDocument } from "#core/document/schema";
import type { Doc } from "#core/document/types";
import { LetterBlocks, Placeholders } from "../../ui/letter-blocks";
import { WordHints } from "../../ui/editor/word-hints";
import { useGiven } from "./use-given";
import { takeDropped, takePasted, type OnFiles } from "../../ui/editor/brought-files";
import { useEditorOf } from "../../ui/editor/use-editor";
import { bodyExtensions } from "./body";
import { ChipWords } from "./chips";
import { bringConditions, carrier, type Brought } from "./carry";
import type { Definitions } from "./definitions";
import { cleanHtml } from "../../ui/editor/paste";
import { looksLikeMarkdown, pasteMarkdown, plainPiece } from "./paste-text";

interface Props {
  label: string;
  doc: Doc;
  definitions: Definitions;
  onChange: (doc: Doc) => void;
  onEditor: (editor: Editor | null) => void;
  onBrace: (editor: Editor) => void;
  onFocus: () => void;
  /** Conditions and blanks that pasted passages of another reply bring. @returns what their ids are here */
  onBrought: (brought: Brought) => ReadonlyMap<string, string>;
  /** Pictures and other files that were pasted or dropped. */
  onFiles: OnFiles;
}

/** The words as they stand until their editor runs. */
function Unedited({ doc, definitions }: Pick<Props, "doc" | "definitions">) {
  return (
    <div className="letter body-editor" aria-hidden="true">
      <Placeholders
        value={({ type, attrs }) => (
          <ChipWords isBlank={type === "blank"} name={attrs.name} definitions={definitions} />
        )}
      >
        <LetterBlocks blocks={doc.content} />
      </Placeholders>
    </div>
  );
}

/** A document is what the editor takes already. */
const asContent = (doc: Doc) => doc;

/** The words of a variant, in an editor that knows all of a reply's document. */
export function BodyEditor({
  label,
  doc,
  definitions,
  onChange,
  onEditor,
  onBrace,
  onFocus,
  onBrought,
  onFiles,
}: Props) {
  const shown = useRef(doc);
  const hooks = useRef({ onChange, onBrace, onFocus, onBrought, onFiles, definitions });
  useEffect(() => {
    hooks.current = { onChange, onBrace, onFocus, onBrought, onFiles, definitions };
  });
  const editor = useEditorOf(() => ({
    extensions: bodyExtensions({ definitions, onBrace: (one) => hooks.current.onBrace(one) }),
    content: doc,
    onFocus: () => hooks.current.onFocus(),
    onCreate: ({ editor: one }) => {
      one.view.setProps({ clipboardSerializer: carrier(one.schema, () => hooks.current.definitions) });
    },
    editorProps: {
      attributes: {
        class: "letter body-editor",
        role: "textbox",
        "aria-label": label,
        "aria-multiline": "true",
      },
      transformPastedHTML: (html) =>
        cleanHtml(bringConditions(html, (brought) => hooks.current.onBrought(brought))),
      clipboardTextParser: (text, $context) => plainPiece(text, $context.doc.type.schema),
      handlePaste: (view, event) => {
        const text = event.clipboardData?.getData("text/plain") ?? "";
        const isPlain = !event.clipboardData?.types.includes("text/html");
        if (isPlain && looksLikeMarkdown(text)) {
          void pasteMarkdown(text, view);
          return true;
        }
        return takePasted(event, hooks.current.onFiles);
      },
      handleDrop: (view, event, _slice, moved) => !moved && takeDropped(view, event, hooks.current.onFiles),
    },
    onUpdate: ({ editor: one, transaction }) => {
      if (!transaction.docChanged) return;
      const read = readDocument(one.getJSON());
      if (!read.ok) throw new Error(`The editor holds what is no document: ${read.problem}`);
      shown.current = read.doc;
      hooks.current.onChange(read.doc);
    },
  }));

  useEffect(() => {
    onEditor(editor);
    return () => onEditor(null);
  }, [editor, onEditor]);

  useGiven(editor, definitions, doc, shown, asContent);

  return (
    <WordHints>
      {editor ? <EditorContent editor={editor} /> : <Unedited doc={doc} definitions={definitions} />}
    </WordHints>
  );
}
