import type { Editor } from "@tiptap/core";
import { Decoration } from "@tiptap/pm/view";
import { ReactRenderer } from "@tiptap/react";
import type { FunctionComponent } from "react";

/** How a widget stands among the words. */
interface Place {
  /** The tag of its element; that of its neighbours where only such may stand. */
  as: string;
  className: string;
  /** Widgets of the same key at the same position are the same. */
  key: string;
}

/** A component that stands at a position of the editor, before what is there, and is no part of the words. */
export function widget<Props extends object>(
  editor: Editor,
  position: number,
  component: FunctionComponent<Props>,
  props: Props,
  { as, className, key }: Place,
): Decoration {
  const made = new Map<Node, ReactRenderer>();
  return Decoration.widget(
    position,
    () => {
      const renderer = new ReactRenderer(component as FunctionComponent, { editor, props, as, className });
      renderer.element.contentEditable = "false";
      made.set(renderer.element, renderer);
      return renderer.element;
    },
    {
      side: -1,
      key,
      ignoreSelection: true,
      // A press on a button is the button’s alone.
      stopEvent: ({ target }) => target instanceof Element && target.closest("button") !== null,
      destroy: (element) => {
        made.get(element)?.destroy();
        made.delete(element);
      },
    },
  );
}
