import type { Editor } from "@tiptap/core";
import { useRef } from "react";
import { toggleLink } from "./editor/body";
import { useTransactions } from "./use-transactions";

interface Props {
  editor: Editor;
  onToken: () => void;
  onPicture: (file: File) => void;
}

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

const commands: (Command | "gap")[] = [
  {
    label: "bold",
    hint: "Bold (Ctrl B)",
    active: "bold",
    look: "font-bold",
    run: (e) => focused(e).toggleBold().run(),
  },
  {
    label: "italic",
    hint: "Italic (Ctrl I)",
    active: "italic",
    look: "italic",
    run: (e) => focused(e).toggleItalic().run(),
  },
  {
    label: "underline",
    hint: "Underline (Ctrl U)",
    active: "underline",
    look: "underline",
    run: (e) => focused(e).toggleUnderline().run(),
  },
  {
    label: "strike",
    hint: "Strike (Ctrl Shift S)",
    active: "strike",
    look: "line-through",
    run: (e) => focused(e).toggleStrike().run(),
  },
  {
    label: "mark",
    hint: "Highlight (Ctrl Shift H)",
    active: "highlight",
    run: (e) => focused(e).toggleHighlight().run(),
  },
  { label: "link", hint: "Link the selected words (Ctrl K)", active: "link", run: toggleLink },
  "gap",
  {
    label: "heading",
    hint: "Heading (Ctrl Alt 2)",
    active: "heading",
    run: (e) => focused(e).toggleHeading({ level: 2 }).run(),
  },
  {
    label: "list",
    hint: "List (Ctrl Shift 8)",
    active: "bulletList",
    run: (e) => focused(e).toggleBulletList().run(),
  },
  {
    label: "1. 2. 3.",
    hint: "Numbered list (Ctrl Shift 7)",
    active: "orderedList",
    run: (e) => focused(e).toggleOrderedList().run(),
  },
  {
    label: "quote",
    hint: "Quotation (Ctrl Shift B)",
    active: "blockquote",
    run: (e) => focused(e).toggleBlockquote().run(),
  },
  { label: "rule", hint: "A line across", run: (e) => focused(e).setHorizontalRule().run() },
  {
    label: "table",
    hint: "A table of three columns",
    active: "table",
    run: (e) => focused(e).insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run(),
  },
];

const history: Command[] = [
  { label: "undo", hint: "Undo (Ctrl Z)", run: (e) => focused(e).undo().run() },
  { label: "redo", hint: "Redo (Ctrl Shift Z)", run: (e) => focused(e).redo().run() },
];

/** Formatting by buttons that say what they do; each names its keys. */
export function Toolbar({ editor, onToken, onPicture }: Props) {
  useTransactions(editor);
  const input = useRef<HTMLInputElement>(null);
  return (
    <div
      role="toolbar"
      aria-label="Formatting"
      className="flex flex-wrap items-baseline gap-x-1 gap-y-1 text-sm"
    >
      <Tool label="{ value" hint="Insert a value or a blank ({)" look="font-semibold" onUse={onToken} />
      <Gap />
      {commands.map((command, index) =>
        command === "gap" ? (
          <Gap key={`gap ${index}`} />
        ) : (
          <Tool
            key={command.label}
            label={command.label}
            hint={command.hint}
            look={command.look}
            on={command.active !== undefined && editor.isActive(command.active)}
            onUse={() => command.run(editor)}
          />
        ),
      )}
      <Tool
        label="picture"
        hint="A picture from a file; pasting and dropping works too"
        onUse={() => input.current?.click()}
      />
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/gif,image/webp"
        aria-label="Picture file"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onPicture(file);
          event.target.value = "";
        }}
      />
      <Gap />
      {history.map((command) => (
        <Tool
          key={command.label}
          label={command.label}
          hint={command.hint}
          onUse={() => command.run(editor)}
        />
      ))}
    </div>
  );
}

function Tool({
  label,
  hint,
  look = "",
  on = false,
  onUse,
}: {
  label: string;
  hint: string;
  look?: string | undefined;
  on?: boolean;
  onUse: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      title={hint}
      onMouseDown={(event) => event.preventDefault()}
      onClick={onUse}
      className={`px-1.5 py-0.5 whitespace-nowrap ${on ? "bg-ink text-sheet" : "hover:bg-wash"} ${look}`}
    >
      {label}
    </button>
  );
}

function Gap() {
  return <span className="mx-1 self-stretch border-l border-line" />;
}
