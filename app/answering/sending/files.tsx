import { X } from "lucide-react";
import { useRef } from "react";
import type { OpenCase } from "#server/answering/open";
import { fileSize } from "#core/text/counted";
import { filesThatGo } from "../editor/answer-attrs";
import type { AnswerHandle } from "../use-answer";
import { removeFile } from "./use-own-files";
import { t } from "../../words/answering";

/** Files that go with the letter: those of its replies, and those that the agent adds. */
export function Files({ open, answer }: { open: OpenCase; answer: AnswerHandle }) {
  const { letter, editor, files } = answer;
  const input = useRef<HTMLInputElement>(null);
  if (open.channel !== "email") return null;
  const added = letter ? filesThatGo(letter.doc) : (open.draft?.attachments ?? []);
  const own = new Set(added.map((file) => file.id));
  const inWords = new Set(letter?.letter.pictures.map((file) => file.id));
  const withReplies = letter?.letter.attachments.filter((file) => !own.has(file.id)) ?? [];
  const attached = added.filter((file) => !inWords.has(file.id));
  return (
    <div className="mt-3 flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-4 text-sm">
      {withReplies.map((file) => (
        <span key={file.id}>
          {file.name} <span className="text-soft">{fileSize(file.size)}</span>
        </span>
      ))}
      {attached.map((file) => (
        <span key={file.id} className="inline-flex items-baseline gap-1.5">
          <a href={`/library-files/${file.id}`} target="_blank" rel="noreferrer" className="quiet-link">
            {file.name}
          </a>
          <span className="text-soft">{fileSize(file.size)}</span>
          <button
            type="button"
            aria-label={t("removeFile", { file: file.name })}
            className="grid size-6 place-items-center self-center text-soft hover:text-ink"
            onClick={() => {
              if (editor) removeFile(editor, file.id);
              input.current?.focus();
            }}
          >
            <X size={14} aria-hidden="true" />
          </button>
        </span>
      ))}
      <label className="text-soft underline underline-offset-2 focus-within:outline-2 focus-within:outline-accent">
        {t("attachAFile")}
        <input
          ref={input}
          type="file"
          multiple
          className="sr-only"
          onChange={(event) => {
            const chosen = [...(event.target.files ?? [])];
            event.target.value = "";
            void files.add(chosen, "letter");
          }}
        />
      </label>
      {files.problem !== null && (
        <span role="alert" className="text-stop">
          {files.problem}
        </span>
      )}
    </div>
  );
}
