/** A reply as ranking reads it. `body` is its text form or its plain words, of all its languages. */
export interface RankedText {
  id: string;
  title: string;
  tags: string[];
  channels: string[];
  body: string;
  /** Languages that it can be read in; left out where that is not asked. */
  languages?: string[];
  /** What it is for, beside its words, as an inquiry's marks are told: “with a booking”. */
  marks?: string[];
}

/** What a customer asks, as far as ranking reads it. */
export interface Inquiry {
  channel: string;
  subject: string;
  /** May quote earlier messages and end with a signature: neither is read. */
  body: string;
  /** What the customer wrote before that and nobody has answered; counts half. */
  earlier?: string;
  /** What is known beside the words, each in words: “topic refunds”, “with a booking”, “with an attachment”. */
  marks?: string[];
  /** Languages that the customer can read; left out where nobody knows. */
  reads?: string[];
}

/** How an inquiry was answered. */
export interface Outcome {
  /** The reply that was sent; null when it was answered by hand. */
  reply: string | null;
  /** Who answered, and for which team. */
  person?: number;
  team?: number;
  /** Replies that were taken first and then swapped for another. */
  swapped?: string[];
  /** How much of the reply was written anew before it was sent, from 0 to 1. */
  rewritten?: number;
}

/** An inquiry that was answered. */
export interface PastInquiry extends Inquiry, Outcome {
  /** What colleagues call it: a case number. */
  id: string;
}

/** A reply's place for an inquiry. */
export interface Fit {
  id: string;
  /** How likely it is the one to send, from 0 to 1; with the chance that nothing on the shelf fits, all make 1. */
  fit: number;
  /** What speaks for it, or why it is unfit, in words that a person can check. */
  why: string[];
  /** The sentence by which it answers a second question; null where it is no second answer. */
  also: string | null;
}

export interface Ranking {
  /** The likeliest first; those that cannot serve last. */
  fits: Fit[];
  /** Whether it is likelier that nothing on the shelf fits than that the first does. */
  nothingFits: boolean;
}

/** Who asks, and for what. */
export interface Asking {
  /** How many replies. */
  top: number;
  /** The ids of those that are asked for; all by default. */
  among?: ReadonlySet<string>;
  person?: number;
  team?: number;
}
