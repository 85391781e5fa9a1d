import { useRef, useState } from "react";
import * as z from "zod/mini";
import type { OpenCase } from "#server/answering/open";
import { nothing, useAct } from "../../ui/act";
import { fileSize } from "#core/text/counted";
import type { AnswerHandle } from "../use-answer";

const attached = z.object({
  id: z.string(),
  attachmentId: z.number(),
  name: z.string(),
  contentType: z.string(),
  size: z.number(),
});
/** Files that go with the letter: those of its replies, and those that the agent adds. */
export function Files({ open, answer }: { open: OpenCase; answer: AnswerHandle }) {
  const { attachments, setAttachments, letter, saver } = answer;
  const [problem, setProblem] = useState<string | null>(null);
  const act = useAct();
  const input = useRef<HTMLInputElement>(null);
  const own = new Set(attachments.map((file) => file.id));
  const withReplies = letter?.letter.attachments.filter((file) => !own.has(file.id)) ?? [];
  if (open.channel !== "email") return null;

  const add = async (file: File) => {
    setProblem(null);
    const kept = saver();
    // A file hangs on a draft: there has to be one, even when nothing was typed yet.
    if (kept?.version === 0) kept.touch();
    await kept?.flush();
    const form = new FormData();
    form.set("file", file);
    const done = await act(`/cases/${open.number}/files`, form, attached);
    if (done.ok) setAttachments([...attachments, done.data]);
    else setProblem(done.problem);
  };

  const remove = async (attachmentId: number) => {
    const done = await act(`/cases/${open.number}/files/${attachmentId}/remove`, {}, nothing);
    if (done.ok) setAttachments(attachments.filter((file) => file.attachmentId !== attachmentId));
    else setProblem(done.problem);
  };

  return (
    <div className="mt-3 flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-4 text-sm">
      {withReplies.map((file) => (
        <span key={file.id}>
          <a href={`/library-files/${file.id}`} target="_blank" rel="noreferrer" className="quiet-link">
            {file.name}
          </a>{" "}
          <span className="text-soft">{fileSize(file.size)}</span>
        </span>
      ))}
      {attachments.map((file) => (
        <span key={file.attachmentId}>
          <a href={`/files/${file.attachmentId}`} target="_blank" rel="noreferrer" className="quiet-link">
            {file.name}
          </a>{" "}
          <span className="text-soft">{fileSize(file.size)}</span>{" "}
          <button
            type="button"
            className="text-soft underline underline-offset-2"
            onClick={() => void remove(file.attachmentId)}
          >
            take off
          </button>
        </span>
      ))}
      <label className="text-soft underline underline-offset-2 focus-within:outline-2 focus-within:outline-accent">
        Attach a file
        <input
          ref={input}
          type="file"
          className="sr-only"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void add(file);
            event.target.value = "";
          }}
        />
      </label>
      {problem && (
        <span role="alert" className="text-stop">
          {problem}
        </span>
      )}
    </div>
  );
}
