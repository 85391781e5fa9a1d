import { useEffect, useState } from "react";
import { useDebounce } from "use-debounce";
import * as z from "zod/mini";

const answer = z.object({ names: z.array(z.string()) });

/** So long the hand rests before the words are looked through. */
const WAIT_MS = 700;
const NONE: string[] = [];

/**
 * Names of other customers that stand in a letter, as the server knows them. Where it cannot be asked, what it said last
 * holds; it looks again itself before anything is sent.
 * @param text the letter's words; null while there are none
 */
export function useOtherNames(caseNumber: number, text: string | null): string[] {
  const [names, setNames] = useState(NONE);
  const [settled] = useDebounce(text, WAIT_MS);
  useEffect(() => {
    if (settled === null || settled.trim() === "") return;
    const abort = new AbortController();
    fetch(`/cases/${caseNumber}/names`, {
      method: "POST",
      headers: { "Content-Type": "application/json", Accept: "application/json" },
      body: JSON.stringify({ text: settled }),
      signal: abort.signal,
    })
      .then(async (response) => {
        if (!response.ok) return;
        const read = answer.safeParse(await response.json());
        if (read.success)
          setNames((before) => (before.join("\n") === read.data.names.join("\n") ? before : read.data.names));
      })
      .catch((error: unknown) => {
        if (!abort.signal.aborted) console.warn("Other customers’ names could not be looked for", error);
      });
    return () => abort.abort();
  }, [caseNumber, settled]);
  // What is not written any more holds nobody’s name.
  return text === null || text.trim() === "" ? NONE : names;
}
