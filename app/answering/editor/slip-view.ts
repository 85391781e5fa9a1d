import { Node } from "@tiptap/core";
import type { Node as PmNode } from "@tiptap/pm/model";
import { closeHistory } from "@tiptap/pm/history";
import type { EditorView, NodeView } from "@tiptap/pm/view";
import { askedBlanks } from "#core/compose/unanswered";
import { placeholdersOf } from "#core/document/walk";
import { ownEntry } from "#core/tokens/own";
import { blankLabel } from "#core/tokens/blanks";
import { blankControl, type BlankControl } from "./blank-control";
import { showText } from "../../ui/editor/show-text";
import { setBlank } from "./inline-views";
import { letterKey, onLetter } from "./letter-state";
import { moveSlip } from "./move-slip";
import { ownWords, slipJson, slipsOf, type SlipAttrs } from "./slips";

/** What a dragged slip carries: its id. */
const SLIP_TYPE = "application/x-plain-shelf-slip";

/** A slip in the stack: its words, what it is called, and the blanks that only steer its passages. */
class SlipView implements NodeView {
  readonly dom = document.createElement("section");
  readonly contentDOM = document.createElement("div");
  readonly #view: EditorView;
  readonly #title = document.createElement("span");
  readonly #newer = document.createElement("span");
  readonly #steering = document.createElement("div");
  readonly #controls = new Map<string, BlankControl>();
  readonly #rows = new Map<string, HTMLElement>();
  readonly #stop: () => void;
  #node: PmNode;

  constructor(node: PmNode, view: EditorView) {
    this.#node = node;
    this.#view = view;
    this.dom.className = "slip";
    const head = document.createElement("div");
    head.className = "slip-head";
    head.contentEditable = "false";
    const drop = document.createElement("button");
    drop.type = "button";
    drop.textContent = "drop";
    drop.addEventListener("click", () => dropSlip(view, this.#attrs.id));
    head.append(this.#newer, this.#title, drop);
    // Dragged by its head onto another slip, it takes that one's place.
    head.draggable = true;
    head.title = "Drag to move, or Alt Shift ↑ ↓";
    head.addEventListener("dragstart", (event) => event.dataTransfer?.setData(SLIP_TYPE, this.#attrs.id));
    this.dom.addEventListener("dragover", (event) => {
      if (event.dataTransfer?.types.includes(SLIP_TYPE)) event.preventDefault();
    });
    this.dom.addEventListener("drop", (event) => this.#drop(event));
    this.#newer.className = "slip-newer";
    this.#steering.className = "slip-steering";
    this.#steering.contentEditable = "false";
    this.dom.append(head, this.#steering, this.contentDOM);
    this.#stop = onLetter(view, () => this.#show());
    this.#show();
  }

  get #attrs(): SlipAttrs {
    return this.#node.attrs as SlipAttrs;
  }

  update(node: PmNode): boolean {
    if (node.type !== this.#node.type || (node.attrs as SlipAttrs).id !== this.#attrs.id) return false;
    this.#node = node;
    this.#show();
    return true;
  }

  destroy(): void {
    this.#stop();
  }

  ignoreMutation(mutation: { target: globalThis.Node }): boolean {
    return !this.contentDOM.contains(mutation.target);
  }

  stopEvent(event: Event): boolean {
    return event.target instanceof HTMLElement && !this.contentDOM.contains(event.target);
  }

  #drop(event: DragEvent): void {
    const dragged = event.dataTransfer?.getData(SLIP_TYPE);
    if (!dragged) return;
    event.preventDefault();
    event.stopPropagation();
    const to = slipsOf(this.#view.state.doc).findIndex((slip) => slip.id === this.#attrs.id);
    const move = moveSlip(this.#view.state, dragged, to);
    if (move) this.#view.dispatch(move);
  }

  #show(): void {
    const attrs = this.#attrs;
    this.dom.dataset.part = attrs.part;
    this.dom.setAttribute("aria-label", attrs.title);
    const title = attrs.title.toLowerCase();
    showText(this.#title, attrs.part === "answer" ? title : `${attrs.part}: ${title}`);
    const newer =
      attrs.currentNumber !== null &&
      attrs.versionNumber !== null &&
      attrs.currentNumber > attrs.versionNumber;
    showText(this.#newer, newer ? "a newer version is on the shelf" : "");
    this.#showSteering();
  }

  /** Blanks that stand nowhere in the words are asked for above them. */
  #showSteering(): void {
    const letter = letterKey.getState(this.#view.state);
    if (!letter) return;
    const { slips, inputs, checks } = letter;
    const slip = slips.find((one) => one.id === this.#attrs.id);
    if (!slip) return;
    const inWords = new Set(
      placeholdersOf(slip.document).flatMap((node) => (node.type === "blank" ? [node.attrs.name] : [])),
    );
    const asked = askedBlanks(slip);
    // A blank whose words were dropped, and on which nothing depends, is not asked for any more.
    for (const [name, row] of this.#rows) row.hidden = inWords.has(name) || !asked.has(name);
    for (const [name, blank] of Object.entries(slip.blanks)) {
      if (inWords.has(name) || !asked.has(name)) continue;
      let control = this.#controls.get(name);
      if (!control) {
        control = blankControl(name, blank, (value) => setBlank(this.#view, slip.id, name, value));
        this.#controls.set(name, control);
        const row = document.createElement("span");
        this.#rows.set(name, row);
        row.className = "blank steering";
        row.append(`${blankLabel(name, blank)} `, control.element);
        this.#steering.append(row);
      }
      control.show(ownEntry(slip.values, name), null, inputs.language);
      const open = checks.some((check) => check.blank?.slip === slip.id && check.blank.name === name);
      this.#rows.get(name)?.classList.toggle("open", open);
    }
    this.#steering.hidden = [...this.#rows.values()].every((row) => row.hidden);
  }
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
    tr.replaceWith(slip.position, end, schema.nodeFromJSON(slipJson(ownWords(slip.language))));
  else tr.delete(slip.position, end);
  view.dispatch(tr);
  view.focus();
}

/** Attributes of a slip: they live in the editor's document, so that undo covers takes and blanks too. */
const attributes: Record<keyof SlipAttrs, unknown> = {
  id: "",
  versionId: null,
  reply: null,
  title: "",
  part: "answer",
  language: "en",
  blanks: {},
  passages: {},
  values: {},
  subject: null,
  attachments: [],
  versionNumber: null,
  currentNumber: null,
};

export const Answer = Node.create({ name: "doc", topNode: true, content: "slip+" });

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
  addNodeView:
    () =>
    ({ node, view }) =>
      new SlipView(node, view),
});
