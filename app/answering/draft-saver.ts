import * as z from "zod/mini";
import type { DraftInput } from "#server/answering/draft";
import { Saver, type SaveState } from "../ui/saver";

/** What the server answers when it stored a draft. */
export const savedDraft = z.object({ version: z.number(), otherNames: z.array(z.string()) });

export type Draft = Omit<DraftInput, "version">;
export type DraftSaver = Saver<z.infer<typeof savedDraft>>;

interface Options {
  caseNumber: number;
  version: number;
  /** The draft as it stands, and the letter's text. */
  read: () => { draft: Draft; text: string };
  onState: (state: SaveState) => void;
  onNames: (names: string[]) => void;
}

/**
 * Stores the draft of a case.
 * @param body the draft with the version that it rests on, and the letter's text
 * @param keepalive whether the page is going away
 */
export function postDraft(
  caseNumber: number,
  body: { draft: DraftInput; text: string },
  keepalive = false,
): Promise<Response> {
  return fetch(`/cases/${caseNumber}/draft`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
    keepalive,
  });
}

/** Saves the draft of a case as it is typed. */
export function draftSaver({ caseNumber, version, read, onState, onNames }: Options): DraftSaver {
  return new Saver({
    version,
    answer: savedDraft,
    onState,
    onSaved: ({ otherNames }) => onNames(otherNames),
    request: (known, keepalive) => {
      const { draft, text } = read();
      return postDraft(caseNumber, { draft: { ...draft, version: known }, text }, keepalive);
    },
  });
}
