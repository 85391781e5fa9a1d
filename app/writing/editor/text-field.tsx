import type { Editor, JSONContent } from "@tiptap/core";
import { Extension, Node } from "@tiptap/core";
import { Text } from "@tiptap/extension-text";
import { Placeholder } from "@tiptap/extensions/placeholder";
import { UndoRedo } from "@tiptap/extensions/undo-redo";
import type { Node as PmNode } from "@tiptap/pm/model";
import { EditorContent } from "@tiptap/react";
import { useEffect, useRef } from "react";
import { placeholderText } from "#core/document/placeholder";
import { escapeText, readText } from "#core/tokens/text-form";
import { placeholderAttrs } from "../../ui/editor/placeholder-node";
import { useGiven } from "./use-given";
import { useEditorOf } from "../../ui/editor/use-editor";
import { BlankChip, TokenChip } from "./chips";
import { definitionsPlugin, type Definitions } from "./definitions";

const Line = Node.create({ name: "doc", topNode: true, content: "(text | token | blank)*" });

/** A text in MessageFormat 2's form as the editor's line; what cannot be read stays as it is typed. */
function toLine(text: string): JSONContent {
  const content = readText(text).pieces.map((piece): JSONContent =>
    piece.type === "text" ? { type: "text", text: piece.text } : { type: piece.type, attrs: piece.attrs },
  );
  return { type: "doc", content };
}

function toText(doc: PmNode): string {
  let text = "";
  doc.forEach((node) => {
    if (node.isText) text += escapeText(node.text ?? "");
    else {
      text += placeholderText({
        type: node.type.name === "blank" ? "blank" : "token",
        attrs: placeholderAttrs(node),
      });
    }
  });
  return text;
}

interface Props {
  label: string;
  placeholder: string;
  text: string;
  definitions: Definitions;
  onChange: (text: string) => void;
  onBrace: (editor: Editor) => void;
  onFocus?: (editor: Editor) => void;
}

/** A line of words with tokens and blanks, as subjects are. */
export function TextField({ label, placeholder, text, definitions, onChange, onBrace, onFocus }: Props) {
  const shown = useRef(text);
  const hooks = useRef({ onChange, onBrace, onFocus });
  useEffect(() => {
    hooks.current = { onChange, onBrace, onFocus };
  });
  const editor = useEditorOf(() => ({
    extensions: [
      Line,
      Text,
      TokenChip,
      BlankChip,
      UndoRedo,
      Placeholder.configure({ placeholder, showOnlyCurrent: false }),
      Extension.create({
        name: "line",
        addProseMirrorPlugins: () => [definitionsPlugin(definitions)],
        addKeyboardShortcuts: () => ({
          Enter: () => true,
          "{": ({ editor: one }) => {
            hooks.current.onBrace(one);
            return true;
          },
        }),
      }),
    ],
    content: toLine(text),
    editorProps: { attributes: { class: "line-editor letter", role: "textbox", "aria-label": label } },
    onFocus: ({ editor: one }) => hooks.current.onFocus?.(one),
    onUpdate: ({ editor: one, transaction }) => {
      if (!transaction.docChanged) return;
      shown.current = toText(one.state.doc);
      hooks.current.onChange(shown.current);
    },
  }));
  useGiven(editor, definitions, text, shown, toLine);
  return <EditorContent editor={editor} className="min-w-0 grow" />;
}
