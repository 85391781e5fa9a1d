import type { Asking, Inquiry, Ranking } from "#core/ranking/inquiry";

/** What the ranking thread is given at its start. */
export interface ThreadData {
  /** postgresql:// address of the database that it reads and listens to. */
  url: string;
}

/** One question for several inquiries at once. */
export interface Question {
  id: number;
  asked: { inquiry: Inquiry; asking: Asking }[];
}

/** What the thread says: answers, in the order asked; how far it is; and what went wrong. */
export type Said =
  | { kind: "answer"; id: number; rankings: Ranking[] }
  | { kind: "refused"; id: number; problem: string }
  | { kind: "knows"; what: "replies" | "history" }
  | { kind: "trouble"; problem: string };
