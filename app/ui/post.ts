import type * as z from "zod/mini";
import { object, safeParse, string } from "zod/mini";

/** What a request by script came to: what the server answered, or why it refused, in words. */
export type Answered<T> = { ok: true; data: T } | { ok: false; problem: string; status: number };

const refusal = object({ problem: string() });

/**
 * Sends JSON (or a form) to the server and reads its answer. Never throws: a refusal, an answer that cannot be read and
 * a connection that fails are all told in words.
 */
export async function post<T>(
  url: string,
  body: object,
  schema: z.ZodMiniType<T>,
  init: { method?: string; signal?: AbortSignal; keepalive?: boolean } = {},
): Promise<Answered<T>> {
  const form = body instanceof FormData;
  let response: Response;
  try {
    response = await fetch(url, {
      method: "POST",
      ...init,
      ...(form ? { body } : { headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) }),
    });
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError")
      return { ok: false, problem: "Given up", status: 0 };
    return { ok: false, problem: "The server cannot be reached. Nothing was changed; try again.", status: 0 };
  }
  const json: unknown = await response.json().catch(() => null);
  if (!response.ok) {
    const told = safeParse(refusal, json);
    const problem = told.success ? told.data.problem : `The server said ${response.status}`;
    return { ok: false, problem, status: response.status };
  }
  const parsed = safeParse(schema, json);
  return parsed.success
    ? { ok: true, data: parsed.data }
    : {
        ok: false,
        problem: "The server’s answer could not be read; load the page again",
        status: response.status,
      };
}
