import type { Doc } from "../document/types";
import { fill, fillFragments, type Filled, type FilledFragments } from "./fill";
import type { FillInput } from "./fill-input";
import type { Decision } from "./passages";

/** A document as the agent's own words, with placeholders filled: for signatures and stationery. */
export function fillOwn(id: string, document: Doc, input: Omit<FillInput, "slip" | "decisions">): Filled {
  return fill(ownInput(id, document, input));
}

/** The same as fragments. */
export function fillOwnFragments(
  id: string,
  document: Doc,
  input: Omit<FillInput, "slip" | "decisions">,
): FilledFragments {
  return fillFragments(ownInput(id, document, input));
}

const NO_DECISIONS: ReadonlyMap<string, Decision> = new Map();

function ownInput(id: string, document: Doc, input: Omit<FillInput, "slip" | "decisions">): FillInput {
  return {
    ...input,
    slip: { id, document, blanks: {}, passages: {}, values: {} },
    decisions: NO_DECISIONS,
  };
}
