import type { JSONContent } from "@tiptap/core";
import type { Node as PmNode } from "@tiptap/pm/model";
import { Selection } from "@tiptap/pm/state";
import type { Slip } from "#core/compose/slip";
import { readDocument } from "#core/document/schema";
import type { Block, Doc } from "#core/document/types";
import type { DraftInput, DraftSlip } from "#server/answering/draft";
import type { StripReply } from "#server/strip/strip";
import { t } from "../../words/answering";

/** What a slip's node carries beside its words: where it came from, and what was filled in. */
export type SlipAttrs = Omit<DraftSlip, "document">;

/** A slip in the editor: its place, and all that composing needs. */
export interface PlacedSlip extends DraftSlip {
  /** Position of the slip's node; its document's positions count from the one behind it. */
  position: number;
}

const documents = new WeakMap<PmNode, Doc>();

/** The words of a slip's node as a document; kept by node, since nodes never change. */
function documentOf(node: PmNode): Doc {
  const known = documents.get(node);
  if (known) return known;
  const content: Block[] = [];
  node.forEach((child) => content.push(blockOf(child)));
  const doc: Doc = { type: "doc", content };
  documents.set(node, doc);
  return doc;
}

const blocks = new WeakMap<PmNode, Block>();

/** A block of the editor as a document has it: only what changed is read again. */
function blockOf(node: PmNode): Block {
  const known = blocks.get(node);
  if (known) return known;
  const read = readDocument({ type: "doc", content: [node.toJSON() as unknown] });
  if (!read.ok) throw new Error(`The editor holds what is no document: ${read.problem}`);
  const [block] = read.doc.content;
  if (!block) throw new Error("A document of one block has a block");
  blocks.set(node, block);
  return block;
}

/** The slips of an answer, in their order. */
export function slipsOf(doc: PmNode): PlacedSlip[] {
  const slips: PlacedSlip[] = [];
  doc.forEach((node, position) => {
    slips.push({ ...(node.attrs as SlipAttrs), document: documentOf(node), position });
  });
  return slips;
}

/** Where writing goes on in an answer: the end of its last words before the closing. */
export function endOfAnswer(doc: PmNode): Selection {
  let end = 0;
  let place = doc.content.size - 1;
  doc.forEach((node) => {
    end += node.nodeSize;
    if ((node.attrs as SlipAttrs).part !== "closing") place = end - 1;
  });
  return Selection.near(doc.resolve(place), -1);
}

/** A slip as the editor's JSON. */
export function slipJson({ document, ...attrs }: DraftSlip): JSONContent {
  return { type: "slip", attrs, content: document.content };
}

export function newId(): string {
  return crypto.randomUUID();
}

/** An empty slip for the agent's own words. */
export function ownWordsSlip(language: string, id = newId()): DraftSlip {
  return {
    id,
    versionId: null,
    reply: null,
    title: t("yourOwnWords"),
    part: "answer",
    language,
    document: { type: "doc", content: [{ type: "paragraph", attrs: { passages: [] }, content: [] }] },
    blanks: {},
    passages: {},
    values: {},
    subject: null,
    attachments: [],
    versionNumber: null,
    currentNumber: null,
  };
}

/** A reply of the shelf as a slip, untouched. */
export function slipFrom(reply: StripReply): DraftSlip {
  return {
    id: newId(),
    versionId: reply.versionId,
    reply: reply.key,
    title: reply.title,
    part: reply.part,
    language: reply.language,
    document: reply.document,
    blanks: reply.blanks,
    passages: reply.passages,
    values: {},
    subject: reply.subject,
    attachments: reply.attachments,
    versionNumber: null,
    currentNumber: null,
  };
}

/** Whether a slip holds nothing: the agent's own words, before there are any. */
export function isEmptySlip(slip: Slip): boolean {
  const [only] = slip.document.content;
  return (
    slip.reply === null &&
    slip.document.content.length === 1 &&
    only?.type === "paragraph" &&
    only.content.length === 0
  );
}

/** A slip as a draft keeps it. */
export function keptSlip({
  id,
  versionId,
  language,
  document,
  values,
}: DraftSlip): DraftInput["slips"][number] {
  return { uid: id, versionId, language, document, values };
}
