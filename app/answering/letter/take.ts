import type { Editor } from "@tiptap/core";
import { closeHistory } from "@tiptap/pm/history";
import type { Transaction } from "@tiptap/pm/state";
import { ownWordsIn } from "#core/document/own-words";
import type { Doc } from "#core/document/types";
import { documentText } from "#core/document/walk";
import type { DraftSlip } from "#server/answering/draft";
import type { StripReply } from "#server/strip/strip";
import { inLanguage, type Usual } from "./around";
import { answerAttrs, withAttrs } from "../editor/answer-attrs";
import { isEmptySlip, ownWordsSlip, slipFrom, slipJson, slipsOf, type PlacedSlip } from "../editor/slips";

const order = { opening: 0, answer: 1, closing: 2 } as const;

/**
 * The slips of a first answer with a reply: the team's usual opening and closing around it, in the reply's language. Where
 * they are not written in that, it stands without them: a letter is in one language.
 */
export function firstSlips(reply: StripReply, usual: Usual): DraftSlip[] {
  const around = (variants: StripReply[]) => {
    const one = inLanguage(variants, reply.language);
    return one && reply.part === "answer" ? [slipFrom(one)] : [];
  };
  return [...around(usual.opening), slipFrom(reply), ...around(usual.closing)];
}

/** How a reply comes into an answer. */
export type Way =
  /** It begins the answer. */
  | { how: "begin" }
  /** In place of a reply that stands. */
  | { how: "swap"; slip: string; title: string }
  /** Beside those that stand. */
  | { how: "add" };

/**
 * How a reply comes into an answer, unless somebody says otherwise: what answers another question of the customer's is
 * added, and what answers the same one takes the place of what stands for it.
 * @param alsoOf the question that a reply answers beside the first, by its key; null for the first, and for what is not known
 */
export function wayOf(slips: DraftSlip[], reply: StripReply, alsoOf: (key: string) => string | null): Way {
  const [only] = slips;
  if (slips.length === 1 && only && isEmptySlip(only)) return { how: "begin" };
  const also = reply.also ?? alsoOf(reply.key);
  const same = slips.findLast(
    (one) => one.part === reply.part && one.reply !== null && alsoOf(one.reply) === also,
  );
  return same ? { how: "swap", slip: same.id, title: same.title } : { how: "add" };
}

/** The same, where somebody asked for it to be added. */
export function wayToAdd(slips: DraftSlip[], reply: StripReply): Way {
  const way = wayOf(slips, reply, () => null);
  return way.how === "begin" ? way : { how: "add" };
}

/**
 * The slip of a reply that need not be taken again: to take it in its own place would only lose what was filled in, and to
 * add it would say the same twice, unless it has blanks to say something else with.
 */
export function alreadyIn(editor: Editor, reply: StripReply, { how }: Way): PlacedSlip | null {
  const there = slipsOf(editor.state.doc).findLast((slip) => slip.reply === reply.key);
  const saysOther = how === "add" && Object.keys(reply.blanks).length > 0;
  return there && !saysOther ? there : null;
}

/** What taking a reply makes of the slips of an answer. */
interface Taking {
  /** Place of the first slip that changes, and how many make room. */
  at: number;
  gone: number;
  slips: DraftSlip[];
  /** Id of the slip that the reply is now. */
  id: string;
  /** Words that the agent had changed in the reply that makes room, and that make no sense beside the new one. */
  setAside: string[];
}

/** @param shelved a reply's document as it stands on the shelf, by its version; null where that is not known */
function taking(
  slips: DraftSlip[],
  reply: StripReply,
  usual: Usual,
  way: Way,
  shelved: (version: number) => Doc | null,
): Taking {
  if (way.how === "begin") {
    const first = firstSlips(reply, usual);
    const id = first.find((slip) => slip.reply === reply.key)?.id ?? "";
    return { at: 0, gone: slips.length, slips: first, id, setAside: [] };
  }
  const slip = slipFrom(reply);
  if (way.how === "swap") {
    const at = slips.findIndex((one) => one.id === way.slip);
    const same = slips[at];
    const original = same?.versionId == null ? null : shelved(same.versionId);
    const own = same && original ? ownWordsIn(same.document, original) : { added: [], changed: [] };
    const document = { ...slip.document, content: [...slip.document.content, ...own.added] };
    return { at, gone: 1, slips: [{ ...slip, document }], id: slip.id, setAside: own.changed };
  }
  const stands = slips.some((one) => one.part === reply.part && one.reply !== null);
  const said = slips.map(({ document }) => documentText(document)).join("\n");
  const join = stands && reply.also !== null ? [joinOf(slip.language, said)] : [];
  const at = 1 + slips.findLastIndex((one) => order[one.part] <= order[reply.part]);
  return { at, gone: 0, slips: [...join, slip], id: slip.id, setAside: [] };
}

/** The slips of an answer as they would be with a reply. @returns also the id of the new one */
export function slipsWith(
  slips: DraftSlip[],
  reply: StripReply,
  usual: Usual,
  way: Way,
): { slips: DraftSlip[]; id: string } {
  const made = taking(slips, reply, usual, way, () => null);
  return { slips: slips.toSpliced(made.at, made.gone, ...made.slips), id: made.id };
}

/**
 * Takes a reply into the answer, in one undoable step. Words that the agent had changed in a reply that is swapped, and
 * that make no sense beside the new one, are set aside.
 * @param shelved a reply's document as it stands on the shelf, by its version; null where that is not known
 * @returns the id of the new slip
 */
export function takeReply(
  editor: Editor,
  reply: StripReply,
  usual: Usual,
  way: Way,
  shelved: (version: number) => Doc | null,
): string {
  const { doc, schema } = editor.state;
  const slips = slipsOf(doc);
  const made = taking(slips, reply, usual, way, shelved);
  const from = slips[made.at]?.position ?? doc.content.size;
  const to = slips[made.at + made.gone]?.position ?? doc.content.size;
  const nodes = made.slips.map((slip) => schema.nodeFromJSON(slipJson(slip)));
  // A step of its own for undo, however quickly it follows on another.
  const tr = closeHistory(editor.state.tr).replaceWith(from, to, nodes);
  if (made.setAside.length > 0) withAttrs(tr, { setAside: [...answerAttrs(doc).setAside, ...made.setAside] });
  editor.view.dispatch(withSubject(tr, reply));
  return made.id;
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
