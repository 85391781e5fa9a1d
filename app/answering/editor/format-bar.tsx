import type { Editor } from "@tiptap/core";
import { useEditorState } from "@tiptap/react";
import { Toolbar as Radix } from "radix-ui";
import { useRef } from "react";
import { LinkFields, PictureFields, TableTools } from "../../ui/editor/at-cursor";
import { Inserts, Toggles, UndoRedoTools } from "../../ui/editor/format-tools";
import { useShortcut } from "../../ui/use-shortcut";
import { useTransactions } from "../../ui/editor/use-transactions";
import { useLetter } from "./use-letter";
import { t } from "../../words/answering";

/** What the answer can be formatted with, and what is at the cursor: shown while the hand is in the answer. */
export function FormatBar({ editor, shown }: { editor: Editor; shown: boolean }) {
  useTransactions(editor);
  // What goes by a channel without formatting has none to give.
  const channel = useLetter(editor, (letter) => letter.inputs.channel);
  const formats = channel === null || channel === "email";
  const at = useEditorState({
    editor,
    selector: ({ editor: one }) =>
      (["image", "link", "table"] as const).find((name) => one.isActive(name)) ?? null,
  });
  const bar = useRef<HTMLDivElement>(null);
  useShortcut("leaveBar", () => editor.commands.focus(), { within: bar });
  return (
    <div ref={bar} className={`sticky top-0 z-10 bg-sheet ${shown ? "" : "invisible"}`}>
      <Radix.Root aria-label={t("formatting")} className="flex items-center overflow-x-auto text-sm">
        {formats && (
          <>
            <Toggles editor={editor} />
            <span className="mx-1 flex items-center border-x border-line px-1">
              <Inserts editor={editor} />
            </span>
          </>
        )}
        <UndoRedoTools editor={editor} />
      </Radix.Root>
      {at !== null && (
        <div
          role="group"
          aria-label={t("atTheCursor")}
          className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-1 text-sm"
        >
          {at === "image" ? (
            <PictureFields key={editor.state.selection.from} editor={editor} />
          ) : at === "link" ? (
            <LinkFields key={String(editor.getAttributes("link").href)} editor={editor} />
          ) : (
            <TableTools editor={editor} />
          )}
        </div>
      )}
    </div>
  );
}
