import { isRouteErrorResponse } from "react-router";
import * as z from "zod/mini";

/** What the server refused, in words; status 0 where it did not answer at all. */
export interface Refusal {
  problem: string;
  status: number;
}

const refusal = z.object({ problem: z.string(), status: z.optional(z.number()) });

/** What an answer of the server refuses; null where it does not. */
export function refusalOf(answer: unknown): Refusal | null {
  const read = z.safeParse(refusal, answer);
  return read.success ? { problem: read.data.problem, status: read.data.status ?? 400 } : null;
}

/**
 * The `clientAction` of every action that screens ask by script: whatever comes of it, a refusal, an answer that cannot be
 * read or none at all, is told in words, and leaves the screen as it is.
 */
export async function told({ serverAction }: { serverAction: () => Promise<unknown> }): Promise<unknown> {
  try {
    return await serverAction();
  } catch (error) {
    if (error instanceof Response) return refused(error.status, await error.text());
    if (isRouteErrorResponse(error)) return refused(error.status, error.data);
    return { problem: "The server cannot be reached. Nothing was changed; try again.", status: 0 };
  }
}

/** @param data what the server said: JSON, its text, or a sentence */
function refused(status: number, data: unknown): Refusal {
  const read = refusalOf(typeof data === "string" ? jsonOf(data) : data);
  const words =
    typeof data === "string" && data !== "" && data.length < 300 && !data.startsWith("<") ? data : null;
  return { problem: read?.problem ?? words ?? `The server said ${status}`, status };
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null; // It is a sentence.
  }
}
