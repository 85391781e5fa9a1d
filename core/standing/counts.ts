import type { RuleId } from "./rule";

const HOUR_MS = 60 * 60_000;

/** What rules did before, as far as it limits them. Instants are in milliseconds of Unix time. */
export interface Counts {
  /** When a rule took a message of a sender last; null for never. */
  lastOf(rule: RuleId, sender: string): number | null;
  /** How many a rule sent in the hour that ends at an instant. */
  sentWithinHour(rule: RuleId, at: number): number;
  /** How many automatic answers there were on a thread. */
  onThread(thread: string): number;
}

/** What a rule did with a message. */
export interface Done {
  rule: RuleId;
  sender: string;
  thread: string | null;
  /** Whether it was sent; else it was prepared for a person. */
  sent: boolean;
  at: number;
}

/** Keeps the counts of what is done one after the other, in order of time. */
export class KeptCounts implements Counts {
  readonly #last = new Map<RuleId, Map<string, number>>();
  readonly #sent = new Map<RuleId, number[]>();
  readonly #threads = new Map<string, number>();

  lastOf(rule: RuleId, sender: string): number | null {
    return this.#last.get(rule)?.get(sender) ?? null;
  }

  sentWithinHour(rule: RuleId, at: number): number {
    const times = this.#sent.get(rule) ?? [];
    // In order of time: what has fallen out of the hour stays out.
    const from = times.findIndex((one) => one > at - HOUR_MS);
    times.splice(0, from < 0 ? times.length : from);
    return times.length;
  }

  onThread(thread: string): number {
    return this.#threads.get(thread) ?? 0;
  }

  note({ rule, sender, thread, sent, at }: Done): void {
    const last = this.#last.get(rule) ?? new Map<string, number>();
    this.#last.set(rule, last.set(sender, at));
    if (!sent) return;
    const times = this.#sent.get(rule) ?? [];
    times.push(at);
    this.#sent.set(rule, times);
    if (thread !== null) this.#threads.set(thread, this.onThread(thread) + 1);
  }
}

/** How often a rule came over its limit: what lies no more than an hour apart is once. @param times in order of time */
export function episodes(times: readonly number[]): number {
  return times.filter((at, index) => at - (times[index - 1] ?? -Infinity) > HOUR_MS).length;
}
