import type { Node as PmNode } from "@tiptap/pm/model";
import { Plugin, PluginKey, type EditorState } from "@tiptap/pm/state";
import { Decoration, DecorationSet } from "@tiptap/pm/view";
import type { Editor } from "@tiptap/core";
import { ChevronDown, ChevronRight } from "lucide-react";
import { stands, type Decision } from "#core/compose/passages";
import type { PassageRef } from "#core/document/definition";
import { Hint } from "../../ui/hint";
import { widget } from "../../ui/editor/widget";
import { letterKey, unfold, type LetterState } from "./letter-state";
import type { PlacedSlip } from "./slips";
import { t } from "../../words/answering";

/** Shows what composing decided: passages that do not apply are folded, and the second look points at words. */
export function decorationsPlugin(editor: Editor): Plugin<Drawn> {
  return new Plugin<Drawn>({
    key,
    state: {
      init: (_config, state) => drawn(editor, state),
      apply(transaction, value, _old, state) {
        if (letterKey.getState(state) !== value.from) return drawn(editor, state);
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

function drawn(editor: Editor, state: EditorState): Drawn {
  const from = letterKey.getState(state);
  const found = from ? [...passages(editor, from, state.doc), ...findings(from, state.doc)] : [];
  return { from, set: DecorationSet.create(state.doc, found) };
}

function passages(editor: Editor, letter: LetterState, doc: PmNode): Decoration[] {
  return letter.slips.flatMap((slip) => slipPassages(editor, slip, letter, doc));
}

function slipPassages(editor: Editor, slip: PlacedSlip, letter: LetterState, doc: PmNode): Decoration[] {
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
    const words = refs.map((ref) => passageInWords(ref, decisions)).join(`, ${t("andWord")} `);
    if (stands(refs, decisions)) {
      if (!child.isInline)
        found.push(
          Decoration.node(from, to, { class: "passage-in", "data-hint": t("standsWords", { words }) }),
        );
      return true;
    }
    const open = letter.unfolded.has(key);
    const continued = lastFold?.key === key && lastFold.end === from;
    lastFold = { key, end: to };
    if (!continued) {
      const { isInline } = child;
      found.push(
        widget(
          editor,
          from,
          Fold,
          {
            words,
            open,
            isInline,
            inTable: parent?.type.name === "table",
            onFold: () => unfold(editor.view, key),
          },
          {
            as: tagIn(parent?.type.name, isInline),
            className: isInline ? "fold fold-inline" : "fold",
            key: `${key}${open ? " open" : ""} ${words}`,
          },
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
function passageInWords(ref: PassageRef, decisions: ReadonlyMap<string, Decision>): string {
  const decision = decisions.get(ref.id);
  if (!decision) return t("theirConditionIsGone");
  return ref.otherwise
    ? t("unlessWords", { words: decision.words })
    : t("whenWords", { words: decision.words });
}

/** The tag that something has among its neighbours. */
function tagIn(parent: string | undefined, isInline: boolean): string {
  if (isInline) return "span";
  if (parent === "table") return "tr";
  return parent === "bulletList" || parent === "orderedList" ? "li" : "div";
}

interface FoldProps {
  /** When what is folded stands. */
  words: string;
  /** Whether it is looked at all the same. */
  open: boolean;
  isInline: boolean;
  inTable: boolean;
  onFold: () => void;
}

/** One line for what is folded, saying why. */
function Fold({ words, open, isInline, inTable, onFold }: FoldProps) {
  const Sign = open ? ChevronDown : ChevronRight;
  const why = open || isInline ? t("leftOutStands", { words }) : t("foldedStands", { words });
  const button = (
    <Hint words={isInline ? why : open ? t("foldItAgain") : t("lookAtWhatIsLeftOut")}>
      <button
        type="button"
        tabIndex={-1}
        aria-expanded={open}
        aria-label={isInline ? why : undefined}
        onClick={onFold}
      >
        <Sign size={14} aria-hidden="true" className="inline align-[-2px]" /> {!isInline && why}
      </button>
    </Hint>
  );
  return inTable ? <td colSpan={20}>{button}</td> : button;
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
