import { closeHistory } from "@tiptap/pm/history";
import type { Node as PmNode } from "@tiptap/pm/model";
import type { Transaction } from "@tiptap/pm/state";
import type { EditorView } from "@tiptap/pm/view";
import type { SubjectChoice } from "#core/compose/compose";
import type { BlankValue } from "#core/tokens/blanks";
import { withAttrs } from "./answer-attrs";
import { letterState } from "./letter-state";

/** The documents that filling made last, with what was being filled and the number of that step of undo. */
const steps = new WeakMap<PmNode, { what: string; step: number }>();
let lastStep = 0;

/**
 * Fills something in as a step of undo of its own.
 * @param goesOn whether it is still being typed: then it belongs to the step that the letter before was of
 */
function fill(view: EditorView, tr: Transaction, what: string, goesOn: boolean): void {
  const before = steps.get(view.state.doc);
  const known = goesOn && before?.what === what ? before.step : null;
  const step = known ?? (lastStep += 1);
  // What has the same number of composition is one step for the history, whatever the time between.
  view.dispatch((known === null ? closeHistory(tr) : tr).setMeta("composition", `filling ${step}`));
  steps.set(view.state.doc, { what, step });
}

/** Fills a blank of a slip, wherever it stands. @param goesOn whether it is still being typed */
export function setBlank(
  view: EditorView,
  slipId: string,
  name: string,
  value: BlankValue,
  goesOn = false,
): void {
  const slip = letterState(view.state).slips.find((one) => one.id === slipId);
  if (!slip) return;
  const { [name]: _old, ...others } = slip.values;
  const values = value === null ? others : { ...others, [name]: value };
  fill(
    view,
    view.state.tr.setNodeAttribute(slip.position, "values", values),
    `blank ${slipId} ${name}`,
    goesOn,
  );
}

/** Chooses the letter's subject. @param goesOn whether it is still being typed */
export function setSubject(view: EditorView, subject: SubjectChoice, goesOn = false): void {
  fill(view, withAttrs(view.state.tr, { subject }), "subject", goesOn);
}
