import { Plugin, PluginKey, type EditorState, type Transaction } from "@tiptap/pm/state";
import type { EditorView } from "@tiptap/pm/view";
import { secondLook } from "#core/checks/second-look";
import type { ChosenRecipient } from "#core/checks/addressee";
import type { LanguageGuess } from "#core/language/guess";
import type { SendCheck, Standing } from "#core/checks/check";
import { compose, type ComposeInput } from "#core/compose/compose";
import type { Letter } from "#core/compose/letter";
import type { Decision } from "#core/compose/passages";
import { ViewListeners } from "../../ui/editor/listeners";
import { slipsOf, type PlacedSlip } from "./slips";

/** What a letter depends on beyond the slips: the case, its customer, and what the server found. */
export interface LetterInputs extends Omit<ComposeInput, "slips"> {
  recipient: string | null;
  standing: Standing;
  /** The address that the agent chose; null for the usual one. */
  to: ChosenRecipient | null;
  languageOf: LanguageGuess;
  otherNames: string[];
  sentReplies: string[];
}

/** The letter that the editor's slips make now. */
export interface LetterState {
  inputs: LetterInputs;
  slips: PlacedSlip[];
  letter: Letter;
  checks: SendCheck[];
  /** Decisions on the passages of each slip, by slip and passage. */
  decisions: ReadonlyMap<string, ReadonlyMap<string, Decision>>;
  /** Passages that the agent unfolded to see, as `slip passage`. */
  unfolded: ReadonlySet<string>;
}

export const letterKey = new PluginKey<LetterState>("letter");

type Change = { inputs: LetterInputs } | { unfold: string };

function computed(state: EditorState, inputs: LetterInputs, unfolded: ReadonlySet<string>): LetterState {
  const slips = slipsOf(state.doc);
  const letter = compose({ ...inputs, slips });
  const checks = secondLook({ ...inputs, letter, slips });
  return { inputs, slips, letter, checks, decisions: letter.decisions, unfolded };
}

/** Composes the letter anew with every change; views listen to it to redraw what they show. */
export function letterPlugin(inputs: LetterInputs): Plugin<LetterState> {
  return new Plugin<LetterState>({
    key: letterKey,
    state: {
      init: (_config, state) => computed(state, inputs, new Set()),
      apply(transaction, value, _old, state) {
        const change = transaction.getMeta(letterKey) as Change | undefined;
        if (change && "inputs" in change) return computed(state, change.inputs, value.unfolded);
        if (change) return { ...value, unfolded: toggled(value.unfolded, change.unfold) };
        return transaction.docChanged ? computed(state, value.inputs, value.unfolded) : value;
      },
    },
    view(editor) {
      // The views of nodes may be older than this plugin: they draw themselves now.
      listeners.tell(editor);
      return {
        update(view, previous) {
          if (letterKey.getState(view.state) !== letterKey.getState(previous)) listeners.tell(view);
        },
      };
    },
  });
}

function toggled(set: ReadonlySet<string>, key: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(key)) next.add(key);
  return next;
}

export function letterState(state: EditorState): LetterState {
  const found = letterKey.getState(state);
  if (!found) throw new Error("This editor composes no letter");
  return found;
}

/** A transaction that tells the letter of new inputs. */
export function withInputs(state: EditorState, inputs: LetterInputs): Transaction {
  return state.tr.setMeta(letterKey, { inputs } satisfies Change).setMeta("addToHistory", false);
}

export function unfold(view: EditorView, key: string): void {
  view.dispatch(
    view.state.tr.setMeta(letterKey, { unfold: key } satisfies Change).setMeta("addToHistory", false),
  );
}

const listeners = new ViewListeners();

/** Calls a listener whenever the letter was composed anew. @returns how to stop */
export function onLetter(view: EditorView, listener: () => void): () => void {
  return listeners.listen(view, listener);
}

/** The slip around a position, with the place of its node; null outside of any. */
export function slipAround({ slips }: LetterState, position: number): PlacedSlip | null {
  return slips.findLast((slip) => slip.position <= position) ?? null;
}
