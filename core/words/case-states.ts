import { t } from "./names";

/** How a case stands. */
export const caseStates = [
  "new",
  "open",
  "waiting on the customer",
  "waiting on a colleague",
  "settled",
  "set aside",
] as const;
export type CaseState = (typeof caseStates)[number];

/** States in which it is for us to do something, and time runs. */
export const oursStates = ["new", "open", "waiting on a colleague"] as const satisfies readonly CaseState[];

/** States that somebody sets; a case is new by itself. */
export const setStates = [
  "open",
  "waiting on the customer",
  "waiting on a colleague",
  "settled",
  "set aside",
] as const satisfies readonly CaseState[];
export type SetState = (typeof setStates)[number];

/** What a case is set aside as. */
export const asideKinds = ["nothing to answer", "junk or fraud"] as const;
export type AsideKind = (typeof asideKinds)[number];

/** Whose turn a case is: ours, or not. */
export function isOurs(state: CaseState): boolean {
  return (oursStates as readonly CaseState[]).includes(state);
}

/** A state, as people say it. */
export function caseStateName(state: CaseState): string {
  switch (state) {
    case "new":
      return t("newCase");
    case "open":
      return t("openCase");
    case "waiting on the customer":
      return t("waitingOnTheCustomer");
    case "waiting on a colleague":
      return t("waitingOnAColleague");
    case "settled":
      return t("settled");
    case "set aside":
      return t("setAside");
  }
}

/** What a case is set aside as, as people say it. */
export function asideName(kind: AsideKind): string {
  return t(kind === "junk or fraud" ? "junkOrFraud" : "nothingToAnswer");
}
