import type { ComposeProblem, Letter, Place } from "../compose/letter";
import type { Slip } from "../compose/slip";
import type { Context } from "../tokens/context";

export type CheckCode =
  | ComposeProblem["code"]
  | "no-recipient"
  | "leftover-braces"
  | "nothing-to-say"
  | "attachments-too-large"
  | "other-customer"
  | "other-greeting"
  | "sign-off-twice"
  | "said-twice"
  | "attachment-missing"
  | "attachment-unmentioned"
  | "subject-changed"
  | "sent-before"
  | "unfinished"
  | "link-differs";

/** One finding of the second look. *Stops sending* or *worth a look*. */
export interface SendCheck {
  severity: "stop" | "look";
  code: CheckCode;
  message: string;
  /** The words that it is about; null when it is about the letter as a whole. */
  at: Place | null;
}

export interface CheckInput {
  letter: Letter;
  slips: Slip[];
  context: Context;
  channel: string;
  /** Where the letter goes: an address for email, a number for SMS, a name for chat. */
  recipient: string | null;
  /** Subject of the thread that is answered; null for a letter that starts one. */
  threadSubject: string | null;
  /** Names of other customers that are known to occur in the letter (see `nameCandidates`). */
  otherNames: string[];
  /** Ids of replies already sent on this case. */
  sentReplies: string[];
}
