import { Node } from "@tiptap/core";
import type { Node as PmNode } from "@tiptap/pm/model";
import type { EditorView, NodeView } from "@tiptap/pm/view";
import { styleOf } from "#core/compose/compose";
import { fillBlank, fillToken } from "#core/compose/fill";
import { labelOf } from "#core/compose/passages";
import { placeholderText } from "#core/document/placeholder";
import type { BlankNode, PlaceholderAttrs, TokenNode } from "#core/document/types";
import { ownEntry } from "#core/tokens/own";
import type { BlankValue } from "#core/tokens/blanks";
import { blankControl, type BlankControl } from "./blank-control";
import { letterKey, letterState, onLetter, slipAround, type LetterInputs } from "./letter-state";
import { definedNode } from "../../ui/editor/schema";

type GetPosition = () => number | undefined;

function attrsOf(node: PmNode): PlaceholderAttrs {
  const { name, fn, options } = node.attrs as PlaceholderAttrs;
  return { name, fn, options };
}

/** A token in the answer: its value for this case, finely underlined; a struck box where there is none. */
class TokenView implements NodeView {
  readonly dom = document.createElement("span");
  readonly #view: EditorView;
  readonly #position: GetPosition;
  readonly #stop: () => void;
  #node: PmNode;
  /** What the value that is shown was made of. */
  #shown: { node: PmNode; inputs: LetterInputs; language: string | undefined } | null = null;

  constructor(node: PmNode, view: EditorView, position: GetPosition) {
    this.#node = node;
    this.#view = view;
    this.#position = position;
    this.#stop = onLetter(view, () => this.#show());
    this.#show();
  }

  update(node: PmNode): boolean {
    if (node.type !== this.#node.type) return false;
    this.#node = node;
    this.#show();
    return true;
  }

  destroy(): void {
    this.#stop();
  }

  ignoreMutation(): boolean {
    return true;
  }

  #show(): void {
    const letter = letterKey.getState(this.#view.state);
    if (!letter) return;
    const { inputs } = letter;
    const at = this.#position();
    const slip = at === undefined ? undefined : (slipAround(letter, at) ?? undefined);
    // With most keys neither the case nor the token changes.
    const shown = { node: this.#node, inputs, language: slip?.language };
    if (
      this.#shown?.node === shown.node &&
      this.#shown.inputs === shown.inputs &&
      this.#shown.language === shown.language
    )
      return;
    this.#shown = shown;
    const token: TokenNode = { type: "token", attrs: attrsOf(this.#node) };
    const filled = fillToken(token, {
      context: inputs.context,
      style: styleOf(inputs, slip),
      tokens: inputs.tokens,
    });
    const label = labelOf(token.attrs.name, { blanks: {} }, inputs.tokens);
    const missing = filled.kind !== "text";
    this.dom.className = missing ? "missing" : "token";
    this.dom.textContent = missing ? label : filled.text;
    this.dom.title = missing
      ? `${label}: ${filled.kind === "missing" ? filled.why : filled.problem}`
      : `${label}${filled.fellBack ? " (there is no value; this stands for it)" : ""}`;
  }
}

/** A blank in the answer: filled where it stands. */
class BlankView implements NodeView {
  readonly dom = document.createElement("span");
  readonly #view: EditorView;
  readonly #position: GetPosition;
  readonly #stop: () => void;
  #node: PmNode;
  #control: BlankControl | null = null;

  constructor(node: PmNode, view: EditorView, position: GetPosition) {
    this.#node = node;
    this.#view = view;
    this.#position = position;
    this.dom.className = "blank";
    this.dom.contentEditable = "false";
    this.#stop = onLetter(view, () => this.#show());
    this.#show();
  }

  update(node: PmNode): boolean {
    if (node.type !== this.#node.type || node.attrs.name !== this.#node.attrs.name) return false;
    this.#node = node;
    this.#show();
    return true;
  }

  destroy(): void {
    this.#stop();
  }

  ignoreMutation(): boolean {
    return true;
  }

  stopEvent(event: Event): boolean {
    return (
      event.target instanceof HTMLElement &&
      event.target.closest("input, select, textarea, button, label") !== null
    );
  }

  #show(): void {
    const { state } = this.#view;
    const at = this.#position();
    const letter = letterKey.getState(state);
    const slip = at === undefined || !letter ? null : slipAround(letter, at);
    if (!slip || !letter) return;
    const attrs = attrsOf(this.#node);
    const blank = ownEntry(slip.blanks, attrs.name);
    if (!blank) {
      this.dom.className = "missing";
      this.dom.textContent = placeholderText({ type: "blank", attrs });
      this.dom.title = `This reply has no blank “${attrs.name}”`;
      return;
    }
    if (!this.#control) {
      this.#control = blankControl(attrs.name, blank, (value) =>
        setBlank(this.#view, slip.id, attrs.name, value),
      );
      this.dom.replaceChildren(this.#control.element);
    }
    const { inputs } = letter;
    const given = ownEntry(slip.values, attrs.name);
    const node: BlankNode = { type: "blank", attrs };
    const usual =
      given === undefined || given === null
        ? fillBlank(node, { context: inputs.context, style: styleOf(inputs, slip), slip })
        : null;
    const fallback = usual?.kind === "text" ? usual.text : null;
    this.#control.show(given, fallback, inputs.language);
    const open = blank.required && (given === undefined || given === null) && fallback === null;
    this.dom.classList.toggle("open", open);
  }
}

/** Fills a blank of a slip, wherever it stands; undoable like any edit. */
export function setBlank(view: EditorView, slipId: string, name: string, value: BlankValue): void {
  const slip = letterState(view.state).slips.find((one) => one.id === slipId);
  if (!slip) return;
  const { [name]: _old, ...others } = slip.values;
  view.dispatch(
    view.state.tr.setNodeAttribute(
      slip.position,
      "values",
      value === null ? others : { ...others, [name]: value },
    ),
  );
}

export const TokenInAnswer = Node.create({
  ...definedNode("token"),
  atom: true,
  parseHTML: () => [{ tag: "span[data-token]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", { ...HTMLAttributes, "data-token": "" }],
  addNodeView:
    () =>
    ({ node, view, getPos }) =>
      new TokenView(node, view, getPos),
});

export const BlankInAnswer = Node.create({
  ...definedNode("blank"),
  atom: true,
  selectable: false,
  parseHTML: () => [{ tag: "span[data-blank]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", { ...HTMLAttributes, "data-blank": "" }],
  addNodeView:
    () =>
    ({ node, view, getPos }) =>
      new BlankView(node, view, getPos),
});
