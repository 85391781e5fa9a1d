import type { Asking, Inquiry, Ranking } from "#core/ranking/inquiry";
import type { Asked, Found } from "#core/search/inverted-index";

/** What the ranking thread is given at its start. */
export interface ThreadData {
  /** postgresql:// address of the database that it reads and listens to. */
  url: string;
}

/** An inquiry for which somebody asks. */
export interface About {
  inquiry: Inquiry;
  asking: Asking;
}

/** Several inquiries at once. */
export interface RankQuestion {
  kind: "rank";
  id: number;
  asked: About[];
}

/** What is sought by words, and for which inquiry. */
export interface FindQuestion {
  kind: "find";
  id: number;
  asked: Asked;
  about: About | null;
}

export type Question = RankQuestion | FindQuestion;

/** Replies that have what is sought, and what fits the inquiry; null where nothing is known of fitting yet, or none was told. */
export interface Finding {
  found: Found[];
  ranking: Ranking | null;
}

/** What the thread says: answers, in the order asked; how far it is; and what went wrong. */
export type Said =
  | { kind: "ranked"; id: number; answer: Ranking[] }
  | { kind: "found"; id: number; answer: Finding }
  | { kind: "refused"; id: number; problem: string }
  | { kind: "knows"; what: Knowledge }
  | { kind: "trouble"; problem: string };

/** What is known after a while: the replies' words to find them by, the replies to rank, and how inquiries were answered. */
export type Knowledge = "words" | "replies" | "history";
