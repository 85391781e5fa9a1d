import type { Doc } from "../document/types";
import { tokensUsed } from "./tokens-used";

/** What letters may print of whoever writes them, and not everybody has. */
export const agentDetails = ["title", "department", "phone"] as const;
export type AgentDetail = (typeof agentDetails)[number];

/** The details of its writer that documents print, in the order of the list. */
export function detailsPrinted(documents: readonly Doc[]): AgentDetail[] {
  const used = tokensUsed({
    blanks: {},
    passages: {},
    variants: documents.map((document) => ({ subject: null, document })),
  });
  return agentDetails.filter((detail) => used.has(`agent.${detail}`));
}
