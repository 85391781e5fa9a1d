import type { Editor } from "@tiptap/core";
import { Redo2, Undo2 } from "lucide-react";
import { Toolbar as Radix } from "radix-ui";
import type { ReactNode } from "react";
import { Hint } from "../hint";
import { toggleLink } from "./link";
import { t } from "../../words/ui";

/** A formatting command: what its button says, its keys, where it is in force, and what it does. */
interface Command {
  label: string;
  hint: string;
  /** Name of the mark or node that is on at the cursor. */
  active?: string;
  run: (editor: Editor) => void;
  look?: string;
}

const focused = (editor: Editor) => editor.chain().focus();

/** What can be on or off at the cursor. */
const toggles = (): Command[][] => [
  [
    {
      label: t("bold"),
      hint: t("boldCtrlB"),
      active: "bold",
      look: "font-bold",
      run: (e) => focused(e).toggleBold().run(),
    },
    {
      label: t("italic"),
      hint: t("italicCtrlI"),
      active: "italic",
      look: "italic",
      run: (e) => focused(e).toggleItalic().run(),
    },
    {
      label: t("underline"),
      hint: t("underlineCtrlU"),
      active: "underline",
      look: "underline",
      run: (e) => focused(e).toggleUnderline().run(),
    },
    {
      label: t("strike"),
      hint: t("strikeCtrlShiftS"),
      active: "strike",
      look: "line-through",
      run: (e) => focused(e).toggleStrike().run(),
    },
    {
      label: t("mark"),
      hint: t("highlightCtrlShiftH"),
      active: "highlight",
      run: (e) => focused(e).toggleHighlight().run(),
    },
    { label: t("link"), hint: t("linkTheSelectedWordsCtrlK"), active: "link", run: toggleLink },
  ],
  [
    {
      label: t("heading"),
      hint: t("headingCtrlAlt2"),
      active: "heading",
      run: (e) => focused(e).toggleHeading({ level: 2 }).run(),
    },
    {
      label: t("list"),
      hint: t("listCtrlShift8"),
      active: "bulletList",
      run: (e) => focused(e).toggleBulletList().run(),
    },
    {
      label: "1. 2. 3.",
      hint: t("numberedListCtrlShift7"),
      active: "orderedList",
      run: (e) => focused(e).toggleOrderedList().run(),
    },
    {
      label: t("quote"),
      hint: t("quotationCtrlShiftB"),
      active: "blockquote",
      run: (e) => focused(e).toggleBlockquote().run(),
    },
  ],
];

/** What is put in at the cursor. */
const inserts = (): Command[] => [
  { label: t("rule"), hint: t("aLineAcross"), run: (e) => focused(e).setHorizontalRule().run() },
  {
    label: t("table2"),
    hint: t("aTableOfThreeColumns"),
    run: (e) => focused(e).insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run(),
  },
];

/** Buttons for what is on or off at the cursor, in a toolbar. */
export function Toggles({ editor }: { editor: Editor }) {
  return toggles().map((group, index) => (
    <Radix.ToggleGroup
      key={index}
      type="multiple"
      aria-label={index === 0 ? t("words") : t("paragraphs")}
      value={group.flatMap(({ label, active }) => (active && editor.isActive(active) ? [label] : []))}
      className="ml-1 flex border-l border-line pl-1 first:ml-0 first:border-0 first:pl-0"
    >
      {group.map(({ label, hint, look = "", run }) => (
        <Hint key={label} words={hint}>
          <Radix.ToggleItem
            value={label}
            onMouseDown={keepSelection}
            onClick={() => run(editor)}
            className={`${TOOL} aria-pressed:bg-ink aria-pressed:text-sheet ${look}`}
          >
            {label}
          </Radix.ToggleItem>
        </Hint>
      ))}
    </Radix.ToggleGroup>
  ));
}

/** Buttons for what is put in at the cursor. */
export function Inserts({ editor }: { editor: Editor }) {
  return inserts().map(({ label, hint, run }) => (
    <Tool key={label} label={label} hint={hint} onUse={() => run(editor)} />
  ));
}

/** Buttons that take back what was done, and do it again. */
export function UndoRedoTools({ editor }: { editor: Editor }) {
  return (
    <>
      <Tool
        label={t("undo")}
        hint={t("undoCtrlZ")}
        sign={<Undo2 size={16} aria-hidden="true" />}
        onUse={() => focused(editor).undo().run()}
      />
      <Tool
        label={t("redo")}
        hint={t("redoCtrlShiftZ")}
        sign={<Redo2 size={16} aria-hidden="true" />}
        onUse={() => focused(editor).redo().run()}
      />
    </>
  );
}

const TOOL = "min-h-7 px-1.5 whitespace-nowrap hover:bg-wash";

/** The words that are selected stay so: what a button does is done to them. */
function keepSelection(event: { preventDefault: () => void }): void {
  event.preventDefault();
}

/** One button of a toolbar. */
export function Tool({
  label,
  hint,
  sign,
  look = "",
  onUse,
}: {
  label: string;
  hint: string;
  /** Shown in place of the label, where it is read quicker. */
  sign?: ReactNode;
  look?: string;
  onUse: () => void;
}) {
  return (
    <Hint words={hint}>
      <Radix.Button
        {...(sign ? { "aria-label": label } : {})}
        onMouseDown={keepSelection}
        onClick={onUse}
        className={`${TOOL} ${look}`}
      >
        {sign ?? label}
      </Radix.Button>
    </Hint>
  );
}
