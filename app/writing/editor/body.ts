import { Extension, Node, type AnyExtension, type Editor } from "@tiptap/core";
import { Placeholder } from "@tiptap/extensions/placeholder";
import { UndoRedo } from "@tiptap/extensions/undo-redo";
import { formatKeys } from "../../ui/editor/format-keys";
import { documentExtensions } from "../../ui/editor/schema";
import { bracketsPlugin } from "./brackets";
import { BlankChip, TokenChip } from "./chips";
import { definitionsPlugin, type Definitions } from "./definitions";
import { t } from "../../words/writing";

const Words = Node.create({ name: "doc", topNode: true, content: "block+" });

export interface BodyHooks {
  definitions: Definitions;
  /** `{` was typed, or the list of tokens is asked for. */
  onBrace: (editor: Editor) => void;
}

/** What the editor of a reply's words is made of. */
export function bodyExtensions({ definitions, onBrace }: BodyHooks): AnyExtension[] {
  return [
    Words,
    TokenChip,
    BlankChip,
    ...documentExtensions,
    formatKeys,
    UndoRedo,
    Placeholder.configure({ placeholder: t("writeWhatTheCustomerIsTo") }),
    Extension.create({
      name: "writing",
      addProseMirrorPlugins() {
        return [definitionsPlugin(definitions), bracketsPlugin(this.editor)];
      },
      addKeyboardShortcuts: () => ({
        "{": ({ editor }) => {
          onBrace(editor);
          return true;
        },
      }),
    }),
  ];
}
