import { oursStates } from "#core/words/case-states";

/** The states in which it is for us to do something, as a list of SQL: `status in (${OURS})`. */
export const OURS = oursStates.map((state) => `'${state}'`).join(", ");
