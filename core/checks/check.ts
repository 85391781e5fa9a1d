import type { ForwarderWay } from "../mail/forwarded";
import type { LanguageGuess } from "../language/guess";
import type { ComposeInput } from "../compose/compose";
import type { BlankPlace, ComposeProblem, Letter, Place } from "../compose/letter";

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
  | "attachment-risky"
  | "attachment-left-out"
  | "picture-without-words"
  | "subject-changed"
  | "sent-before"
  | "field-missing"
  | "unfinished"
  | "link-differs"
  | "languages-differ"
  | "language-lacks"
  | "letter-too-long"
  | "recipient-unknown"
  | "recipient-ours"
  | "copy-unknown"
  | "forwarder-link"
  | "forwarder-address"
  | "forwarder-number"
  | "forwarder-length";

/** One finding of the second look. *Stops sending* or *worth a look*. */
export interface SendCheck {
  severity: "stop" | "look";
  code: CheckCode;
  message: string;
  /** The words that it is about; null when it is about the letter as a whole. */
  at: Place | null;
  /** The blank that it is about, where it is about one. */
  blank?: BlankPlace;
  /** Name of the token that has no value, where that is what is wrong. */
  token?: string;
}

/** What is known of an address that a letter is to go to. */
export interface Standing {
  /** The customer’s own; not known to be theirs; or a mailbox of ours. */
  is: "known" | "new" | "ours";
  /** What is new about it, in words for the agent. */
  news: string | null;
  /** Whether the agent has seen that and wants it all the same. */
  confirmed: boolean;
}

export interface CheckInput extends Pick<
  ComposeInput,
  "slips" | "context" | "channel" | "language" | "tokens" | "signature" | "stationery"
> {
  letter: Letter;
  /** Where the letter goes: an address for email, a number for SMS, a name for chat. */
  recipient: string | null;
  standing: Standing;
  /** Whom it goes to besides: addresses that are neither the customer's, nor colleagues', nor known from the case. */
  strangers?: readonly string[];
  /** Who brought the message that is answered, and what they let pass; null where it came by itself. */
  forwarder?: ForwarderWay | null;
  /** Subject of the thread that is answered; null for a letter that starts one. */
  threadSubject: string | null;
  /** Names of other customers that are known to occur in the letter (see `nameCandidates`). */
  otherNames: string[];
  /** Ids of replies already sent on this case. */
  sentReplies: string[];
  /** Tells the language of words that nobody has told it of. */
  languageOf: LanguageGuess;
}
