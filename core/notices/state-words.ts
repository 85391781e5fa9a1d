import { caseStates, type CaseState } from "../words/case-states";
import { primary } from "../language/tag";
import { tagIn } from "../language/written";

/** What a house calls states to its customers, where it says so: by state, then by language (BCP 47 tags). */
export type StateWords = Partial<Record<CaseState, Readonly<Record<string, string>>>>;

/** What a customer may be told of a state by a house that says nothing else. */
const USUAL: Record<string, Record<CaseState, string>> = {
  en: {
    new: "received",
    open: "being looked at",
    "waiting on the customer": "waiting for your answer",
    "waiting on a colleague": "with a colleague of ours",
    settled: "closed",
    "set aside": "closed",
  },
  de: {
    new: "eingegangen",
    open: "in Bearbeitung",
    "waiting on the customer": "wartet auf Ihre Antwort",
    "waiting on a colleague": "liegt bei der zuständigen Abteilung",
    settled: "abgeschlossen",
    "set aside": "abgeschlossen",
  },
  es: {
    new: "recibido",
    open: "en trámite",
    "waiting on the customer": "a la espera de su respuesta",
    "waiting on a colleague": "en manos de otro departamento",
    settled: "cerrado",
    "set aside": "cerrado",
  },
  fr: {
    new: "reçu",
    open: "en cours de traitement",
    "waiting on the customer": "en attente de votre réponse",
    "waiting on a colleague": "auprès du service compétent",
    settled: "clos",
    "set aside": "clos",
  },
};

/**
 * A state in the customer's words.
 * @param own what the house calls states
 * @param language BCP 47 tag
 * @returns null for a language in which nobody said it
 */
export function stateWords(own: StateWords, state: CaseState, language: string): string | null {
  const said = own[state] ?? {};
  const tag = tagIn(said, language);
  return (tag === null ? undefined : said[tag]) ?? USUAL[primary(language)]?.[state] ?? null;
}

/** The same of every state. */
export function allStateWords(own: StateWords, language: string): Record<CaseState, string | null> {
  return Object.fromEntries(caseStates.map((state) => [state, stateWords(own, state, language)])) as Record<
    CaseState,
    string | null
  >;
}
