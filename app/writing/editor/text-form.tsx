import { useEffect, useRef, useState } from "react";
import type { Doc } from "#core/document/types";
import { readMarkdown, type MarkdownProblem } from "#core/formats/markdown";
import { writeMarkdown } from "#core/formats/markdown-write";
import { t } from "../../words/writing";

/** The words as Markdown beside the page: what is typed in one shows in the other. Errors say their line and column. */
export default function TextForm({ doc, onChange }: { doc: Doc; onChange: (doc: Doc) => void }) {
  const written = writeMarkdown(doc);
  const [text, setText] = useState(written.text);
  const [problems, setProblems] = useState<MarkdownProblem[]>([]);
  const shown = useRef(doc);
  const area = useRef<HTMLTextAreaElement>(null);

  useEffect(() => {
    // Changed on the page: the text follows, but never under the hand.
    if (shown.current === doc || document.activeElement === area.current) return;
    shown.current = doc;
    setText(writeMarkdown(doc).text);
    setProblems([]);
  }, [doc]);

  const goTo = ({ line, column }: MarkdownProblem) => {
    const lines = text.split("\n");
    const at = lines.slice(0, line - 1).reduce((sum, one) => sum + one.length + 1, 0) + column - 1;
    area.current?.focus();
    area.current?.setSelectionRange(at, at);
  };

  return (
    <div className="flex flex-col gap-2 text-sm">
      <textarea
        ref={area}
        aria-label={t("theWordsAsMarkdown")}
        spellCheck
        className="min-h-96 w-full resize-y border border-line bg-sheet p-3 font-mono text-sm leading-relaxed"
        value={text}
        onChange={(event) => {
          const next = event.target.value;
          setText(next);
          const read = readMarkdown(next);
          setProblems(read.problems);
          shown.current = read.doc;
          onChange(read.doc);
        }}
      />
      {written.losses.length > 0 && (
        <p className="text-look">
          {t("theTextFormCannotHoldAll", { losses: written.losses.join("; ").toLowerCase() })}
        </p>
      )}
      {problems.map((problem) => (
        <button
          key={`${problem.line} ${problem.column} ${problem.message}`}
          type="button"
          className="self-start text-left text-stop"
          onClick={() => goTo(problem)}
        >
          {t("lineLineColumnColumnMessage", {
            line: problem.line,
            column: problem.column,
            message: problem.message,
          })}
        </button>
      ))}
      <p className="text-soft">{t("caseNumberIsAValuePassage")}</p>
    </div>
  );
}
