import type { Node as PmNode } from "@tiptap/pm/model";
import { Plugin, PluginKey, type EditorState } from "@tiptap/pm/state";
import { Decoration, DecorationSet, type EditorView } from "@tiptap/pm/view";
import { stands, type Decision } from "#core/compose/passages";
import type { PassageRef } from "#core/document/definition";
import { letterKey, letterState, unfold, type LetterState } from "./letter-state";
import type { PlacedSlip } from "./slips";

/** Shows what composing decided: passages that do not apply are folded, and the second look points at words. */
export function decorationsPlugin(): Plugin<Drawn> {
  return new Plugin<Drawn>({
    key,
    state: {
      init: (_config, state) => drawn(state),
      apply(transaction, value, _old, state) {
        if (letterKey.getState(state) !== value.from) return drawn(state);
        // Until the letter is composed anew, what was found stays at its words.
        if (transaction.docChanged) return { ...value, set: value.set.map(transaction.mapping, state.doc) };
        return value;
      },
    },
    props: { decorations: (state) => key.getState(state)?.set },
  });
}

interface Drawn {
  from: LetterState | undefined;
  set: DecorationSet;
}

const key = new PluginKey<Drawn>("decorations");

function drawn(state: EditorState): Drawn {
  const from = letterKey.getState(state);
  const found = from ? [...passages(from, state.doc), ...findings(from, state.doc)] : [];
  return { from, set: DecorationSet.create(state.doc, found) };
}

function passages(letter: LetterState, doc: PmNode): Decoration[] {
  return letter.slips.flatMap((slip) => slipPassages(slip, letter, doc));
}

function slipPassages(slip: PlacedSlip, letter: LetterState, doc: PmNode): Decoration[] {
  const decisions = letter.decisions.get(slip.id) ?? new Map<string, Decision>();
  const node = doc.nodeAt(slip.position);
  const found: Decoration[] = [];
  if (!node) return found;
  let lastFold: { key: string; end: number } | null = null;
  node.descendants((child, offset, parent) => {
    const from = slip.position + 1 + offset;
    const to = from + child.nodeSize;
    const refs = refsOf(child);
    if (refs.length === 0) return true;
    const key = `${slip.id} ${refs.map((ref) => ref.id + (ref.otherwise ? "!" : "")).join(" ")}`;
    const words = refs.map((ref) => wordsOf(ref, decisions)).join(", and ");
    if (stands(refs, decisions)) {
      if (!child.isInline)
        found.push(Decoration.node(from, to, { class: "passage-in", title: `Stands ${words}` }));
      return true;
    }
    const open = letter.unfolded.has(key);
    const continued = lastFold?.key === key && lastFold.end === from;
    lastFold = { key, end: to };
    if (!continued) {
      found.push(
        Decoration.widget(
          from,
          (view) => foldLine(view, key, words, open, parent?.type.name ?? "doc", child.isInline),
          { side: -1, key: `${key}${open ? "open" : ""}`, ignoreSelection: true },
        ),
      );
    }
    const attributes = { class: open ? "passage-open" : "passage-out" };
    found.push(
      child.isInline ? Decoration.inline(from, to, attributes) : Decoration.node(from, to, attributes),
    );
    return false;
  });
  return found;
}

function refsOf(node: PmNode): PassageRef[] {
  if (node.isInline)
    return node.marks.flatMap((mark) =>
      mark.type.name === "passage" ? (mark.attrs.passages as PassageRef[]) : [],
    );
  return (node.attrs.passages as PassageRef[] | undefined) ?? [];
}

/** When a passage stands, in words. */
function wordsOf(ref: PassageRef, decisions: ReadonlyMap<string, Decision>): string {
  const decision = decisions.get(ref.id);
  if (!decision) return `(“${ref.id}” has no condition)`;
  return `${ref.otherwise ? "unless" : "when"} ${decision.words}`;
}

/** One line for what is folded, saying why; in the tag that its neighbours have. */
function foldLine(
  view: EditorView,
  key: string,
  words: string,
  open: boolean,
  parent: string,
  inline: boolean,
): HTMLElement {
  const tag = inline
    ? "span"
    : parent === "table"
      ? "tr"
      : parent === "bulletList" || parent === "orderedList"
        ? "li"
        : "div";
  const line = document.createElement(tag);
  line.className = inline ? "fold fold-inline" : "fold";
  line.contentEditable = "false";
  const button = document.createElement("button");
  button.type = "button";
  button.textContent = inline ? (open ? "▾" : "▸") : `${open ? "▾ Left out" : "▸ Folded"}: stands ${words}`;
  button.title = inline ? `Left out: stands ${words}` : open ? "Fold it again" : "Look at what is left out";
  if (inline) button.setAttribute("aria-label", `Left out: stands ${words}`);
  button.setAttribute("aria-expanded", String(open));
  button.tabIndex = -1;
  button.addEventListener("click", () => unfold(view, key));
  const cell = tag === "tr" ? document.createElement("td") : line;
  if (cell instanceof HTMLTableCellElement) {
    cell.colSpan = 20;
    line.append(cell);
  }
  cell.append(button);
  return line;
}

function findings(letter: LetterState, doc: PmNode): Decoration[] {
  return letter.checks.flatMap((check, index) => {
    const source = check.at?.source;
    const slip = source ? letter.slips.find((one) => one.id === source.slip) : undefined;
    if (!source || !slip) return [];
    const from = slip.position + 1 + source.from;
    const to = Math.min(slip.position + 1 + source.to, doc.content.size);
    return from < to
      ? [Decoration.inline(from, to, { class: `found-${check.severity}`, "data-finding": String(index) })]
      : [];
  });
}

/** Where a finding's words are in the editor; null when it is about none of the slips' words. */
export function findingPosition(view: EditorView, index: number): { from: number; to: number } | null {
  const { checks, slips } = letterState(view.state);
  const source = checks[index]?.at?.source;
  const slip = source ? slips.find((one) => one.id === source.slip) : undefined;
  return source && slip ? { from: slip.position + 1 + source.from, to: slip.position + 1 + source.to } : null;
}
