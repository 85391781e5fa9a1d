import type { Editor } from "@tiptap/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { ChosenRecipient } from "#core/checks/addressee";
import type { Copies } from "#core/mail/copies";
import type { LanguageGuess } from "#core/language/guess";
import type { PatternEngine } from "#core/conditions/patterns";
import type { Doc } from "#core/document/types";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import { draftSaver, keptDraft, type DraftSaver } from "./draft/draft-saver";
import type { SaveState } from "../ui/saver";
import { letterKey, letterState, withInputs, type LetterState } from "./editor/letter-state";
import type { OnFiles } from "../ui/editor/brought-files";
import { useEditorEffect } from "../ui/editor/use-editor-effect";
import { answerAttrs, answerJson, filesThatGo, picturesIn, untouchedAttrs } from "./editor/answer-attrs";
import { isEmptySlip, keptSlip, ownWordsSlip, slipsOf } from "./editor/slips";
import { focusBlank } from "./editor/blanks";
import type { WriterProps } from "./editor/writer";
import { letterInputs } from "./letter/inputs";
import { useLanguageGuess } from "./letter/use-language-guess";
import { useOtherNames } from "./sending/use-other-names";
import { useOwnFiles } from "./sending/use-own-files";
import { usePatterns } from "./letter/use-patterns";
import type { Offers } from "./strip/offers";
import { alreadyIn, takeReply, type Way } from "./letter/take";

export interface AnswerHandle {
  /** What the editor is made with. */
  writer: WriterProps;
  editor: Editor | null;
  /** The letter as it stands; null until the editor runs. */
  letter: LetterState | null;
  saveState: SaveState;
  /** The address that the letter goes to, where it is not the usual one. */
  to: ChosenRecipient | null;
  setTo: (to: ChosenRecipient | null) => void;
  /** Whom it goes to besides; null for nobody. */
  copies: Copies | null;
  setCopies: (copies: Copies | null) => void;
  /** @returns false where the reply stands in the answer already; then the hand is put on its first open blank */
  take: (reply: StripReply, way: Way) => boolean;
  /** How the agent's own files come to the letter. */
  files: ReturnType<typeof useOwnFiles>;
  saver: () => DraftSaver | null;
  patterns: PatternEngine;
  languageOf: LanguageGuess;
}

/** The answer under way on an opened case: its editor, its letter, and the draft that is saved as one types. */
export function useAnswer(open: OpenCase, offers: Offers, person: number): AnswerHandle {
  const [to, setToState] = useState<ChosenRecipient | null>(open.draft?.to ?? null);
  const [copies, setCopiesState] = useState<Copies | null>(open.draft?.copies ?? null);
  const [saveState, setSaveState] = useState<SaveState>(open.draft ? "saved" : "nothing");
  const [letter, setLetter] = useState<LetterState | null>(null);
  const [editor, setEditor] = useState<Editor | null>(null);
  const saver = useRef<DraftSaver | null>(null);
  /** Documents of taken replies as they stand on the shelf, by version. */
  const shelved = useRef(new Map<number, Doc>());
  const otherNames = useOtherNames(open.number, letter?.letter.text ?? null);
  const patterns = usePatterns(open);
  const languageOf = useLanguageGuess();
  const inputs = useMemo(
    () => letterInputs(open, { otherNames, to, copies, patterns, languageOf }),
    [open, otherNames, to, copies, patterns, languageOf],
  );
  // The editor and the saver begin with the case as it was opened; what changes later reaches them by itself.
  const [firstInputs] = useState(inputs);
  const [opened] = useState(open);

  const bring = useRef<OnFiles>(() => undefined);
  const onFiles = useCallback<OnFiles>((...brought) => bring.current(...brought), []);
  const onChange = useCallback(() => saver.current?.touch(), []);
  const [content] = useState(() => answerOf(open));
  const writer: WriterProps = {
    inputs: firstInputs,
    content,
    onFiles: open.channel === "email" ? onFiles : null,
    onChange,
    onEditor: setEditor,
  };

  const files = useOwnFiles(editor);
  const { add } = files;
  useEffect(() => {
    bring.current = (brought, at) => void add(brought, "words", at);
  }, [add]);

  useEffect(() => {
    if (!editor) return;
    const read = () => {
      const state = letterState(editor.state);
      const [only] = state.slips;
      const empty = state.slips.length === 1 && only !== undefined && isEmptySlip(only);
      return {
        draft: {
          language: state.inputs.language,
          subject: answerAttrs(editor.state.doc).subject,
          slips: empty ? [] : slipsOf(editor.state.doc).map(keptSlip),
          files: filesThatGo(editor.state.doc).map((file) => Number(file.id)),
          offers: offers.all(),
          to: state.inputs.to,
          copies: state.inputs.copies,
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

  const setTo = useCallback((next: ChosenRecipient | null) => {
    setToState(next);
    saver.current?.touch();
  }, []);

  const setCopies = useCallback((next: Copies | null) => {
    setCopiesState(next);
    saver.current?.touch();
  }, []);

  const take = useCallback(
    (reply: StripReply, way: Way) => {
      if (!editor) return false;
      const there = alreadyIn(editor, reply, way);
      if (there) {
        focusBlank(editor, there.id);
        return false;
      }
      const onShelf = (version: number) =>
        shelved.current.get(version) ??
        open.strip.replies.find((one) => one.versionId === version)?.document ??
        null;
      const id = takeReply(editor, reply, open.usual, way, onShelf);
      shelved.current.set(reply.versionId, reply.document);
      focusBlank(editor, id);
      return true;
    },
    [editor, open.usual, open.strip.replies],
  );

  const currentSaver = useCallback(() => saver.current, []);
  return {
    writer,
    editor,
    letter,
    saveState,
    to,
    setTo,
    copies,
    setCopies,
    take,
    files,
    saver: currentSaver,
    patterns,
    languageOf,
  };
}

/** The answer that a case opens with: the draft, or room for the agent's own words. */
function answerOf({ draft, language }: OpenCase) {
  if (!draft) return answerJson([ownWordsSlip(language)]);
  const slips = draft.slips.length > 0 ? draft.slips : [ownWordsSlip(language)];
  const pictures = picturesIn(slips);
  return answerJson(slips, {
    ...untouchedAttrs,
    subject: draft.subject,
    files: draft.attachments.map((file) => ({ ...file, inWords: pictures.has(file.id) })),
  });
}
