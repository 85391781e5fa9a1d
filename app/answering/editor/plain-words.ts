import type { Editor } from "@tiptap/core";

/**
 * Writes the words of an answer with characters that a short message carries cheaply, in one step that can be undone.
 * Values that tokens print stay as they are.
 * @param plainer what stands for a character; null where nothing does
 */
export function plainWords(editor: Editor, plainer: (character: string) => string | null): void {
  const { state, view } = editor;
  const transaction = state.tr;
  const found: { from: number; to: number; words: string }[] = [];
  state.doc.descendants((node, position) => {
    if (!node.isText || node.text === undefined) return;
    let at = position;
    for (const character of node.text) {
      const words = character.charCodeAt(0) < 0x80 ? null : plainer(character);
      if (words !== null) found.push({ from: at, to: at + character.length, words });
      at += character.length;
    }
  });
  // From the end: what comes before keeps its place, and marks stay on what is replaced.
  for (const { from, to, words } of found.reverse()) transaction.insertText(words, from, to);
  if (transaction.docChanged) view.dispatch(transaction);
}
