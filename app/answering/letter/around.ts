import type { Editor } from "@tiptap/core";
import { closeHistory } from "@tiptap/pm/history";
import { plainSurrounding, type Surrounding } from "#core/checks/surroundings";
import { sameLanguage } from "#core/language/tag";
import type { DraftSlip } from "#server/answering/draft";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import { ownWordsSlip, slipFrom, slipJson, slipsOf } from "../editor/slips";

/** The team's usual opening and closing, in every language that they are written in. */
export interface Usual {
  opening: StripReply[];
  closing: StripReply[];
}

/** A reply as it is written in a language; null where it is not. */
export function inLanguage(variants: StripReply[], language: string): StripReply | null {
  return (
    variants.find((one) => one.language === language) ??
    variants.find((one) => sameLanguage(one.language, language)) ??
    null
  );
}

/** An opening or closing that a letter lacks, ready to be put around it. */
export interface AroundOffer {
  part: Surrounding;
  slip: DraftSlip;
}

/**
 * What a letter may have of the parts that it lacks around its answers: what the team usually says, in the letter's language;
 * else, in mail, a plain one of ours.
 */
export function aroundOffers(open: OpenCase, lacks: Surrounding[], language: string): AroundOffer[] {
  return lacks.flatMap((part) => {
    const usual = inLanguage(open.usual[part], language);
    if (usual) return [{ part, slip: slipFrom(usual) }];
    const plain = open.channel === "email" ? plainSurrounding(part, language, open.context) : null;
    return plain ? [{ part, slip: { ...ownWordsSlip(language), document: plain } }] : [];
  });
}

/** Slips with what is put around them. */
export function withAround(slips: DraftSlip[], offers: AroundOffer[]): DraftSlip[] {
  const of = (part: Surrounding) => offers.flatMap((one) => (one.part === part ? [one.slip] : []));
  return [...of("opening"), ...slips, ...of("closing")];
}

/** Puts openings and closings around an answer, in one step of undo; the cursor stays where it is. */
export function putAround(editor: Editor, offers: AroundOffer[]): void {
  const { state, view } = editor;
  const tr = closeHistory(state.tr);
  for (const { part, slip } of offers) {
    const node = state.schema.nodeFromJSON(slipJson(slip));
    const at = part === "closing" ? tr.doc.content.size : 0;
    const own = slipsOf(tr.doc).at(part === "closing" ? -1 : 0);
    // Plain words join the agent's own.
    if (slip.reply === null && own?.reply === null) {
      const end = own.position + (tr.doc.nodeAt(own.position)?.nodeSize ?? 0);
      tr.insert(part === "closing" ? end - 1 : own.position + 1, node.content);
    } else tr.insert(at, node);
  }
  view.dispatch(tr);
}
