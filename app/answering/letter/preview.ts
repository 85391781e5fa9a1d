import { secondLook } from "#core/checks/second-look";
import { compose, type SubjectChoice } from "#core/compose/compose";
import type { PatternEngine } from "#core/conditions/patterns";
import type { LanguageGuess } from "#core/language/guess";
import type { Doc } from "#core/document/types";
import type { DraftSlip } from "#server/answering/draft";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import type { LetterInputs } from "../editor/letter-state";
import { letterInputs, untouched } from "./inputs";
import { firstSlips } from "./take";

/** A reply's own words as they read for a case, without what stands around them. */
export function readsAs(open: OpenCase, reply: StripReply, patterns: PatternEngine): Doc {
  const inputs = letterInputs(
    open,
    untouched(patterns, () => null),
  );
  return composedAlone(inputs, firstSlips(reply, { opening: [], closing: [] }));
}

/** What slips say in a letter, without its subject and files. */
export function composedAlone(inputs: LetterInputs, slips: DraftSlip[]): Doc {
  const { blocks } = compose({ ...inputs, subject: { from: "thread" }, attachments: [], slips });
  return { type: "doc", content: blocks };
}

/** Slips as they would read for a case, left untouched: their letter and the second look. */
export function previewOf(
  open: OpenCase,
  slips: DraftSlip[],
  patterns: PatternEngine,
  languageOf: LanguageGuess,
  subject: SubjectChoice = { from: "thread" },
) {
  const inputs = { ...letterInputs(open, untouched(patterns, languageOf)), subject, attachments: [] };
  const letter = compose({ ...inputs, slips });
  return { slips, letter, checks: secondLook({ ...inputs, letter, slips }) };
}
