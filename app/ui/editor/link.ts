import type { Editor } from "@tiptap/core";
import { Plugin } from "@tiptap/pm/state";
import { safeHref } from "#core/document/links";

/** The address of a link that was just begun. */
export const FRESH = "https://";

/** Begins a link on the selected words, whose address is then asked for; or takes it off. */
export function toggleLink(editor: Editor): boolean {
  const chain = editor.chain().focus();
  if (editor.isActive("link")) return chain.extendMarkRange("link").unsetMark("link").run();
  return editor.state.selection.empty || chain.setMark("link", { href: FRESH }).run();
}

/** An address that is pasted over words makes them a link; one that is pasted elsewhere is pasted as it is. */
export function pastesLinks(): Plugin {
  return new Plugin({
    props: {
      handlePaste(view, event) {
        const { selection, schema, tr } = view.state;
        const address = event.clipboardData?.getData("text/plain").trim() ?? "";
        const mark = schema.marks.link;
        if (selection.empty || mark === undefined || !/^(?:https?:\/\/|mailto:|tel:)\S+$/i.test(address))
          return false;
        const href = safeHref(address);
        // A whole picture, chip or slip is no words.
        if (href === null || !selection.$from.sameParent(selection.$to)) return false;
        view.dispatch(tr.addMark(selection.from, selection.to, mark.create({ href })).scrollIntoView());
        return true;
      },
    },
  });
}
