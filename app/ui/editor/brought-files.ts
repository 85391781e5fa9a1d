import type { Editor } from "@tiptap/core";
import type { Transaction } from "@tiptap/pm/state";
import type { EditorView } from "@tiptap/pm/view";
import type { AttachmentRef } from "#core/compose/slip";

/** What becomes of files that an editor is brought; `at` is the place that they were dropped at. */
export type OnFiles = (files: File[], at: number | null) => void;

/** Takes the files of what is pasted. @returns whether there were any */
export function takePasted({ clipboardData }: ClipboardEvent, onFiles: OnFiles): boolean {
  const files = [...(clipboardData?.files ?? [])];
  // Office programs put a picture of the words beside the words themselves.
  if (files.length === 0 || clipboardData?.types.includes("text/html")) return false;
  onFiles(files, null);
  return true;
}

/** Takes the files of what is dropped on an editor. @returns whether there were any */
export function takeDropped(view: EditorView, event: DragEvent, onFiles: OnFiles): boolean {
  const files = [...(event.dataTransfer?.files ?? [])];
  if (files.length === 0) return false;
  onFiles(files, view.posAtCoords({ left: event.clientX, top: event.clientY })?.pos ?? null);
  return true;
}

/**
 * Puts a picture into the words and chooses it, in one step of undo: what it shows is asked for then.
 * @param also what else belongs to the step
 */
export function insertPicture(
  editor: Editor,
  picture: AttachmentRef,
  at: number,
  also: (tr: Transaction) => void = () => undefined,
): void {
  editor
    .chain()
    .focus()
    .command(({ tr }) => {
      also(tr);
      return true;
    })
    .insertContentAt(at, { type: "image", attrs: { attachment: picture.id, alt: "", width: null } })
    .setNodeSelection(at)
    .run();
}
