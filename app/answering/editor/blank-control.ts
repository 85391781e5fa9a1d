import { showText } from "../../ui/editor/show-text";
import { blankLabel, joinChoices, unfitness, type Blank, type BlankValue } from "#core/tokens/blanks";

/** A control by which a blank is filled: an element, and how to show a value in it. */
export interface BlankControl {
  element: HTMLElement;
  show(value: BlankValue | undefined, fallback: string | null, language: string): void;
}

type Fill = (value: BlankValue) => void;

/** The control for a blank's kind. @param fill called with each new value; null empties the blank */
export function blankControl(name: string, blank: Blank, fill: Fill): BlankControl {
  const control = make(name, blank, fill);
  const { element } = control;
  const field = element.matches("input, select, textarea, button")
    ? element
    : (element.querySelector<HTMLElement>("button") ?? element);
  field.setAttribute("aria-label", blankLabel(name, blank));
  if (blank.hint) field.setAttribute("title", blank.hint);
  if (blank.required) field.setAttribute("aria-required", "true");
  field.dataset.blankField = name;
  return control;
}

function make(name: string, blank: Blank, fill: Fill): BlankControl {
  switch (blank.kind) {
    case "choice":
      return blank.many
        ? choices(name, blank, fill)
        : select(
            blank,
            blankLabel(name, blank),
            blank.options.map((one) => [one, one]),
            fill,
            (text) => text,
          );
    case "yes_no":
      return select(
        blank,
        blankLabel(name, blank),
        [
          ["yes", "yes"],
          ["no", "no"],
        ],
        fill,
        (text) => text === "yes",
      );
    case "long_text":
      return typed(document.createElement("textarea"), name, blank, fill);
    default:
      return typed(document.createElement("input"), name, blank, fill);
  }
}

const inputType: Partial<Record<Blank["kind"], string>> = {
  date: "date",
  time: "time",
  number: "number",
  money: "number",
};

function typed(
  field: HTMLInputElement | HTMLTextAreaElement,
  name: string,
  blank: Blank,
  fill: Fill,
): BlankControl {
  field.className = "blank-field";
  field.placeholder = blankLabel(name, blank);
  field.spellcheck = true;
  if (field instanceof HTMLInputElement) {
    field.type = inputType[blank.kind] ?? "text";
    if (blank.kind === "money") field.step = "0.01";
    if (blank.kind === "number") field.step = String(blank.step ?? "any");
    if (
      (blank.kind === "number" || blank.kind === "money" || blank.kind === "date") &&
      blank.min !== undefined
    )
      field.min = String(blank.min);
    if (
      (blank.kind === "number" || blank.kind === "money" || blank.kind === "date") &&
      blank.max !== undefined
    )
      field.max = String(blank.max);
  } else {
    field.rows = 1;
  }
  field.addEventListener("input", () => {
    const value = read(blank, field.value);
    const problem = value === null ? null : unfitness(blank, value);
    field.setCustomValidity(problem ?? "");
    field.toggleAttribute("aria-invalid", problem !== null);
    fill(value);
  });
  return {
    element: field,
    show(value, fallback) {
      const hint = fallback ?? blankLabel(name, blank);
      if (field.placeholder !== hint) field.placeholder = hint;
      fit(field);
      const text = write(value);
      // What is being typed is not touched: “1.” must not become “1” under the hand.
      if (field === document.activeElement && read(blank, field.value) === (value ?? null)) return;
      if (field.value !== text) field.value = text;
      fit(field);
    },
  };
}

/** As wide as its words: for browsers without `field-sizing`. */
function fit(field: HTMLInputElement | HTMLTextAreaElement): void {
  if (field instanceof HTMLInputElement && (field.type === "text" || field.type === "number")) {
    const size = Math.max(4, Math.min(40, (field.value || field.placeholder).length + 1));
    if (field.size !== size) field.size = size;
  }
}

function read(blank: Blank, text: string): BlankValue {
  if (text.trim() === "") return null;
  return blank.kind === "number" || blank.kind === "money" ? Number(text) : text;
}

function write(value: BlankValue | undefined): string {
  if (value === undefined || value === null) return "";
  if (typeof value === "object" && "amount" in value) return String(value.amount);
  return Array.isArray(value) ? value.join(", ") : String(value);
}

function select(
  blank: Blank,
  label: string,
  options: [string, string][],
  fill: Fill,
  parse: (text: string) => BlankValue,
): BlankControl {
  const field = document.createElement("select");
  field.className = "blank-field";
  const empty = new Option(label, "");
  field.append(empty, ...options.map(([value, words]) => new Option(words, value)));
  field.addEventListener("change", () => fill(field.value === "" ? null : parse(field.value)));
  return {
    element: field,
    show(value, fallback) {
      showText(empty, fallback ?? label);
      const text = typeof value === "boolean" ? (value ? "yes" : "no") : write(value);
      if (field.value !== text) field.value = text;
      field.classList.toggle("empty", text === "" && blank.required);
    },
  };
}

/** Several choices: a button that says what is chosen, and the choices below while it has the focus. */
function choices(name: string, blank: Blank & { kind: "choice" }, fill: Fill): BlankControl {
  const element = document.createElement("span");
  element.className = "blank-choices";
  const button = document.createElement("button");
  button.type = "button";
  button.className = "blank-field";
  const list = document.createElement("span");
  list.className = "blank-list";
  list.setAttribute("role", "group");
  list.setAttribute("aria-label", blankLabel(name, blank));
  const boxes = blank.options.map((option) => {
    const label = document.createElement("label");
    const box = document.createElement("input");
    box.type = "checkbox";
    box.value = option;
    label.append(box, ` ${option}`);
    list.append(label);
    return box;
  });
  element.append(button, list);
  const chosen = () => boxes.filter((box) => box.checked).map((box) => box.value);
  list.addEventListener("change", () => fill(chosen().length > 0 ? chosen() : null));
  button.addEventListener("click", () => boxes[0]?.focus());
  element.addEventListener("keydown", (event) => {
    const at = boxes.indexOf(event.target as HTMLInputElement);
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    boxes[Math.max(0, Math.min(boxes.length - 1, at + step))]?.focus();
  });
  return {
    element,
    show(value, fallback, language) {
      const list = Array.isArray(value) ? value : [];
      for (const box of boxes) box.checked = list.includes(box.value);
      const words = list.length > 0 ? joinChoices(list, blank, language) : null;
      showText(button, words ?? fallback ?? blankLabel(name, blank));
      button.classList.toggle("empty", list.length === 0);
    },
  };
}
