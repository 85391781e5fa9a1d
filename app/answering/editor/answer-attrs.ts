import type { JSONContent } from "@tiptap/core";
import { closeHistory } from "@tiptap/pm/history";
import type { Node as PmNode } from "@tiptap/pm/model";
import type { Transaction } from "@tiptap/pm/state";
import type { SubjectChoice } from "#core/compose/compose";
import type { AttachmentRef } from "#core/compose/slip";
import { picturesOf } from "#core/document/walk";
import type { DraftSlip } from "#server/answering/draft";
import { slipJson, slipsOf } from "./slips";

/** A file that the agent added. */
export interface OwnFile extends AttachmentRef {
  /** Whether it was brought as a picture of the words: it goes only as long as it stands in them. */
  inWords: boolean;
}

/** What an answer is beside its slips. It lives in the editor's document, so that undo covers it too. */
export interface AnswerAttrs {
  subject: SubjectChoice;
  files: OwnFile[];
  /** Words that swapping left without a place; the agent's to put back or remove. */
  setAside: string[];
}

/** An answer that nobody has touched, beside its slips. */
export const untouchedAttrs: AnswerAttrs = { subject: { from: "thread" }, files: [], setAside: [] };

/** An answer as the editor's JSON. */
export function answerJson(slips: DraftSlip[], attrs: AnswerAttrs = untouchedAttrs): JSONContent {
  return { type: "doc", attrs, content: slips.map(slipJson) };
}

/** What an answer is beside its slips. */
export function answerAttrs(doc: PmNode): AnswerAttrs {
  return doc.attrs as AnswerAttrs;
}

/** Changes what an answer is beside its slips, in a transaction of the caller's. */
export function withAttrs(tr: Transaction, attrs: Partial<AnswerAttrs>): Transaction {
  for (const [name, value] of Object.entries(attrs)) tr.setDocAttribute(name, value);
  return tr;
}

/** The same as a step of undo of its own. */
export function attrsStep(tr: Transaction, attrs: Partial<AnswerAttrs>): Transaction {
  return withAttrs(closeHistory(tr), attrs);
}

/** Ids of the pictures that stand in an answer's words. */
export function picturesIn(slips: DraftSlip[]): Set<string> {
  return new Set(slips.flatMap(({ document }) => picturesOf(document)));
}

const files = new WeakMap<PmNode, AttachmentRef[]>();

/** Files of the agent's own that go with an answer; kept by document. */
export function filesThatGo(doc: PmNode): AttachmentRef[] {
  const known = files.get(doc);
  if (known) return known;
  const own = answerAttrs(doc).files;
  const shown = own.some((file) => file.inWords) ? picturesIn(slipsOf(doc)) : new Set<string>();
  const found = own.flatMap(({ inWords, ...file }) => (!inWords || shown.has(file.id) ? [file] : []));
  files.set(doc, found);
  return found;
}
