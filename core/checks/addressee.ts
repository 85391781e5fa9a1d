import type { Standing } from "./check";

/** An address that a letter on a case may go to, and what is known of it. */
export interface Recipient {
  address: string;
  is: Standing["is"];
  /** What is new about it, in words; null for one that is known. */
  news: string | null;
}

/** Where letters on a case may go. */
export interface Recipients {
  /** The customer's own address that they wrote from last; null where none is known. */
  usual: string | null;
  /** Addresses of the customer, the usual first, then others that wrote on the case or were named by those who did. */
  all: Recipient[];
}

/** What an agent chose: an address, and whether they saw what is new about it and want it all the same. */
export interface ChosenRecipient {
  address: string;
  confirmed: boolean;
}

/** Where a letter goes: where the agent chose, else to the usual address; with its standing there. */
export function addressee(
  { usual, all }: Recipients,
  chosen: ChosenRecipient | null,
): { recipient: string | null; standing: Standing } {
  const recipient = chosen?.address ?? usual;
  const found = all.find((one) => one.address === recipient);
  const confirmed = chosen?.confirmed ?? false;
  if (recipient === null) return { recipient, standing: { is: "known", news: null, confirmed } };
  return { recipient, standing: { is: found?.is ?? "new", news: found?.news ?? null, confirmed } };
}
