import type { Editor } from "@tiptap/core";
import { closeHistory } from "@tiptap/pm/history";
import type { Transaction } from "@tiptap/pm/state";
import { ownWordsIn } from "#core/document/own-words";
import { sameLanguage } from "#core/language/tag";
import type { Doc } from "#core/document/types";
import type { DraftSlip } from "#server/answering/draft";
import type { StripReply } from "#server/strip/strip";
import { answerAttrs, withAttrs } from "../editor/answer-attrs";
import { isEmptySlip, ownWordsSlip, slipFrom, slipJson, slipsOf, type PlacedSlip } from "../editor/slips";

/** The team's usual opening and closing, in every language that they are written in. */
export interface Usual {
  opening: StripReply[];
  closing: StripReply[];
}

const order = { opening: 0, answer: 1, closing: 2 } as const;

/**
 * The slips of a first answer with a reply: the team's usual opening and closing around it, in the reply's language. Where
 * they are not written in that, it stands without them: a letter is in one language.
 */
export function firstSlips(reply: StripReply, usual: Usual): DraftSlip[] {
  const around = (variants: StripReply[]) => {
    const one =
      variants.find(({ language }) => language === reply.language) ??
      variants.find(({ language }) => sameLanguage(language, reply.language));
    return one && reply.part === "answer" ? [slipFrom(one)] : [];
  };
  return [...around(usual.opening), slipFrom(reply), ...around(usual.closing)];
}

/**
 * The slip of a reply that need not be taken again: to take it in its own place would only lose what was filled in, and to
 * add it would say the same twice, unless it has blanks to say something else with.
 */
export function alreadyIn(editor: Editor, reply: StripReply, how: "swap" | "stack"): PlacedSlip | null {
  const there = slipsOf(editor.state.doc).findLast((slip) => slip.reply === reply.key);
  const saysOther = how === "stack" && Object.keys(reply.blanks).length > 0;
  return there && !saysOther ? there : null;
}

/**
 * Takes a reply into the answer, in one undoable step. Words that the agent had changed in a reply that is swapped, and
 * that make no sense beside the new one, are set aside.
 * @param how `swap` puts it in place of the last reply of its part, with the paragraphs that the agent added to that;
 *   `stack` adds it behind that, with a join where it answers a second question
 * @param shelved a reply's document as it stands on the shelf, by its version; null where that is not known
 * @returns the id of the new slip
 */
export function takeReply(
  editor: Editor,
  reply: StripReply,
  usual: Usual,
  how: "swap" | "stack",
  shelved: (version: number) => Doc | null,
): string {
  const { doc, schema } = editor.state;
  // A step of its own for undo, however quickly it follows on another.
  const tr = closeHistory(editor.state.tr);
  const node = (slip: DraftSlip) => schema.nodeFromJSON(slipJson(slip));
  const slips = slipsOf(doc);
  const [only] = slips;
  if (slips.length === 1 && only && isEmptySlip(only)) {
    const first = firstSlips(reply, usual);
    editor.view.dispatch(withSubject(tr.replaceWith(0, doc.content.size, first.map(node)), reply));
    return first.find((slip) => slip.reply === reply.key)?.id ?? "";
  }
  const slip = slipFrom(reply);
  const same = slips.findLast((one) => one.part === reply.part && one.reply !== null);
  if (same && how === "swap") {
    const original = same.versionId === null ? null : shelved(same.versionId);
    const own = original ? ownWordsIn(same.document, original) : { added: [], changed: [] };
    const kept = { ...slip.document, content: [...slip.document.content, ...own.added] };
    tr.replaceWith(same.position, endOf(doc, same), node({ ...slip, document: kept }));
    if (own.changed.length > 0) withAttrs(tr, { setAside: [...answerAttrs(doc).setAside, ...own.changed] });
    editor.view.dispatch(withSubject(tr, reply));
    return slip.id;
  }
  const join = same && reply.also !== null ? [joinOf(slip.language, doc.textContent)] : [];
  editor.view.dispatch(withSubject(tr.insert(placeFor(doc, slips, reply), [...join, slip].map(node)), reply));
  return slip.id;
}

/** A subject of the agent's own is theirs; the thread's gives way to one that is always used. */
function withSubject(tr: Transaction, reply: StripReply): Transaction {
  const isThreads = answerAttrs(tr.doc).subject.from === "thread";
  return reply.useTemplateSubject && reply.subject && isThreads
    ? withAttrs(tr, { subject: { from: "reply" } })
    : tr;
}

/** What leads from one answer to the next, and on to further ones, in the language of the letter; anybody may write it otherwise. */
const JOINS: Record<string, [second: string, further: string]> = {
  de: ["Zu Ihrer weiteren Frage:", "Und noch zu Ihrer anderen Frage:"],
  en: ["As to your other question:", "And as to your further question:"],
  es: ["En cuanto a su otra pregunta:", "Y en cuanto a la pregunta siguiente:"],
  fr: ["Pour votre autre question :", "Et pour la question suivante :"],
};

/** @param said the words of the answer so far */
function joinOf(language: string, said: string): DraftSlip {
  const [second, further] = JOINS[language.slice(0, 2)] ?? JOINS.en ?? ["", ""];
  const words = said.includes(second) ? further : second;
  return {
    ...ownWordsSlip(language),
    document: {
      type: "doc",
      content: [{ type: "paragraph", attrs: { passages: [] }, content: [{ type: "text", text: words }] }],
    },
  };
}

function endOf(doc: Editor["state"]["doc"], slip: PlacedSlip): number {
  return slip.position + (doc.nodeAt(slip.position)?.nodeSize ?? 0);
}

/** Behind everything of its part and the parts before it. */
function placeFor(doc: Editor["state"]["doc"], slips: PlacedSlip[], reply: StripReply): number {
  const before = slips.findLast((one) => order[one.part] <= order[reply.part]);
  return before ? endOf(doc, before) : 0;
}
