import type { Node as PmNode } from "@tiptap/pm/model";
import { Plugin, PluginKey, type EditorState, type Transaction } from "@tiptap/pm/state";
import type { EditorView } from "@tiptap/pm/view";
import { secondLook } from "#core/checks/second-look";
import type { ForwarderWay } from "#core/mail/forwarded";
import type { ChosenRecipient } from "#core/checks/addressee";
import type { Copies } from "#core/mail/copies";
import type { LanguageGuess } from "#core/language/guess";
import type { SendCheck, Standing } from "#core/checks/check";
import { compose, type ComposeInput } from "#core/compose/compose";
import type { Letter } from "#core/compose/letter";
import type { Decision } from "#core/compose/passages";
import { answerAttrs, filesThatGo } from "./answer-attrs";
import { slipsOf, type PlacedSlip } from "./slips";

/** What a letter depends on beyond the answer itself: the case, its customer, and what the server found. */
export interface LetterInputs extends Omit<ComposeInput, "slips" | "subject" | "attachments"> {
  recipient: string | null;
  standing: Standing;
  /** The address that the agent chose; null for the usual one. */
  to: ChosenRecipient | null;
  /** Whom it goes to besides; null for nobody. */
  copies: Copies | null;
  strangers: string[];
  forwarder: ForwarderWay | null;
  languageOf: LanguageGuess;
  otherNames: string[];
  sentReplies: string[];
}

/** The letter that the editor's slips make now. */
export interface LetterState {
  /** What it was composed of. */
  doc: PmNode;
  inputs: LetterInputs;
  slips: PlacedSlip[];
  letter: Letter;
  checks: SendCheck[];
  /** Decisions on the passages of each slip, by slip and passage. */
  decisions: ReadonlyMap<string, ReadonlyMap<string, Decision>>;
  /** Passages that the agent unfolded to see, as `slip passage`. */
  unfolded: ReadonlySet<string>;
}

/** The letter as it was composed last: with what was just typed it is composed anew once that is painted. */
export const letterKey = new PluginKey<LetterState>("letter");

type Change = { inputs: LetterInputs } | { unfold: string } | { compose: true };

function computed(state: EditorState, inputs: LetterInputs, unfolded: ReadonlySet<string>): LetterState {
  const slips = slipsOf(state.doc);
  const { subject } = answerAttrs(state.doc);
  const whole = { ...inputs, subject, attachments: filesThatGo(state.doc), slips };
  const letter = compose(whole);
  const checks = secondLook({ ...whole, letter });
  const made = { doc: state.doc, inputs, slips, letter, checks, decisions: letter.decisions, unfolded };
  composed.set(state.doc, made);
  return made;
}

/** By document: whoever asks for the letter before it is painted has it composed, once. */
const composed = new WeakMap<PmNode, LetterState>();

/** The letter of a state, where the last one may be of an older document. */
function current(state: EditorState, last: LetterState): LetterState {
  if (last.doc === state.doc) return last;
  const known = composed.get(state.doc);
  if (known?.inputs === last.inputs && known.unfolded === last.unfolded) return known;
  return computed(state, last.inputs, last.unfolded);
}

/** Whether two documents differ by words alone: the same slips, filled in alike, with the same files. */
function onlyWords(before: PmNode, after: PmNode): boolean {
  if (before.attrs !== after.attrs || before.childCount !== after.childCount) return false;
  for (let index = 0; index < after.childCount; index += 1)
    if (before.child(index).attrs !== after.child(index).attrs) return false;
  return true;
}

/** Calls back when the next picture is painted. @returns how to call it off */
function afterPaint(then: () => void): () => void {
  const { port1, port2 } = new MessageChannel();
  port1.onmessage = then;
  const frame = requestAnimationFrame(() => port2.postMessage(null));
  return () => {
    cancelAnimationFrame(frame);
    port1.close();
  };
}

/**
 * Composes the letter anew with every change, after words are typed once they are painted: the hand does not wait for the
 * second look.
 */
export function letterPlugin(inputs: LetterInputs): Plugin<LetterState> {
  return new Plugin<LetterState>({
    key: letterKey,
    state: {
      init: (_config, state) => computed(state, inputs, new Set()),
      apply(transaction, value, _old, state) {
        const change = transaction.getMeta(letterKey) as Change | undefined;
        if (change && "inputs" in change) return computed(state, change.inputs, value.unfolded);
        if (change && "compose" in change) return current(state, value);
        if (change) return { ...current(state, value), unfolded: toggled(value.unfolded, change.unfold) };
        if (!transaction.docChanged || onlyWords(value.doc, state.doc)) return value;
        return computed(state, value.inputs, value.unfolded);
      },
    },
    view() {
      let callOff: (() => void) | null = null;
      return {
        update(view) {
          if (letterKey.getState(view.state)?.doc === view.state.doc) return;
          callOff?.();
          callOff = afterPaint(() => {
            callOff = null;
            view.dispatch(changing(view.state, { compose: true }));
          });
        },
        destroy: () => callOff?.(),
      };
    },
  });
}

function toggled(set: ReadonlySet<string>, key: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(key)) next.add(key);
  return next;
}

/** The letter that a state makes. */
export function letterState(state: EditorState): LetterState {
  const found = letterKey.getState(state);
  if (!found) throw new Error("This editor composes no letter");
  return current(state, found);
}

/** A transaction that changes what the letter depends on beside the document; nothing to undo. */
function changing(state: EditorState, change: Change): Transaction {
  return state.tr.setMeta(letterKey, change).setMeta("addToHistory", false);
}

/** A transaction that tells the letter of new inputs. */
export function withInputs(state: EditorState, inputs: LetterInputs): Transaction {
  return changing(state, { inputs });
}

export function unfold(view: EditorView, key: string): void {
  view.dispatch(changing(view.state, { unfold: key }));
}

/** The slip around a position, with the place of its node; null outside of any. */
export function slipAround({ slips }: LetterState, position: number): PlacedSlip | null {
  return slips.findLast((slip) => slip.position <= position) ?? null;
}
