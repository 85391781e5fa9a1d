import { Slice, type Schema } from "@tiptap/pm/model";
import type { EditorView } from "@tiptap/pm/view";
import { fromPlainText } from "#core/document/plain";
import type { Doc } from "#core/document/types";

/** A longer text is pasted as it is, whatever it looks like. */
const LONGEST_MARKDOWN = 20_000;

/** Signs that a text is meant as Markdown and not just typed: its lists, headings, tables, marks, links, values. */
const MARKDOWN =
  /^(?:#{1,3} |[-*] |\d+\. |> |\|.{1,500}\|\s*$|:::)|\*\*\S[^*]{0,500}\*\*|\[[^\]]{1,500}\]\([^)]{1,500}\)|\{\$[a-z]+\.|:passage\[/m;

export function looksLikeMarkdown(text: string): boolean {
  return text.length <= LONGEST_MARKDOWN && MARKDOWN.test(text);
}

/** A document as a piece of one. */
function pieceOf(doc: Doc, schema: Schema): Slice {
  const { content } = schema.nodeFromJSON(doc);
  // Words at the ends join the words that they are pasted into; tables and lists stay whole.
  return new Slice(content, content.firstChild?.isTextblock ? 1 : 0, content.lastChild?.isTextblock ? 1 : 0);
}

/** Pasted text as a piece of a document: paragraphs with their line ends. */
export function plainPiece(text: string, schema: Schema): Slice {
  return pieceOf({ type: "doc", content: fromPlainText(text) }, schema);
}

/** Pastes a text that looks like Markdown as what it means; what reads it is fetched the first time. */
export async function pasteMarkdown(text: string, view: EditorView): Promise<void> {
  const { readMarkdown } = await import("#core/formats/markdown");
  // Left meanwhile.
  if (view.isDestroyed) return;
  const { state } = view;
  view.dispatch(
    state.tr
      .replaceSelection(pieceOf(readMarkdown(text).doc, state.schema))
      .setMeta("paste", true)
      .setMeta("uiEvent", "paste")
      .scrollIntoView(),
  );
}
