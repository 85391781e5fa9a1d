import type { Condition } from "../conditions/condition";
import type { Token } from "../tokens/catalogue";
import type { TokenGroup } from "../tokens/context";
import { t } from "../words/checks";

/** What a reply is about: any case, or only some. */
export interface SubjectMatter {
  /** Topics of the cases that it is for; none means any. */
  topics: string[];
  /** Whether it is only for cases with a booking. */
  withBooking: boolean;
}

/** Tokens that every case has, whatever it is about. */
const always = new Set([
  "case.number",
  "case.channel",
  "case.opened_at",
  "agent.name",
  "agent.first_name",
  "agent.team",
  "agent.email",
]);

/** Whether a token surely has a value in the cases that a reply is about. House facts and questions always do. */
export function isGuaranteed({ name, always: isOfAll }: Token, about: SubjectMatter): boolean {
  if (name.startsWith("house.") || name.startsWith("ask.") || always.has(name)) return true;
  if (name === "case.topic") return about.topics.length > 0;
  return about.withBooking && isOfAll === true;
}

/** Why a token may have no value, in words for the writer. */
export function whyUncertain(name: string, about: SubjectMatter): string {
  if (about.withBooking && name.startsWith("booking.")) return t("notEveryBookingSaysIt");
  const group = name.slice(0, name.indexOf("."));
  return t(group in reasons ? reasons[group as TokenGroup] : "thereMayBeNoValue");
}

const reasons = {
  case: "notEveryCaseSaysIt",
  customer: "notEveryCustomerToldUs",
  organisation: "manyCustomersBelongToNoOrganisation",
  booking: "notEveryCaseHasABooking",
  detail: "notEveryCaseIsKnownOutside",
  agent: "notEveryColleagueHasFilledItIn",
  house: "theFactMayBeRemoved",
  ask: "theFactMayBeRemoved",
  answer: "notEveryCustomerPressed",
} as const satisfies Record<TokenGroup, string>;

/**
 * The names that surely have a value where a condition holds (or, with `holds` false, where it does not):
 * inside the passage they need no fallback.
 */
export function knownWhere(condition: Condition, holds = true): Set<string> {
  if ("not" in condition) return knownWhere(condition.not, !holds);
  const parts = "all" in condition ? condition.all : "any" in condition ? condition.any : null;
  if (parts) {
    const sets = parts.map((part) => knownWhere(part, holds));
    const every = "all" in condition === holds;
    return every ? union(sets) : intersection(sets);
  }
  if (!("value" in condition)) return new Set();
  const known =
    condition.is === "missing" || condition.is === "differs" || condition.is === "lacks" ? !holds : holds;
  return known ? new Set([condition.value]) : new Set();
}

function union(sets: Set<string>[]): Set<string> {
  return new Set(sets.flatMap((set) => [...set]));
}

function intersection(sets: Set<string>[]): Set<string> {
  const [first, ...rest] = sets;
  return new Set([...(first ?? [])].filter((name) => rest.every((set) => set.has(name))));
}
