import { data } from "react-router";
import { z } from "zod";
import { Conflict, NotAllowed, NotFound, Unusable } from "../errors";

/** Turns what a server function refused into the response that says so; anything else is a fault and goes on. */
export async function answering<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const status = statusOf(error);
    if (status === null) throw error;
    throw data({ problem: error instanceof Error ? error.message : String(error) }, { status });
  }
}

/** The same for fetches by script: the refusal comes back as JSON. */
export async function answeringJson(work: () => Promise<object>): Promise<Response> {
  try {
    return Response.json(await work());
  } catch (error) {
    const status = statusOf(error);
    if (status === null) throw error;
    return Response.json(
      {
        problem:
          error instanceof z.ZodError
            ? firstIssue(error)
            : error instanceof Error
              ? error.message
              : String(error),
      },
      { status },
    );
  }
}

function statusOf(error: unknown): number | null {
  if (error instanceof NotFound) return 404;
  if (error instanceof NotAllowed) return 403;
  if (error instanceof Conflict) return 409;
  if (error instanceof Unusable || error instanceof z.ZodError) return 400;
  return null;
}

function firstIssue(error: z.ZodError): string {
  const [issue] = error.issues;
  return issue ? `${issue.path.join(".")}: ${issue.message}` : error.message;
}
