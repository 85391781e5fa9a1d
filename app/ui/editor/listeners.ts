import type { EditorView } from "@tiptap/pm/view";

/** Who wants to know when something beside an editor's document changes: node views, panels. */
export class ViewListeners {
  readonly #listeners = new WeakMap<EditorView, Set<() => void>>();

  /** @returns how to stop */
  listen(view: EditorView, listener: () => void): () => void {
    const found = this.#listeners.get(view) ?? new Set();
    this.#listeners.set(view, found.add(listener));
    return () => found.delete(listener);
  }

  tell(view: EditorView): void {
    for (const listener of [...(this.#listeners.get(view) ?? [])]) listener();
  }
}
