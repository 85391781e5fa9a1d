import { Node } from "@tiptap/core";
import { closeHistory } from "@tiptap/pm/history";
import type { EditorView } from "@tiptap/pm/view";
import {
  NodeViewContent,
  NodeViewWrapper,
  ReactNodeViewRenderer,
  useEditorState,
  type NodeViewProps,
} from "@tiptap/react";
import { askedBlanks } from "#core/compose/unanswered";
import { placeholdersOf } from "#core/document/walk";
import { ownEntry } from "#core/tokens/own";
import { blankLabel } from "#core/tokens/blanks";
import { untouchedAttrs } from "./answer-attrs";
import { BlankField } from "./blank-field";
import { setBlank } from "./fill";
import { letterKey, type LetterState } from "./letter-state";
import { ownWordsSlip, slipJson, slipsOf, type SlipAttrs } from "./slips";
import { useStackParts } from "./stack-parts";
import { useLetter } from "./use-letter";
import { t } from "../../words/answering";

/** A slip in the stack: its words, what it is called, and the blanks that only steer its passages. */
function SlipView({ editor, node }: NodeViewProps) {
  const attrs = node.attrs as SlipAttrs;
  const { id, part, title } = attrs;
  const isAlone = useLetter(editor, ({ slips }) => slips.length < 2) ?? true;
  const name = part === "answer" ? title.toLowerCase() : `${part}: ${title.toLowerCase()}`;
  const { useSorted } = useStackParts();
  const { placed, handle } = useSorted(id, title);
  const newer =
    attrs.currentNumber !== null && attrs.versionNumber !== null && attrs.currentNumber > attrs.versionNumber;
  return (
    <NodeViewWrapper
      {...placed}
      as="section"
      className="slip"
      data-slip={id}
      data-part={part}
      aria-label={title}
    >
      <div className="slip-head" contentEditable={false}>
        {newer && <span className="slip-newer">{t("aNewerVersionIsOnThe")}</span>}
        <span>{name}</span>
        <button type="button" className="slip-drop" onClick={() => dropSlip(editor.view, id)}>
          {t("remove")}
        </button>
        {!isAlone && handle}
      </div>
      <Steering editor={editor} attrs={attrs} />
      <NodeViewContent style={{ whiteSpace: "inherit" }} />
    </NodeViewWrapper>
  );
}

/** Blanks that stand nowhere in the words are asked for above them. */
function Steering({ editor, attrs }: Pick<NodeViewProps, "editor"> & { attrs: SlipAttrs }) {
  // The same as long as it says the same, however often the letter is composed.
  const asked = useEditorState({
    editor,
    selector: ({ editor: one }) => {
      const letter = letterKey.getState(one.state);
      return letter ? steeringOf(letter, attrs.id) : [];
    },
  });
  const language = useLetter(editor, ({ inputs }) => inputs.language);
  if (asked.length === 0 || language === null) return null;
  return (
    <div className="slip-steering" contentEditable={false}>
      {asked.map(({ name, open }) => {
        const blank = ownEntry(attrs.blanks, name);
        return (
          blank && (
            <span key={name} className={`blank steering ${open ? "open" : ""}`}>
              {blankLabel(name, blank)}{" "}
              <BlankField
                name={name}
                blank={blank}
                value={ownEntry(attrs.values, name) ?? null}
                placeholder={t("notAnswered")}
                language={language}
                onFill={(value, goesOn) => setBlank(editor.view, attrs.id, name, value, goesOn)}
              />
            </span>
          )
        );
      })}
    </div>
  );
}

/** Blanks that are asked for and stand nowhere, and whether they must still be answered. */
function steeringOf({ slips, checks }: LetterState, id: string): { name: string; open: boolean }[] {
  const slip = slips.find((one) => one.id === id);
  if (!slip) return [];
  const inWords = new Set(
    placeholdersOf(slip.document).flatMap((node) => (node.type === "blank" ? [node.attrs.name] : [])),
  );
  // A blank whose words were dropped, and on which nothing depends, is not asked for any more.
  const asked = askedBlanks(slip);
  return Object.keys(slip.blanks)
    .filter((name) => !inWords.has(name) && asked.has(name))
    .map((name) => ({
      name,
      open: checks.some((check) => check.blank?.slip === id && check.blank.name === name),
    }));
}

/** Takes a slip off the stack; where none is left, room for the agent's own words stays. */
export function dropSlip(view: EditorView, id: string): void {
  const slips = slipsOf(view.state.doc);
  const slip = slips.find((one) => one.id === id);
  if (!slip) return;
  const node = view.state.doc.nodeAt(slip.position);
  if (!node) return;
  const { schema } = view.state;
  const tr = closeHistory(view.state.tr);
  const end = slip.position + node.nodeSize;
  if (slips.length === 1)
    tr.replaceWith(slip.position, end, schema.nodeFromJSON(slipJson(ownWordsSlip(slip.language))));
  else tr.delete(slip.position, end);
  view.dispatch(tr);
  view.focus();
}

/** Attributes of a slip: they live in the editor's document, so that undo covers takes and blanks too. */
const { document: _words, ...attributes } = { ...ownWordsSlip("en", ""), title: "" };

export const Answer = Node.create({
  name: "doc",
  topNode: true,
  content: "slip+",
  addAttributes: () =>
    Object.fromEntries(
      Object.entries(untouchedAttrs).map(([name, usual]) => [
        name,
        { default: usual as unknown, rendered: false },
      ]),
    ),
});

export const SlipInAnswer = Node.create({
  name: "slip",
  content: "block+",
  isolating: true,
  defining: true,
  selectable: false,
  addAttributes: () =>
    Object.fromEntries(
      Object.entries(attributes).map(([name, usual]) => [name, { default: usual, rendered: false }]),
    ),
  parseHTML: () => [{ tag: "section[data-slip]" }],
  renderHTML: () => ["section", { "data-slip": "" }, 0],
  addNodeView: () =>
    ReactNodeViewRenderer(SlipView, {
      // Its words are the editor's to draw: it is drawn anew where something else of it changes.
      update: ({ oldNode, newNode, updateProps }) => {
        if (oldNode.type !== newNode.type || oldNode.attrs.id !== newNode.attrs.id) return false;
        if (oldNode.attrs !== newNode.attrs) updateProps();
        return true;
      },
    }),
});
