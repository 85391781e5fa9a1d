import type { Editor } from "@tiptap/core";
import { listed } from "#core/text/counted";
import { useSmsLength } from "./use-sms-length";
import { Disclosure } from "../../ui/disclosure";
import type { LetterState } from "../editor/letter-state";
import { plainWords } from "../editor/plain-words";
import { t } from "../../words/answering";

interface Props {
  channel: string;
  editor: Editor | null;
  letter: LetterState;
}

/** How a letter reads where nothing can be formatted, and what it costs as a short message. */
export function PlainLine({ channel, editor, letter }: Props) {
  const { text } = letter.letter;
  return (
    <section aria-label={t("asItGoesOut")} className="mt-3 text-sm text-soft">
      {channel === "sms" && text !== "" && <Length text={text} editor={editor} />}
      <Disclosure words={<span className="font-normal">{t("asItGoesOut")}</span>} className="mt-1">
        <p className="mt-1 border-l border-line pl-3 font-serif whitespace-pre-wrap text-ink [overflow-wrap:anywhere]">
          {text}
        </p>
      </Disclosure>
    </section>
  );
}

function Length({ text, editor }: { text: string; editor: Editor | null }) {
  const tools = useSmsLength(true);
  if (!tools) return null;
  const { segments, plainerSegments, forcing } = tools.smsLength(text);
  const replaceable = forcing.filter(({ replacement }) => replacement !== null);
  const characters = listed(forcing.slice(0, 6).map(({ character }) => `“${character}”`));
  return (
    <p className="flex flex-wrap items-baseline gap-x-3" role="status">
      <span>{t("goesAsCountMessages", { count: segments })}</span>
      {forcing.length > 0 && (
        <span className="text-look">
          {t("charactersMakeItLonger", { characters, count: forcing.length })}
        </span>
      )}
      {replaceable.length > 0 && editor && (
        <button
          type="button"
          className="quiet-link"
          onClick={() => {
            plainWords(editor, tools.plainerCharacter);
            editor.view.focus();
          }}
        >
          {plainerSegments < segments
            ? t("writeThemPlainlyCount", { count: plainerSegments })
            : t("writeThemPlainly")}
        </button>
      )}
    </p>
  );
}
