import { caseStates, type CaseState } from "../words/case-states";
import { statesForCustomers } from "../words/states-for-customers";
import { primary } from "../language/tag";
import { tagIn } from "../language/written";

/** What a house calls states to its customers, where it says so: by state, then by language (BCP 47 tags). */
export type StateWords = Partial<Record<CaseState, Readonly<Record<string, string>>>>;

/**
 * A state in the customer's words.
 * @param own what the house calls states
 * @param language BCP 47 tag
 * @returns null for a language in which nobody said it
 */
export function stateWords(own: StateWords, state: CaseState, language: string): string | null {
  const said = own[state] ?? {};
  const tag = tagIn(said, language);
  return (tag === null ? undefined : said[tag]) ?? statesForCustomers[primary(language)]?.[state] ?? null;
}

/** The same of every state. */
export function allStateWords(own: StateWords, language: string): Record<CaseState, string | null> {
  return Object.fromEntries(caseStates.map((state) => [state, stateWords(own, state, language)])) as Record<
    CaseState,
    string | null
  >;
}
