import type { PassageUse } from "../conditions/coverage";
import type { Passages } from "../conditions/condition";
import type { PatternEngine } from "../conditions/patterns";
import type { TextChannel, Texts } from "../document/types";
import type { Blanks } from "../tokens/blanks";
import type { OwnToken, Token } from "../tokens/catalogue";
import type { SubjectMatter } from "./guarantee";

/** Where a writer has to look. Positions in a body count as ProseMirror's do, in a subject as text does. */
export type WriterPlace =
  | { in: "body"; from: number; to: number }
  | { in: "subject"; from: number; to: number }
  | { in: "passage"; id: string }
  | { in: "blank"; name: string };

export type WriterCode =
  | "token-unknown"
  | "token-uncertain"
  | "text-unreadable"
  | "function-unknown"
  | "blank-unknown"
  | "blank-unused"
  | "passage-unknown"
  | "passage-unused"
  | "untranslated"
  | "passage-never"
  | "passage-always"
  | "choice-uncovered"
  | "passages-overlap"
  | "condition-unusable"
  | "link-without-address"
  | "picture-without-text"
  | "greeting-inside"
  | "sign-off-inside"
  | "sms-segments"
  | "fact-typed"
  | "date-passed"
  | "nothing-written";

/** One finding for the writer. What is wrong would stop letters or lose words; the rest is worth a look. */
export interface WriterFinding {
  severity: "wrong" | "look";
  code: WriterCode;
  message: string;
  /** The variant that it is about; null for the reply as a whole. */
  language: string | null;
  /** The channel whose own text it is about; null for the common one, and the reply as a whole. */
  channel: TextChannel | null;
  at: WriterPlace | null;
}

/** A reply in one language. */
export interface WrittenVariant extends Texts {
  language: string;
  subject: string | null;
}

/** A reply as it is being written. */
export interface WrittenReply {
  part: "opening" | "answer" | "closing";
  channels: string[];
  about: SubjectMatter;
  blanks: Blanks;
  passages: Passages;
  variants: WrittenVariant[];
}

/** What the checks know beside the reply. */
export interface WritingChecksInput {
  tokens: ReadonlyMap<string, Token>;
  /** House facts with their values. */
  facts: OwnToken[];
  patterns: PatternEngine;
  /** How many messages a text takes as an SMS; null where they are not to be counted. */
  segments: ((text: string) => number) | null;
  /** ISO 8601 instant; null where dates are not to be looked at. */
  now: string | null;
}

/** What the words of a reply use of its definitions. */
export interface Used {
  blanks: Set<string>;
  uses: PassageUse[];
}
