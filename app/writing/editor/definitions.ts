import { Plugin, PluginKey, type EditorState } from "@tiptap/pm/state";
import type { EditorView } from "@tiptap/pm/view";
import type { WriterFinding } from "#core/checks/written";
import type { Passages } from "#core/conditions/condition";
import type { Blanks } from "#core/tokens/blanks";
import type { Token } from "#core/tokens/catalogue";

/** What the words of a reply refer to: chips and brackets show it. */
export interface Definitions {
  tokens: ReadonlyMap<string, Token>;
  blanks: Blanks;
  passages: Passages;
  /** Findings about the words of this editor. */
  findings: WriterFinding[];
  /** A token's value for the case that is being tried, in words; null where it has none. */
  sample: (name: string) => string | null;
}

export const definitionsKey = new PluginKey<Definitions>("definitions");

/** Keeps the definitions beside the document. */
export function definitionsPlugin(first: Definitions): Plugin<Definitions> {
  return new Plugin<Definitions>({
    key: definitionsKey,
    state: {
      init: () => first,
      apply: (transaction, value) =>
        (transaction.getMeta(definitionsKey) as Definitions | undefined) ?? value,
    },
  });
}

export function definitionsOf(state: EditorState): Definitions | undefined {
  return definitionsKey.getState(state);
}

/** Gives the editor new definitions; the document stays as it is. */
export function setDefinitions(view: EditorView, definitions: Definitions): void {
  view.dispatch(view.state.tr.setMeta(definitionsKey, definitions).setMeta("addToHistory", false));
}
