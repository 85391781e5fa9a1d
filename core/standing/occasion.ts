import { caseStateName, caseStates, type CaseState } from "../words/case-states";
import { t } from "../words/standing";

const HOUR_MS = 60 * 60_000;

/** Whose silence lasts: the customer’s since our letter, or ours since the customer’s message. */
export const silentOnes = ["customer", "us"] as const;
export type Silent = (typeof silentOnes)[number];

/** When a rule is asked. Empty lists stand for any. */
export type Trigger =
  | { on: "arrival" }
  | { on: "state"; into: CaseState[] }
  | { on: "topic"; into: string[] }
  | { on: "owner" }
  | { on: "silence"; of: Silent; hours: number };

/** What happened that rules are asked of. Instants are in milliseconds of Unix time. */
export type Occasion =
  | { on: "arrival"; at: number }
  /** Into which state or topic a case came; null for no topic. */
  | { on: "state" | "topic"; into: string | null; at: number }
  /** A case became somebody’s. */
  | { on: "owner"; at: number }
  | { on: "silence"; of: Silent; since: number; at: number; before: readonly Broken[] };

/** What a rule did about a silence that lasts: after how many hours it was to be asked, and when it did it. */
export interface Broken {
  hours: number;
  at: number;
}

export const ARRIVAL: Trigger = { on: "arrival" };

/** Since when what happened was to come: a rule that was switched on later has nothing to do with it. */
export function beganAt(occasion: Occasion): number {
  return occasion.on === "silence" ? occasion.since : occasion.at;
}

/**
 * When a silence has lasted long enough for a rule. What was done about it earlier than it was to be, or late, moves what
 * comes after it: between two reminders lies as long as their rules say, though nobody was there to send the first.
 */
export function silenceDueAt(hours: number, since: number, before: readonly Broken[]): number {
  const after = before
    .filter((one) => one.hours < hours)
    .map((one) => one.at + (hours - one.hours) * HOUR_MS);
  return Math.max(since + hours * HOUR_MS, ...after);
}

/** Whether a rule is asked of what happened. @returns with why not, in words */
export function isAskedOf(trigger: Trigger, occasion: Occasion): { fits: boolean; why: string } {
  const no = (why: string) => ({ fits: false, why });
  if (trigger.on !== occasion.on) return no(t("itIsAskedOfSomethingElse"));
  const yes = { fits: true, why: "" };
  if (trigger.on === "silence" && occasion.on === "silence") {
    if (trigger.of !== occasion.of) return no(t("itIsAskedOfSomethingElse"));
    const isDue = occasion.at >= silenceDueAt(trigger.hours, occasion.since, occasion.before);
    return isDue ? yes : no(t("theSilenceIsNotSoLong", { count: trigger.hours }));
  }
  if (
    (trigger.on === "state" || trigger.on === "topic") &&
    (occasion.on === "state" || occasion.on === "topic")
  ) {
    const into: readonly string[] = trigger.into;
    if (into.length > 0 && (occasion.into === null || !into.includes(occasion.into)))
      return no(t("itDidNotComeIntoThat", { into: occasion.into === null ? "–" : stateOr(occasion.into) }));
  }
  return yes;
}

/** A state as people say it; what is none, as it is. */
function stateOr(text: string): string {
  const state = caseStates.find((one) => one === text);
  return state ? caseStateName(state) : text;
}

/** What tells one occasion from another of the same case, as it is kept. */
export function keyOfOccasion(occasion: Occasion): string {
  if (occasion.on === "arrival") return "arrival";
  return `${occasion.on} ${new Date(beganAt(occasion)).toISOString()}`;
}

/**
 * What a rule is asked of, as it was of a case of the past.
 * @param at when it happened; of a silence, when it began
 * @param into the state or topic that the case came into; null for none
 */
export function occasionOf(trigger: Trigger, at: number, into: string | null): Occasion {
  switch (trigger.on) {
    case "arrival":
    case "owner":
      return { on: trigger.on, at };
    case "state":
    case "topic":
      return { on: trigger.on, into, at };
    case "silence": {
      const { of, hours } = trigger;
      return { on: "silence", of, since: at, at: at + hours * HOUR_MS, before: [] };
    }
  }
}
