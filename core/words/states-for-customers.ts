import type { CaseState } from "./case-states";

/** What a customer may be told of a state by a house that says nothing else. */
export const statesForCustomers: Record<string, Record<CaseState, string>> = {
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
