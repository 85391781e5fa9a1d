import type { Editor } from "@tiptap/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { ChosenRecipient } from "#core/checks/addressee";
import type { LanguageGuess } from "#core/language/guess";
import type { SubjectChoice } from "#core/compose/compose";
import type { PatternEngine } from "#core/conditions/patterns";
import type { Doc } from "#core/document/types";
import type { OpenCase } from "#server/answering/open";
import type { DraftFile } from "#server/answering/files";
import type { StripReply } from "#server/strip/strip";
import { draftSaver, keptDraft, type DraftSaver } from "./draft/draft-saver";
import type { SaveState } from "../ui/saver";
import { letterKey, letterState, withInputs, type LetterState } from "./editor/letter-state";
import { answerExtensions } from "./editor/extensions";
import { cleanHtml } from "../ui/editor/paste";
import { useEditorEffect } from "../ui/editor/use-editor-effect";
import { useEditorOf } from "../ui/editor/use-editor";
import { isEmptySlip, keptSlip, ownWordsSlip, slipJson, slipsOf } from "./editor/slips";
import { focusBlank } from "./editor/blanks";
import { letterInputs } from "./letter/inputs";
import { useLanguageGuess } from "./letter/use-language-guess";
import { useOtherNames } from "./sending/use-other-names";
import { usePatterns } from "./letter/use-patterns";
import type { Offers } from "./strip/offers";
import { alreadyIn, takeReply } from "./letter/take";

export interface AnswerHandle {
  editor: Editor | null;
  /** The letter as it stands; null until the editor runs. */
  letter: LetterState | null;
  saveState: SaveState;
  subject: SubjectChoice;
  setSubject: (subject: SubjectChoice) => void;
  attachments: DraftFile[];
  setAttachments: (files: DraftFile[]) => void;
  /** The address that the letter goes to, where it is not the usual one. */
  to: ChosenRecipient | null;
  setTo: (to: ChosenRecipient | null) => void;
  /** @returns false where the reply stands in the answer already; then the hand is put on its first open blank */
  take: (reply: StripReply, how: "swap" | "stack") => boolean;
  /** Words that swapping left without a place; theirs to put back or drop. */
  setAside: string[];
  setSetAside: (words: string[]) => void;
  saver: () => DraftSaver | null;
  patterns: PatternEngine;
  languageOf: LanguageGuess;
}

/** The answer under way on an opened case: its editor, its letter, and the draft that is saved as one types. */
export function useAnswer(open: OpenCase, offers: Offers, person: number): AnswerHandle {
  const [subject, setSubjectState] = useState<SubjectChoice>(open.draft?.subject ?? { from: "thread" });
  const [to, setToState] = useState<ChosenRecipient | null>(open.draft?.to ?? null);
  const [attachments, setAttachments] = useState<DraftFile[]>(open.draft?.attachments ?? []);
  const [saveState, setSaveState] = useState<SaveState>(open.draft ? "saved" : "nothing");
  const [letter, setLetter] = useState<LetterState | null>(null);
  const [setAside, setSetAside] = useState<string[]>([]);
  const saver = useRef<DraftSaver | null>(null);
  /** Documents of taken replies as they stand on the shelf, by version. */
  const shelved = useRef(new Map<number, Doc>());
  const otherNames = useOtherNames(open.number, letter?.letter.text ?? null);
  const patterns = usePatterns(open);
  const languageOf = useLanguageGuess();
  const inputs = useMemo(
    () => letterInputs(open, { subject, attachments, otherNames, to, patterns, languageOf }),
    [open, subject, attachments, otherNames, to, patterns, languageOf],
  );
  // The editor and the saver begin with the case as it was opened; what changes later reaches them by itself.
  const [firstInputs] = useState(inputs);
  const [opened] = useState(open);
  const slips = open.draft?.slips ?? [ownWordsSlip(open.language)];

  const editor = useEditorOf(() => ({
    enableInputRules: true,
    extensions: answerExtensions(firstInputs),
    editorProps: {
      attributes: {
        class: "letter answer-editor",
        role: "textbox",
        "aria-label": "Our answer",
        "aria-multiline": "true",
      },
      // What the answer's document could not hold is cleaned away, and the words stay.
      transformPastedHTML: cleanHtml,
    },
    content: { type: "doc", content: slips.map(slipJson) },
    onUpdate: ({ transaction }) => {
      if (transaction.docChanged) saver.current?.touch();
    },
  }));

  useEffect(() => {
    if (!editor) return;
    const read = () => {
      const state = letterState(editor.state);
      const [only] = state.slips;
      const empty = state.slips.length === 1 && only !== undefined && isEmptySlip(only);
      return {
        draft: {
          language: state.inputs.language,
          subject: state.inputs.subject,
          slips: empty ? [] : slipsOf(editor.state.doc).map(keptSlip),
          offers: offers.all(),
          to: state.inputs.to,
        },
        text: state.letter.text,
      };
    };
    const made = draftSaver({
      caseNumber: opened.number,
      version: opened.draft?.version ?? 0,
      read,
      onState: setSaveState,
      kept: keptDraft(opened.number, person),
    });
    saver.current = made;
    const update = () => setLetter(letterKey.getState(editor.state) ?? null);
    update();
    editor.on("transaction", update);
    return () => {
      editor.off("transaction", update);
      made.leave();
    };
  }, [editor, opened, offers, person]);

  useEditorEffect(
    editor,
    useCallback(
      ({ state, view }) => {
        if (letterState(state).inputs !== inputs) view.dispatch(withInputs(state, inputs));
      },
      [inputs],
    ),
  );

  const setSubject = useCallback((next: SubjectChoice) => {
    setSubjectState(next);
    // The inputs reach the editor with the next drawing; the save comes after it.
    saver.current?.touch();
  }, []);

  const setTo = useCallback((next: ChosenRecipient | null) => {
    setToState(next);
    saver.current?.touch();
  }, []);

  const take = useCallback(
    (reply: StripReply, how: "swap" | "stack") => {
      if (!editor) return false;
      const there = alreadyIn(editor, reply, how);
      if (there) {
        focusBlank(editor, there.id);
        return false;
      }
      const onShelf = (version: number) =>
        shelved.current.get(version) ??
        open.strip.replies.find((one) => one.versionId === version)?.document ??
        null;
      const { id, setAside: words } = takeReply(editor, reply, open.usual, how, onShelf);
      shelved.current.set(reply.versionId, reply.document);
      if (words.length > 0) setSetAside((now) => [...now, ...words]);
      // A subject of the agent's own is theirs; the thread's gives way to one that is always used.
      if (reply.useTemplateSubject && reply.subject)
        setSubjectState((now) => (now.from === "thread" ? { from: "reply" } : now));
      focusBlank(editor, id);
      return true;
    },
    [editor, open.usual, open.strip.replies],
  );

  const currentSaver = useCallback(() => saver.current, []);
  return {
    editor,
    letter,
    saveState,
    subject,
    setSubject,
    attachments,
    setAttachments,
    to,
    setTo,
    take,
    setAside,
    setSetAside,
    saver: currentSaver,
    patterns,
    languageOf,
  };
}
