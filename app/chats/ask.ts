import * as z from "zod/mini";
import { problemOf } from "../ui/refusal";
import { t } from "../words/chats";

/** What came of asking: what was answered, or why not, in words. */
export type Asked<T> = { ok: true; data: T } | { ok: false; problem: string };

/**
 * Asks the server for something of a chat, beside what the screen was loaded with: the other chats stay as they are.
 * @param body what is sent; without it, something is read
 */
export async function askChat<T>(path: string, schema: z.ZodMiniType<T>, body?: object): Promise<Asked<T>> {
  let answer: unknown;
  try {
    const response = await fetch(path, {
      headers: { "Content-Type": "application/json", Accept: "application/json" },
      ...(body === undefined ? {} : { method: "POST", body: JSON.stringify(body) }),
    });
    answer = await response.json();
  } catch {
    return { ok: false, problem: t("itCannotBeReached") };
  }
  const problem = await problemOf(answer);
  if (problem !== null) return { ok: false, problem };
  const read = z.safeParse(schema, answer);
  return read.success ? { ok: true, data: read.data } : { ok: false, problem: t("theServerDidNotTakeIt") };
}

/** An answer that says nothing but that it is done. */
export const done = z.looseObject({});
