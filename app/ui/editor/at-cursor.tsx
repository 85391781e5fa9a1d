import { getMarkRange, type Editor } from "@tiptap/core";
import { useState } from "react";
import { safeHref } from "#core/document/links";
import { FRESH } from "./link";
import { useFieldKeys } from "../use-field-keys";
import { t } from "../../words/ui";

/** Where the link at the cursor leads to. @param hint what may stand in the address, after what an address is */
export function LinkFields({ editor, hint = "" }: { editor: Editor; hint?: string }) {
  const [href, setHref] = useState(String(editor.getAttributes("link").href));
  const filled = href.replace(/\{[^{}]*\}/g, "x");
  const fine = safeHref(filled) !== null && !/^https?:\/\/\/?$/.test(filled);
  /** Keeps the address, and leaves the cursor where it is. @returns where the link ends; null where none is kept */
  const keep = (): number | null => {
    const { state, view } = editor;
    const type = state.schema.marks.link;
    const range = type && getMarkRange(state.selection.$from, type);
    if (!fine || !type || !range) return null;
    if (editor.getAttributes("link").href !== href.trim())
      view.dispatch(state.tr.addMark(range.from, range.to, type.create({ href: href.trim() })));
    return range.to;
  };
  const field = useFieldKeys({
    keep: () => {
      const end = keep();
      if (end === null) return;
      // Writing goes on behind the link, at once: the command would wait for the next picture.
      editor.commands.setTextSelection(end);
      editor.view.focus();
    },
  });
  return (
    <>
      <label className="flex items-center gap-2">
        {t("leadsTo")}
        <input
          ref={field}
          className="lined-field w-80"
          value={href}
          // A link that was just begun waits for its address.
          autoFocus={href === FRESH}
          aria-invalid={!fine}
          maxLength={2000}
          spellCheck={false}
          onChange={(event) => setHref(event.target.value)}
          onBlur={keep}
        />
      </label>
      {!fine && (
        <span className="text-stop">
          {t("writeAnAddressAsInHttps")}
          {hint}
        </span>
      )}
      <button
        type="button"
        className="quiet-link"
        onClick={() => editor.chain().focus().extendMarkRange("link").unsetMark("link").run()}
      >
        {t("removeLink")}
      </button>
    </>
  );
}

/** Changes what is chosen, which stays chosen: a node with other attributes is another to the editor. */
export function changeChosen(editor: Editor, kind: string, attrs: Record<string, unknown>): void {
  editor.chain().updateAttributes(kind, attrs).setNodeSelection(editor.state.selection.from).run();
}

/** What the chosen picture shows, and how wide. */
export function PictureFields({ editor }: { editor: Editor }) {
  const { alt, width } = editor.getAttributes("image") as { alt: string; width: number | null };
  return (
    <>
      <label className="flex grow items-center gap-2">
        {t("itShows")}
        <input
          className="lined-field w-72"
          value={alt}
          maxLength={1000}
          placeholder={t("forThoseWhoDoNotSee")}
          onChange={(event) => changeChosen(editor, "image", { alt: event.target.value })}
        />
      </label>
      {alt.trim() === "" && <span className="text-look">{t("sayWhatThePictureShows")}</span>}
      <label className="flex items-center gap-2">
        {t("width")}
        <input
          type="number"
          min={16}
          max={1200}
          step={10}
          placeholder={t("asItIs")}
          className="lined-field w-20"
          value={width ?? ""}
          onChange={(event) => {
            const next = event.target.value === "" ? null : Math.round(Number(event.target.value));
            if (next === null || (next >= 1 && next <= 2000)) changeChosen(editor, "image", { width: next });
          }}
        />
      </label>
    </>
  );
}

/** What can be done with the table at the cursor. */
export function TableTools({ editor }: { editor: Editor }) {
  const chain = () => editor.chain().focus();
  const tools: [string, () => void][] = [
    [t("rowAbove"), () => chain().addRowBefore().run()],
    [t("rowBelow"), () => chain().addRowAfter().run()],
    [t("removeRow"), () => chain().deleteRow().run()],
    [t("columnBefore"), () => chain().addColumnBefore().run()],
    [t("columnAfter"), () => chain().addColumnAfter().run()],
    [t("removeColumn"), () => chain().deleteColumn().run()],
    [t("headingRow"), () => chain().toggleHeaderRow().run()],
    [t("joinOrSplitCells"), () => chain().mergeOrSplit().run()],
    [t("removeTable"), () => chain().deleteTable().run()],
  ];
  return (
    <span role="group" aria-label={t("table")} className="flex flex-wrap gap-x-3">
      {tools.map(([label, run]) => (
        <button
          key={label}
          type="button"
          className="underline decoration-line underline-offset-2 hover:decoration-ink"
          onMouseDown={(event) => event.preventDefault()}
          onClick={run}
        >
          {label}
        </button>
      ))}
    </span>
  );
}
