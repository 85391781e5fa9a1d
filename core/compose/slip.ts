import type { Doc } from "../document/types";
import type { Passages } from "../conditions/condition";
import type { Blanks, BlankValues } from "../tokens/blanks";

export type Part = "opening" | "answer" | "closing";

/** A file that goes with a letter. */
export interface AttachmentRef {
  /** Id by which documents name it. */
  id: string;
  name: string;
  contentType: string;
  /** Bytes. */
  size: number;
}

/** One reply taken into an answer, with its edits; or, without a reply, the agent's own words. */
export interface Slip {
  id: string;
  reply: string | null;
  title: string;
  part: Part;
  /** BCP 47 tag of its words; the letter's own where it is not told. */
  language?: string;
  document: Doc;
  blanks: Blanks;
  passages: Passages;
  values: BlankValues;
  /** The reply's subject in text form, when it has one. */
  subject: string | null;
  attachments: AttachmentRef[];
}
