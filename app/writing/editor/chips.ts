import { Node } from "@tiptap/core";
import type { Node as PmNode } from "@tiptap/pm/model";
import type { EditorView, NodeView } from "@tiptap/pm/view";
import { placeholderText } from "#core/document/placeholder";
import type { PlaceholderAttrs } from "#core/document/types";
import { blankLabel } from "#core/tokens/blanks";
import { definedNode } from "../../ui/editor/schema";
import { definitionsOf, onDefinitions } from "./definitions";

/** A token as a chip with its name, a blank as a dotted field with its label: one view, drawn anew when definitions change. */
class Chip implements NodeView {
  readonly dom = document.createElement("span");
  readonly #view: EditorView;
  readonly #stop: () => void;
  #node: PmNode;

  constructor(node: PmNode, view: EditorView) {
    this.#node = node;
    this.#view = view;
    this.dom.contentEditable = "false";
    this.#stop = onDefinitions(view, () => this.#show());
    this.#show();
  }

  update(node: PmNode): boolean {
    if (node.type !== this.#node.type) return false;
    this.#node = node;
    this.#show();
    return true;
  }

  selectNode(): void {
    this.dom.classList.add("chip-selected");
  }

  deselectNode(): void {
    this.dom.classList.remove("chip-selected");
  }

  destroy(): void {
    this.#stop();
  }

  ignoreMutation(): boolean {
    return true;
  }

  #show(): void {
    const { name, fn, options } = this.#node.attrs as PlaceholderAttrs;
    const attrs = { name, fn, options };
    const definitions = definitionsOf(this.#view.state);
    const isBlank = this.#node.type.name === "blank";
    const blank = isBlank ? definitions?.blanks[name] : undefined;
    const token = isBlank ? undefined : definitions?.tokens.get(name);
    const known = isBlank ? blank !== undefined : token !== undefined;
    const selected = this.dom.classList.contains("chip-selected");
    this.dom.className = `chip ${isBlank ? "chip-blank" : "chip-token"} ${known ? "" : "chip-unknown"}`;
    this.dom.classList.toggle("chip-selected", selected);
    const label = isBlank ? blankLabel(name, blank) : (token?.label ?? name);
    if (this.dom.textContent !== label) this.dom.textContent = label;
    const sample = token ? definitions?.sample(name) : undefined;
    const form = placeholderText(isBlank ? { type: "blank", attrs } : { type: "token", attrs });
    this.dom.title = sample === undefined ? form : `${form}: ${sample ?? "no value for this case"}`;
  }
}

const view =
  () =>
  ({ node, view: editor }: { node: PmNode; view: EditorView }) =>
    new Chip(node, editor);

export const TokenChip = Node.create({
  ...definedNode("token"),
  atom: true,
  selectable: true,
  parseHTML: () => [{ tag: "span[data-token]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", { ...HTMLAttributes, "data-token": "" }],
  addNodeView: view,
});

export const BlankChip = Node.create({
  ...definedNode("blank"),
  atom: true,
  selectable: true,
  parseHTML: () => [{ tag: "span[data-blank]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", { ...HTMLAttributes, "data-blank": "" }],
  addNodeView: view,
});
