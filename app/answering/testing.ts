import { testInput } from "#core/compose/testing";
import type { LetterInputs } from "./editor/letter-state";

const { slips: _slips, subject: _subject, attachments: _attachments, ...input } = testInput([]);

/** What a letter depends on beside its slips, for the case of the tests. */
export const testLetterInputs: LetterInputs = {
  ...input,
  recipient: "ottoline@example.org",
  standing: { is: "known", news: null, confirmed: false },
  to: null,
  copies: null,
  strangers: [],
  forwarder: null,
  languageOf: () => null,
  otherNames: [],
  sentReplies: [],
};
