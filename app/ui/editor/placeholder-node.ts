import { Node } from "@tiptap/core";
import type { Node as PmNode } from "@tiptap/pm/model";
import { ReactNodeViewRenderer, type NodeViewProps } from "@tiptap/react";
import type { FunctionComponent } from "react";
import type { PlaceholderAttrs } from "#core/document/types";
import { definedNode } from "./schema";

/** What a placeholder of the editor says. */
export function placeholderAttrs(node: PmNode): PlaceholderAttrs {
  const { name, fn, options } = node.attrs as PlaceholderAttrs;
  return { name, fn, options };
}

/** A token or a blank among an editor's words. @param selectable whether it can be chosen as a whole */
export function placeholderNode(
  name: "token" | "blank",
  view: FunctionComponent<NodeViewProps>,
  selectable = true,
): Node {
  return Node.create({
    ...definedNode(name),
    atom: true,
    selectable,
    parseHTML: () => [{ tag: `span[data-${name}]` }],
    renderHTML: ({ HTMLAttributes }) => ["span", { ...HTMLAttributes, [`data-${name}`]: "" }],
    addNodeView: () => ReactNodeViewRenderer(view),
  });
}
