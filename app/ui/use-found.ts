import { useEffect, useState } from "react";
import type * as z from "zod/mini";
import { readFrom } from "./read";

const WAIT_MS = 120;

/**
 * What the server finds by what is typed, a moment after the last key.
 * @param address to ask, with what was typed as `q`; null for not asking
 * @param schema of its answer
 * @returns nothing as long as nothing was found, and where the server could not be asked
 */
export function useFound<Found>(
  address: string | null,
  typed: string,
  schema: z.ZodMiniType<Found[]>,
): Found[] {
  const [found, setFound] = useState<Found[]>([]);
  useEffect(() => {
    if (address === null) return;
    const abort = new AbortController();
    const timer = setTimeout(() => {
      readFrom(`${address}?q=${encodeURIComponent(typed)}`, abort.signal)
        .then((answer) => setFound(schema.safeParse(answer).data ?? []))
        // Told as nothing found: what is typed whole can be taken all the same.
        .catch(() => setFound([]));
    }, WAIT_MS);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [address, typed, schema]);
  return address === null ? [] : found;
}
