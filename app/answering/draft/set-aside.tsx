import type { Editor } from "@tiptap/core";
import { answerAttrs, attrsStep } from "../editor/answer-attrs";
import type { LetterState } from "../editor/letter-state";
import { t } from "../../words/answering";

const NONE: string[] = [];

/** Words that the agent had written into a reply that was swapped since: to insert where the cursor is, or to remove. */
export function SetAside({ editor, letter }: { editor: Editor | null; letter: LetterState | null }) {
  const words = letter ? answerAttrs(letter.doc).setAside : NONE;
  if (!editor || words.length === 0) return null;
  const without = (index: number) => words.filter((_, at) => at !== index);
  return (
    <section aria-label={t("setAside")} className="mt-3 border-t border-dashed border-line pt-2 text-sm">
      <p className="text-soft">{t("yourChangesToTheReplyBefore")}</p>
      <ul>
        {words.map((one, index) => (
          <li key={index} className="mt-1.5 flex items-baseline gap-3">
            <span className="min-w-0 grow font-serif [overflow-wrap:anywhere]">{one}</span>
            <button
              type="button"
              className="quiet-link shrink-0"
              onClick={() =>
                editor
                  .chain()
                  .focus()
                  .command(({ tr }) => {
                    attrsStep(tr, { setAside: without(index) });
                    return true;
                  })
                  .insertContent({ type: "text", text: one })
                  .run()
              }
            >
              {t("insert")}
            </button>
            <button
              type="button"
              className="quiet-link shrink-0"
              onClick={() => {
                const { state, view } = editor;
                view.dispatch(attrsStep(state.tr, { setAside: without(index) }));
                view.focus();
              }}
            >
              {t("remove")}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
