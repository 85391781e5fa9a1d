import type { Node as PmNode } from "@tiptap/pm/model";
import type { Editor } from "@tiptap/core";
import { Plugin, type EditorState } from "@tiptap/pm/state";
import { Decoration, DecorationSet } from "@tiptap/pm/view";
import { inWords } from "#core/conditions/in-words";
import type { PassageRef } from "#core/document/definition";
import { labelOf } from "#core/compose/passages";
import { widget } from "../../ui/editor/widget";
import { definitionsOf, type Definitions } from "./definitions";
import { t } from "../../words/writing";

/** When words stand, as the margin says it: `when vehicle is known`. */
export function whenWords(refs: PassageRef[], definitions: Definitions): string {
  return refs
    .map((ref) => {
      const passage = definitions.passages[ref.id];
      if (!passage) return t("theirConditionIsGone");
      const words = inWords(passage.when, (name) =>
        labelOf(name, { blanks: definitions.blanks }, definitions.tokens),
      );
      return ref.otherwise ? t("otherwiseThanWhen", { words }) : t("whenWords", { words });
    })
    .join(`, ${t("andWord")} `);
}

/** The passages that a node of the editor names itself. */
export function refsOf(node: PmNode): PassageRef[] {
  if (node.isInline)
    return node.marks.flatMap((mark) =>
      mark.type.name === "passage" ? (mark.attrs.passages as PassageRef[]) : [],
    );
  return (node.attrs.passages as PassageRef[] | undefined) ?? [];
}

/** Brackets passages, with their conditions in the margin, and underlines what the checks found. */
export function bracketsPlugin(editor: Editor): Plugin {
  let drawn: { doc: PmNode; definitions: Definitions; set: DecorationSet } | null = null;
  return new Plugin({
    props: {
      decorations(state) {
        const definitions = definitionsOf(state);
        if (!definitions) return null;
        if (drawn?.doc !== state.doc || drawn.definitions !== definitions)
          drawn = { doc: state.doc, definitions, set: decorations(editor, state, definitions) };
        return drawn.set;
      },
    },
  });
}

function decorations(editor: Editor, state: EditorState, definitions: Definitions): DecorationSet {
  const found: Decoration[] = [];
  let last: { key: string; end: number } | null = null;
  state.doc.descendants((node, from) => {
    const refs = refsOf(node);
    if (refs.length === 0) return true;
    const to = from + node.nodeSize;
    const key = `${node.isInline ? "words " : ""}${JSON.stringify(refs)}`;
    const words = whenWords(refs, definitions);
    const continued = last?.key === key && last.end === from;
    last = { key, end: to };
    if (node.isInline) {
      found.push(
        Decoration.inline(from, to, { class: "words-passage", "data-hint": t("standsWords", { words }) }),
      );
      if (!continued)
        found.push(
          widget(editor, from, When, { words }, { as: "span", className: "words-when", key: words }),
        );
    } else {
      found.push(
        Decoration.node(from, to, {
          class: `block-passage${continued ? " block-continued" : ""}`,
          "data-hint": t("standsWords", { words }),
        }),
      );
      if (!continued) {
        const inside = firstTextblock(node, from);
        found.push(
          widget(
            editor,
            inside,
            When,
            { words },
            { as: "span", className: "margin-when", key: `margin ${words}` },
          ),
        );
      }
    }
    return true;
  });
  for (const { at, severity, message } of definitions.findings) {
    if (at?.in !== "body") continue;
    const to = Math.min(at.to, state.doc.content.size);
    if (at.from < to)
      found.push(Decoration.inline(at.from, to, { class: `writer-${severity}`, "data-hint": message }));
  }
  return DecorationSet.create(state.doc, found);
}

/** Where the first words of a block begin: its margin note stands beside them. */
function firstTextblock(node: PmNode, from: number): number {
  let place = from + 1;
  let inner: PmNode | null = node;
  while (inner && !inner.isTextblock && inner.firstChild) {
    place += 1;
    inner = inner.firstChild;
  }
  return inner?.isTextblock ? place : from + 1;
}

/** When the words beside it stand. */
function When({ words }: { words: string }) {
  return words;
}
