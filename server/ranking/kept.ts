import { LRUCache } from "lru-cache";
import type { Best } from "./best";

/** What was found out for a case, kept until its message or the library changes, or this time has passed. */
const KEPT_MS = 10 * 60_000;

/** The best reply of waiting cases, by what was asked and by whom (`best.ts`). */
export const keptBest = new LRUCache<string, Best>({ max: 20_000, ttl: KEPT_MS });
