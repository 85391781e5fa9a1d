import * as z from "zod/mini";
import type { DraftInput } from "#server/answering/draft";
import { Saver, type SaveState } from "../ui/saver";

const saved = z.object({ version: z.number(), otherNames: z.array(z.string()) });

export type Draft = Omit<DraftInput, "version">;
export type DraftSaver = Saver<z.infer<typeof saved>>;

interface Options {
  caseNumber: number;
  version: number;
  /** The draft as it stands, and the letter's text. */
  read: () => { draft: Draft; text: string };
  onState: (state: SaveState) => void;
  onNames: (names: string[]) => void;
}

/** Saves the draft of a case as it is typed. */
export function draftSaver({ caseNumber, version, read, onState, onNames }: Options): DraftSaver {
  return new Saver({
    version,
    answer: saved,
    onState,
    onSaved: ({ otherNames }) => onNames(otherNames),
    request: (known, keepalive) => {
      const { draft, text } = read();
      return fetch(`/cases/${caseNumber}/draft`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify({ draft: { ...draft, version: known }, text }),
        keepalive,
      });
    },
  });
}
