import type { Editor } from "@tiptap/core";
import { useEffect, useLayoutEffect, useRef, type RefObject } from "react";
import type { SendCheck } from "#core/checks/check";
import { findingPosition } from "./editor/finding-position";
import { t } from "../words/answering";

const GAP = 10;

interface Props {
  checks: SendCheck[];
  editor: Editor | null;
  page: RefObject<HTMLDivElement | null>;
}

/** The second look: each note beside the words it is about, as far as there is room. */
export function Margin({ checks, editor, page }: Props) {
  const list = useRef<HTMLOListElement>(null);
  const again = useRef((): void => undefined);

  useLayoutEffect(() => {
    if (!list.current) return;
    const place = list.current;
    const lay = () => {
      const wide = window.matchMedia("(min-width: 1024px)").matches;
      const top = place.getBoundingClientRect().top;
      const notes = [...place.children].filter((child) => child instanceof HTMLElement);
      // Everything is measured before anything is moved: the page is laid out once, not for every note.
      const measured = notes.map((note, index) => {
        const range = wide && editor ? findingPosition(editor.view, index) : null;
        const wanted =
          range && editor
            ? editor.view.coordsAtPos(Math.min(range.from, editor.state.doc.content.size)).top - top
            : null;
        return { note, height: note.offsetHeight, wanted };
      });
      let free = 0;
      for (const [index, { note, height, wanted }] of measured.entries()) {
        const at = Math.max(free, wanted ?? free);
        const margin = wide ? `${Math.round(at - free + (index > 0 ? GAP : 0))}px` : "";
        if (note.style.marginTop !== margin) note.style.marginTop = margin;
        free = at + height + GAP;
      }
    };
    again.current = lay;
    lay();
  }, [checks, editor]);

  useEffect(() => {
    const watch = new ResizeObserver(() => again.current());
    if (page.current) watch.observe(page.current);
    return () => watch.disconnect();
  }, [page]);

  const stops = checks.filter((check) => check.severity === "stop").length;
  return (
    <aside aria-label={t("secondLook")} className="pt-2 lg:pt-10">
      <h2 className="text-sm font-bold">{t("secondLook")}</h2>
      <p className="sr-only" role="status">
        {stops > 0
          ? t("stopsStopSending", { count: stops })
          : checks.length > 0
            ? t("countWorthALook", { count: checks.length })
            : t("nothingToSeeTo")}
      </p>
      {checks.length === 0 && <p className="mt-1 text-sm text-soft">{t("nothingToSeeTo2")}</p>}
      <ol ref={list} className="mt-2">
        {checks.map((check, index) => (
          <li key={`${check.code}${check.at?.start ?? ""}${index}`}>
            <button
              type="button"
              disabled={editor === null}
              onClick={() => {
                const range = editor && findingPosition(editor.view, index);
                if (range) editor.chain().focus().setTextSelection(range).scrollIntoView().run();
              }}
              className={`block w-full border-l-[3px] pl-2.5 text-left text-[13px] leading-snug ${check.severity === "stop" ? "border-stop" : "border-look"}`}
            >
              <span
                className={`block text-xs font-bold ${check.severity === "stop" ? "text-stop" : "text-look"}`}
              >
                {check.severity === "stop" ? t("stopsSending") : t("worthALook")}
              </span>
              {check.message}
            </button>
          </li>
        ))}
      </ol>
    </aside>
  );
}
