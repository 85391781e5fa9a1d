import { LRUCache } from "lru-cache";

/** The reply that fits a case best, as far as ranking knows. */
export interface BestReply {
  key: string;
  title: string;
  mark: string;
  fit: number;
  why: string;
  /** Whether it can be sent as it is: it asks for nothing that only a person can know. */
  ready: boolean;
}

/** What the shelf has for a case: its best reply, or nothing that fits. */
export type Best = { reply: BestReply } | { reply: null };

/** What was found out for a case, kept until its message or the library changes, or this time has passed. */
const KEPT_MS = 10 * 60_000;

/** The best reply of waiting cases, by what was asked and by whom (`best.ts`). */
export const keptBest = new LRUCache<string, Best>({ max: 20_000, ttl: KEPT_MS });
