import { isRouteErrorResponse } from "react-router";
import { t } from "../words/ui";

/** What the server refused, in words; status 0 where it did not answer at all. */
export interface Refusal {
  problem: string;
  status: number;
  /** The field that it is about, where it is about one. */
  at?: string | undefined;
}

/**
 * What an answer of the server refuses; null where it does not. What reads it comes once the page is there.
 * @throws where that cannot be fetched
 */
export async function refusalOf(answer: unknown): Promise<Refusal | null> {
  const { refusalShape } = await import("./refusal-shape");
  const read = refusalShape.safeParse(answer);
  if (!read.success) return null;
  const { problem, status = 400, at } = read.data;
  return at === undefined ? { problem, status } : { problem, status, at };
}

/** The words of a refusal; null where there are none, or they cannot be read. */
export async function problemOf(answer: unknown): Promise<string | null> {
  return refusalOf(answer).then(
    (refusal) => refusal?.problem ?? null,
    () => null,
  );
}

/**
 * The `clientAction` of every action that screens ask by script: whatever comes of it, a refusal, an answer that cannot be
 * read or none at all, is told in words, and leaves the screen as it is.
 */
export async function answerOrRefusal({
  serverAction,
}: {
  serverAction: () => Promise<unknown>;
}): Promise<unknown> {
  try {
    return await serverAction();
  } catch (error) {
    if (error instanceof Response) return await refused(error.status, await error.text());
    if (isRouteErrorResponse(error)) return await refused(error.status, error.data);
    return { problem: t("theServerCannotBeReachedNothing"), status: 0 };
  }
}

/** @param data what the server said: JSON, its text, or a sentence */
async function refused(status: number, data: unknown): Promise<Refusal> {
  const told = await problemOf(typeof data === "string" ? jsonOf(data) : data);
  const words =
    typeof data === "string" && data !== "" && data.length < 300 && !data.startsWith("<") ? data : null;
  return { problem: told ?? words ?? t("theServerSaidStatus2", { status }), status };
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null; // It is a sentence.
  }
}
