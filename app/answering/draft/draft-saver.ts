import * as z from "zod/mini";
import type { DraftInput } from "#server/answering/draft";
import { KeptInBrowser } from "../../ui/kept";
import { Saver, type SaveState } from "../../ui/saver";

/** What the server answers when it stored a draft. */
export const savedDraft = z.object({ version: z.number() });

export type Draft = Omit<DraftInput, "version" | "writer" | "sequence">;
export type DraftSaver = Saver<z.infer<typeof savedDraft>>;

/** A draft with the letter's text, as the browser keeps it. */
export interface DraftBody {
  draft: Draft;
  text: string;
}

const keptShape: z.ZodMiniType<DraftBody> = z.object({
  // What it holds is looked at by the server, as whatever a screen sends.
  draft: z.custom<Draft>((value) => typeof value === "object" && value !== null && "slips" in value),
  text: z.string(),
});

/** Where the browser keeps a person's draft of a case that is not stored yet. */
export function keptDraft(caseNumber: number, person: number): KeptInBrowser<DraftBody> {
  return new KeptInBrowser(`case:${caseNumber}:${person}`, keptShape);
}

interface Options {
  caseNumber: number;
  version: number;
  /** The draft as it stands, and the letter's text. */
  read: () => DraftBody;
  onState: (state: SaveState) => void;
  kept: KeptInBrowser<DraftBody>;
}

/**
 * Stores the draft of a case.
 * @param draft with the version that it rests on
 */
export function postDraft(
  caseNumber: number,
  draft: DraftInput,
  init: Pick<RequestInit, "keepalive" | "signal"> = {},
): Promise<Response> {
  return fetch(`/cases/${caseNumber}/draft`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ draft }),
    ...init,
  });
}

/** Saves the draft of a case as it is typed. */
export function draftSaver({ caseNumber, version, read, onState, kept }: Options): DraftSaver {
  const writer = crypto.randomUUID();
  return new Saver({
    version,
    answer: savedDraft,
    onState,
    keeping: kept.keeping(read),
    request: ({ version: known, sequence, ...init }) => {
      return postDraft(caseNumber, { ...read().draft, version: known, writer, sequence }, init);
    },
  });
}
