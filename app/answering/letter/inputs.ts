import { addressee, type ChosenRecipient } from "#core/checks/addressee";
import type { PatternEngine } from "#core/conditions/patterns";
import { allCopies, type Copies } from "#core/mail/copies";
import type { LanguageGuess } from "#core/language/guess";
import { catalogue } from "#core/tokens/catalogue";
import type { OpenCase } from "#server/answering/open";
import type { LetterInputs } from "../editor/letter-state";

/** What varies beside the case itself. */
export interface Choices {
  otherNames: string[];
  to: ChosenRecipient | null;
  copies: Copies | null;
  patterns: PatternEngine;
  languageOf: LanguageGuess;
}

/** The choices of a letter that nobody has touched yet. */
export function untouched(patterns: PatternEngine, languageOf: LanguageGuess): Choices {
  return { otherNames: [], to: null, copies: null, patterns, languageOf };
}

/** What a letter on an opened case depends on beside the answer itself. */
export function letterInputs(open: OpenCase, { to, copies, ...choices }: Choices): LetterInputs {
  return {
    ...addressee({ usual: open.recipient, all: open.recipients }, to),
    to,
    copies,
    strangers: copies === null ? [] : allCopies(copies).filter((address) => !open.familiar.includes(address)),
    context: open.context,
    channel: open.channel,
    language: open.draft?.language ?? open.language,
    customerTimeZone: open.customerTimeZone,
    tokens: catalogue(open.own),
    signature: open.signature,
    stationery: open.stationery,
    threadSubject: open.subject,
    startsThread: open.lastMessage === 0,
    forwarder: open.forwarder,
    caseNumber: open.label,
    sentReplies: open.sentReplies,
    contentId: (id) => id,
    ...choices,
  };
}
