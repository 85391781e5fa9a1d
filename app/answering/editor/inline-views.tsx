import { NodeViewWrapper, type NodeViewProps } from "@tiptap/react";
import { useMemo } from "react";
import { styleOf } from "#core/compose/compose";
import { fillBlank, fillToken } from "#core/compose/placeholder-words";
import { labelOf } from "#core/compose/passages";
import { placeholderText } from "#core/document/placeholder";
import { ownEntry } from "#core/tokens/own";
import { blankLabel } from "#core/tokens/blanks";
import { useChosen } from "../../ui/editor/use-chosen";
import { placeholderAttrs, placeholderNode } from "../../ui/editor/placeholder-node";
import { fromWhere, WordSource } from "../../ui/word-source";
import { BlankField } from "./blank-field";
import { setBlank } from "./fill";
import { slipAround, type LetterState } from "./letter-state";
import type { SlipAttrs } from "./slips";
import { useLetter } from "./use-letter";
import { t } from "../../words/answering";

/** The slip around a position as its node says it: the same as long as nothing of it but its words changes. */
function slipAt(letter: LetterState, position: number | undefined): SlipAttrs | null {
  const slip = position === undefined ? null : slipAround(letter, position);
  return slip ? (letter.doc.nodeAt(slip.position)?.attrs as SlipAttrs) : null;
}

/** A token in the answer: its value for this case, finely underlined; a struck box where there is none. */
function TokenView({ editor, node, getPos, selected }: NodeViewProps) {
  const inputs = useLetter(editor, (letter) => letter.inputs);
  const language = useLetter(editor, (letter) => slipAt(letter, getPos())?.language);
  const isChosen = useChosen(editor, selected);
  const attrs = useMemo(() => placeholderAttrs(node), [node]);
  const filled = useMemo(
    () =>
      inputs &&
      fillToken(
        { type: "token", attrs },
        {
          context: inputs.context,
          style: styleOf(inputs, language == null ? undefined : { language }),
          tokens: inputs.tokens,
        },
      ),
    [inputs, language, attrs],
  );
  if (!inputs || !filled) return <NodeViewWrapper as="span" />;
  const label = labelOf(attrs.name, { blanks: {} }, inputs.tokens);
  const why =
    filled.kind === "text"
      ? filled.fellBack
        ? t("thereIsNoValueThisStands")
        : fromWhere(attrs.name)
      : filled.kind === "missing"
        ? filled.why
        : filled.problem;
  return (
    <NodeViewWrapper as="span" style={INHERIT}>
      <WordSource name={label} words={why} open={isChosen || undefined}>
        <span className={filled.kind === "text" ? "token" : "missing"}>
          {filled.kind === "text" ? filled.text : label}
        </span>
      </WordSource>
    </NodeViewWrapper>
  );
}

/** A blank in the answer: filled where it stands. */
function BlankView({ editor, node, getPos }: NodeViewProps) {
  const inputs = useLetter(editor, (letter) => letter.inputs);
  const slip = useLetter(editor, (letter) => slipAt(letter, getPos()));
  const attrs = useMemo(() => placeholderAttrs(node), [node]);
  const given = slip && ownEntry(slip.values, attrs.name);
  const blank = slip && ownEntry(slip.blanks, attrs.name);
  const usual = useMemo(
    () =>
      inputs && slip
        ? fillBlank(
            { type: "blank", attrs },
            { context: inputs.context, style: styleOf(inputs, slip), slip: { ...slip, values: {} } },
          )
        : null,
    [inputs, slip, attrs],
  );
  if (!slip || !inputs) return <NodeViewWrapper as="span" />;
  if (!blank)
    return (
      <NodeViewWrapper as="span" style={INHERIT}>
        <WordSource name={t("thisReplyHasNoBlank", { name: attrs.name })} words={t("takeItOutOrWriteIt")}>
          <span className="missing">{placeholderText({ type: "blank", attrs })}</span>
        </WordSource>
      </NodeViewWrapper>
    );
  const fallback = usual?.kind === "text" ? usual.text : null;
  const isOpen = blank.required && given == null && fallback === null;
  return (
    <NodeViewWrapper as="span" style={INHERIT} className={`blank ${isOpen ? "open" : ""}`}>
      <BlankField
        name={attrs.name}
        blank={blank}
        value={given ?? null}
        placeholder={fallback ?? blankLabel(attrs.name, blank)}
        language={inputs.language}
        onFill={(value, goesOn) => setBlank(editor.view, slip.id, attrs.name, value, goesOn)}
      />
    </NodeViewWrapper>
  );
}

/** Words in a view break as those around them do. */
const INHERIT = { whiteSpace: "inherit" };

export const TokenInAnswer = placeholderNode("token", TokenView);
export const BlankInAnswer = placeholderNode("blank", BlankView, false);
