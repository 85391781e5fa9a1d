import type { Node as PmNode, ResolvedPos } from "@tiptap/pm/model";
import type { EditorState, Transaction } from "@tiptap/pm/state";
import { CellSelection } from "@tiptap/pm/tables";
import type { PassageRef } from "#core/document/definition";
import { refsOf } from "./brackets";
import { t } from "../../words/writing";

/** What of a document can be made a passage at the selection, from the smallest to the largest. */
export interface Scope {
  kind:
    | "words"
    | "paragraph"
    | "heading"
    | "item"
    | "list"
    | "row"
    | "rows"
    | "table"
    | "quotation"
    | "rule"
    | "blocks";
  label: string;
  /** Positions of the nodes; for words, the range. */
  nodes: { from: number; to: number }[];
}

const kinds = (): Record<string, [Scope["kind"], string]> => ({
  paragraph: ["paragraph", t("thisParagraph")],
  heading: ["heading", t("thisHeading")],
  listItem: ["item", t("thisItem")],
  bulletList: ["list", t("theList")],
  orderedList: ["list", t("theList")],
  tableRow: ["row", t("thisRow")],
  table: ["table", t("theTable")],
  blockquote: ["quotation", t("theQuotation")],
  horizontalRule: ["rule", t("theRule")],
});

/** Everything around the selection that may stand under a condition. */
export function scopesAt(state: EditorState): Scope[] {
  const { selection } = state;
  const { $from, $to, empty } = selection;
  const scopes: Scope[] = [];
  if (!empty && $from.sameParent($to) && $from.parent.inlineContent)
    scopes.push({ kind: "words", label: t("theseWords"), nodes: [{ from: $from.pos, to: $to.pos }] });
  if (selection instanceof CellSelection) {
    const rows = rowsOf(selection);
    if (rows.length > 1)
      scopes.push({ kind: "rows", label: t("theseCountRows", { count: rows.length }), nodes: rows });
  }
  const shared = $from.sharedDepth($to.pos);
  const several =
    !($from.sameParent($to) && $from.parent.inlineContent) && !(selection instanceof CellSelection);
  if (several) {
    const nodes = siblings($from, $to, shared);
    const parent = $from.node(shared);
    const first = parent.maybeChild($from.index(shared));
    if (nodes.length > 1 && first && first.type.name in kinds()) {
      const count = nodes.length;
      const label =
        first.type.name === "listItem"
          ? t("theseCountItems", { count })
          : first.type.name === "tableRow"
            ? t("theseCountRows", { count })
            : t("theseCountParagraphs", { count });
      scopes.push({ kind: "blocks", label, nodes });
    }
  }
  for (let depth = $from.depth; depth > 0; depth -= 1) {
    if (depth > shared) continue;
    const node = $from.node(depth);
    const named = kinds()[node.type.name];
    // A paragraph that is all of an item or a cell is told by those.
    const parent = $from.node(depth - 1);
    const inner = node.type.name === "paragraph" && /^table(Cell|Header)$/.test(parent.type.name);
    const whole =
      node.type.name === "paragraph" && parent.type.name === "listItem" && parent.childCount === 1;
    if (!named || inner || whole) continue;
    const from = $from.before(depth);
    scopes.push({ kind: named[0], label: named[1], nodes: [{ from, to: from + node.nodeSize }] });
  }
  return scopes;
}

function rowsOf(selection: CellSelection): { from: number; to: number }[] {
  const rows = new Map<number, number>();
  selection.forEachCell((_cell, position) => {
    const $cell = selection.$anchorCell.doc.resolve(position);
    const from = $cell.before();
    rows.set(from, from + $cell.parent.nodeSize);
  });
  return [...rows].map(([from, to]) => ({ from, to })).sort((a, b) => a.from - b.from);
}

function siblings($from: ResolvedPos, $to: ResolvedPos, depth: number): { from: number; to: number }[] {
  const parent = $from.node(depth);
  const nodes: { from: number; to: number }[] = [];
  let position = $from.start(depth);
  for (let index = 0; index < parent.childCount; index += 1) {
    const size = parent.child(index).nodeSize;
    if (index >= $from.index(depth) && index <= $to.index(depth))
      nodes.push({ from: position, to: position + size });
    position += size;
  }
  return nodes;
}

/** Puts a scope under one more condition, the innermost. */
export function putUnder(state: EditorState, scope: Scope, ref: PassageRef): Transaction {
  const { tr } = state;
  if (scope.kind === "words") {
    const [range] = scope.nodes;
    if (range)
      changeWords(tr, range.from, range.to, (refs) => [...refs.filter((one) => one.id !== ref.id), ref]);
    return tr;
  }
  for (const { from } of scope.nodes) {
    const node = tr.doc.nodeAt(from);
    if (node) setRefs(tr, from, node, [...refsOf(node).filter((one) => one.id !== ref.id), ref]);
  }
  return tr;
}

/** The conditions that the selection stands under, the outermost first, each with what it brackets. */
export function passagesAt(state: EditorState): { ref: PassageRef; from: number; to: number }[] {
  const { $from } = state.selection;
  const found: { ref: PassageRef; from: number; to: number }[] = [];
  for (let depth = 1; depth <= $from.depth; depth += 1) {
    const node = $from.node(depth);
    for (const ref of refsOf(node)) found.push({ ref, from: $from.before(depth), to: $from.after(depth) });
  }
  const inline = $from.nodeAfter ?? $from.nodeBefore;
  if (inline?.isInline) for (const ref of refsOf(inline)) found.push({ ref, ...runOf($from, ref) });
  return found;
}

/** The run of words around a position that stands under one condition. */
function runOf($pos: ResolvedPos, ref: PassageRef): { from: number; to: number } {
  const { parent } = $pos;
  const has = (index: number) => {
    const child = parent.maybeChild(index);
    return child ? refsOf(child).some((one) => one.id === ref.id) : false;
  };
  let first =
    $pos.nodeAfter && has($pos.index()) ? $pos.index() : $pos.index() - ($pos.textOffset > 0 ? 0 : 1);
  let last = first;
  while (has(first - 1)) first -= 1;
  while (has(last + 1)) last += 1;
  return { from: $pos.posAtIndex(first), to: $pos.posAtIndex(last + 1) };
}

/** Frees words and blocks of one condition everywhere in a range; the words stay. */
export function freeOf(state: EditorState, id: string, from: number, to: number): Transaction {
  const { tr } = state;
  const without = (refs: PassageRef[]) => refs.filter((ref) => ref.id !== id);
  const end = to > from ? to : from + 1;
  state.doc.nodesBetween(Math.max(0, from), Math.min(end, state.doc.content.size), (node, position) => {
    if (!refsOf(node).some((ref) => ref.id === id)) return;
    if (node.isInline) changeWords(tr, position, position + node.nodeSize, without);
    else setRefs(tr, position, node, without(refsOf(node)));
  });
  return tr;
}

/** Turns a condition into its opposite, or back, on the blocks and words of a range. */
export function turnAround(state: EditorState, id: string, from: number, to: number): Transaction {
  const { tr } = state;
  const turned = (refs: PassageRef[]) =>
    refs.map((ref) => (ref.id === id ? { ...ref, otherwise: !ref.otherwise } : ref));
  const end = to > from ? to : from + 1;
  state.doc.nodesBetween(Math.max(0, from), Math.min(end, state.doc.content.size), (node, position) => {
    if (!refsOf(node).some((ref) => ref.id === id)) return;
    if (node.isInline) changeWords(tr, position, position + node.nodeSize, turned);
    else setRefs(tr, position, node, turned(refsOf(node)));
  });
  return tr;
}

/** Adds a paragraph that stands where a passage does not, right behind it. */
export function addOtherwise(state: EditorState, ref: PassageRef, after: number): Transaction {
  const paragraph = state.schema.nodes.paragraph?.create({
    passages: [{ ...ref, otherwise: !ref.otherwise }],
  });
  const { tr } = state;
  const $after = state.doc.resolve(after);
  const place = $after.depth === 0 ? after : $after.after(1);
  return paragraph ? tr.insert(Math.min(place, state.doc.content.size), paragraph) : tr;
}

function setRefs(tr: Transaction, position: number, node: PmNode, refs: PassageRef[]): void {
  tr.setNodeMarkup(position, undefined, { ...node.attrs, passages: refs });
}

function changeWords(
  tr: Transaction,
  from: number,
  to: number,
  change: (refs: PassageRef[]) => PassageRef[],
): void {
  const type = tr.doc.type.schema.marks.passage;
  if (!type) return;
  tr.doc.nodesBetween(from, to, (node, position) => {
    if (!node.isInline) return;
    const start = Math.max(from, position);
    const end = Math.min(to, position + node.nodeSize);
    const refs = change(refsOf(node));
    tr.removeMark(start, end, type);
    if (refs.length > 0) tr.addMark(start, end, type.create({ passages: refs }));
  });
}
