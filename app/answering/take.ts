import type { Editor } from "@tiptap/core";
import type { DraftSlip } from "#server/answering/draft";
import type { StripReply } from "#server/replies/strip";
import { isEmptySlip, slipFrom, slipJson, slipsOf, type PlacedSlip } from "./editor/slips";

export interface Usual {
  opening: StripReply | null;
  closing: StripReply | null;
}

const order = { opening: 0, answer: 1, closing: 2 } as const;

/** The slips of a first answer with a reply: the team's usual opening and closing around it. */
export function firstSlips(reply: StripReply, usual: Usual): DraftSlip[] {
  const around = (one: StripReply | null) => (one && reply.part === "answer" ? [slipFrom(one)] : []);
  return [...around(usual.opening), slipFrom(reply), ...around(usual.closing)];
}

/**
 * Takes a reply into the answer, in one undoable step.
 * @param how `swap` puts it in place of the last reply of its part, `stack` adds it behind that
 * @returns the id of the new slip
 */
export function takeReply(editor: Editor, reply: StripReply, usual: Usual, how: "swap" | "stack"): string {
  const { doc, schema, tr } = editor.state;
  const node = (slip: DraftSlip) => schema.nodeFromJSON(slipJson(slip));
  const slips = slipsOf(doc);
  const [only] = slips;
  if (slips.length === 1 && only && isEmptySlip(only)) {
    const first = firstSlips(reply, usual);
    editor.view.dispatch(tr.replaceWith(0, doc.content.size, first.map(node)));
    return first.find((slip) => slip.reply === reply.key)?.id ?? "";
  }
  const slip = slipFrom(reply);
  const same = slips.findLast((one) => one.part === reply.part && one.reply !== null);
  if (same && how === "swap")
    editor.view.dispatch(tr.replaceWith(same.position, endOf(doc, same), node(slip)));
  else editor.view.dispatch(tr.insert(placeFor(doc, slips, reply), node(slip)));
  return slip.id;
}

function endOf(doc: Editor["state"]["doc"], slip: PlacedSlip): number {
  return slip.position + (doc.nodeAt(slip.position)?.nodeSize ?? 0);
}

/** Behind everything of its part and the parts before it. */
function placeFor(doc: Editor["state"]["doc"], slips: PlacedSlip[], reply: StripReply): number {
  const before = slips.findLast((one) => order[one.part] <= order[reply.part]);
  return before ? endOf(doc, before) : 0;
}
