import type { Editor } from "@tiptap/core";
import { useCallback } from "react";
import type { AttachmentRef } from "#core/compose/slip";
import { riskOf } from "#core/mail/risky-file";
import { isPicture } from "#core/text/file-name";
import { useAsk } from "../../ui/ask";
import { insertPicture } from "../../ui/editor/brought-files";
import { useUpload } from "../../ui/use-upload";
import { answerAttrs, attrsStep, type OwnFile } from "../editor/answer-attrs";
import { t } from "../../words/answering";

/**
 * Files that the agent adds to an answer: what is risky is asked about first, and each is a step of undo.
 * @returns how to attach files, how to bring some into the words (pictures stand there, others are attached), and what the
 *   last refusal said
 */
export function useOwnFiles(editor: Editor | null) {
  const ask = useAsk();
  const { upload, problem } = useUpload();
  const add = useCallback(
    async (files: File[], into: "words" | "letter", at: number | null = null) => {
      for (const file of files) {
        const known = riskOf({ name: file.name, contentType: file.type, size: file.size });
        if (known !== null && !(await ask(question(file.name, known)))) continue;
        const inWords = into === "words" && isPicture(file.type);
        const stored = await upload(file, inWords);
        if (!stored || !editor || editor.isDestroyed) continue;
        // What calls itself something else is told by its bytes, once they were read.
        const told = known === null ? riskOf(stored) : null;
        if (told !== null && !(await ask(question(stored.name, told)))) continue;
        place(editor, { ...stored, inWords }, at);
      }
    },
    [editor, ask, upload],
  );
  return { add, problem };
}

function question(name: string, risk: string) {
  return { title: t("attachName", { name }), words: t("itRisk", { risk }), yes: t("attachIt") };
}

function place(editor: Editor, file: OwnFile, at: number | null): void {
  const { state, view } = editor;
  const others = answerAttrs(state.doc).files.filter((one) => one.id !== file.id);
  const files = [...others, file];
  if (file.inWords)
    insertPicture(editor, file, Math.min(at ?? state.selection.to, state.doc.content.size), (tr) =>
      attrsStep(tr, { files }),
    );
  else view.dispatch(attrsStep(state.tr, { files }));
}

/** Takes a file of the agent's own off the answer. */
export function removeFile({ state, view }: Editor, id: AttachmentRef["id"]): void {
  const files = answerAttrs(state.doc).files.filter((file) => file.id !== id);
  view.dispatch(attrsStep(state.tr, { files }));
}
