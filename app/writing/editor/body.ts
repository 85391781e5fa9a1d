import { Extension, Node, type AnyExtension, type Editor } from "@tiptap/core";
import { Table, TableCell, TableHeader, TableRow } from "@tiptap/extension-table";
import { Placeholder } from "@tiptap/extensions/placeholder";
import { UndoRedo } from "@tiptap/extensions/undo-redo";
import { definedNode, extensionsWith } from "../../ui/editor/schema";
import { bracketsPlugin } from "./brackets";
import { BlankChip, TokenChip } from "./chips";
import { definitionsPlugin, type Definitions } from "./definitions";

/** Tables with their commands, shown as plain tables. */
const tables: AnyExtension[] = [
  Table.extend({
    ...definedNode("table"),
    renderHTML: ({ HTMLAttributes }) => ["table", HTMLAttributes, ["tbody", 0]],
    addNodeView: () => null,
  }),
  TableRow.extend(definedNode("tableRow")),
  TableCell.extend(definedNode("tableCell")),
  TableHeader.extend(definedNode("tableHeader")),
];

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
    ...extensionsWith(tables),
    UndoRedo,
    Placeholder.configure({ placeholder: "Write what the customer is to read. Type { for a value." }),
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
        "Mod-k": ({ editor }) => toggleLink(editor),
      }),
    }),
  ];
}

/** Begins a link on the selected words, whose address is then asked for; or takes it off. */
export function toggleLink(editor: Editor): boolean {
  const chain = editor.chain().focus();
  if (editor.isActive("link")) return chain.extendMarkRange("link").unsetMark("link").run();
  return editor.state.selection.empty || chain.setMark("link", { href: "https://" }).run();
}
