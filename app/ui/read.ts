import { problemOf } from "./refusal";
import { t } from "../words/ui";

/**
 * Reads something that the server gives by its address, beside what the screen was loaded with.
 * @param signal gives it up
 * @returns JSON as the server wrote it
 * @throws Error in words, where the server refuses it, answers what is no JSON, or cannot be reached
 */
export async function readFrom(path: string, signal: AbortSignal): Promise<unknown> {
  const response = await fetch(path, { signal, headers: { Accept: "application/json" } }).catch(() => {
    throw new Error(t("theServerCannotBeReached"));
  });
  const answer: unknown = await response.json().catch(() => null);
  if (!response.ok || answer === null)
    throw new Error((await problemOf(answer)) ?? t("theServerAnsweredStatus", { status: response.status }));
  return answer;
}
