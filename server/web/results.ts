import type * as Express from "express";
import { data } from "react-router";
import { z } from "zod";
import { Conflict, NotAllowed, NotFound, Unusable } from "../errors";

/** Turns what a server function refused into the response that says so; anything else is a fault and goes on. */
export async function loaderResult<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const refusal = refusalOf(error);
    if (refusal === null) throw error;
    throw data(refusal, { status: refusal.status });
  }
}

/** The same for fetches by script: the refusal comes back as JSON. */
export async function actionResult(work: () => Promise<object>): Promise<Response> {
  try {
    return Response.json(await work());
  } catch (error) {
    const refusal = refusalOf(error);
    if (refusal === null) throw error;
    return Response.json(refusal, { status: refusal.status });
  }
}

/** The same for what is asked of the server outside of the screens: the status, and the problem in JSON. */
export function tellRefusal(
  error: unknown,
  _request: Express.Request,
  response: Express.Response,
  next: Express.NextFunction,
): void {
  const refusal = refusalOf(error);
  if (refusal === null) return next(error);
  response.status(refusal.status).json({ problem: refusal.problem });
}

interface Refusal {
  status: number;
  problem: string;
  /** The field of the request that it is about, as in `shelf.name`; left out where it is about all of it. */
  at?: string;
}

/** What a person is told of an error that is theirs to mend; null for a fault of ours. */
function refusalOf(error: unknown): Refusal | null {
  if (error instanceof z.core.$ZodError) return { status: 400, ...firstIssue(error) };
  if (error instanceof NotFound) return { status: 404, problem: error.message };
  if (error instanceof NotAllowed) return { status: 403, problem: error.message };
  if (error instanceof Conflict) return { status: 409, problem: error.message };
  if (error instanceof Unusable)
    return {
      status: 400,
      problem: error.message,
      ...(error.at === undefined ? {} : { at: error.at }),
    };
  return refusedByDatabase(error);
}

/**
 * Values that the database does not take, where no schema saw it before: what it says of them is for whoever sent them
 * (SQLSTATE classes of PostgreSQL, appendix A).
 */
const UNUSABLE_VALUES: Record<string, string> = {
  "22003": "A number is too large",
  "22007": "A date cannot be read",
  "22008": "A date is out of range",
  "22021": "A text holds a character that cannot be kept",
  "22P02": "A value cannot be read",
  "22P05": "A text holds a character that cannot be kept",
  "23502": "Something is missing",
  "23503": "It names something that is not there",
  "23505": "It is there already",
  "23514": "A value is none of those that are possible",
  "54000": "A text is too long to be searched",
};

function refusedByDatabase(error: unknown): Refusal | null {
  const code = typeof error === "object" && error !== null && "code" in error ? String(error.code) : "";
  const problem = Object.hasOwn(UNUSABLE_VALUES, code) ? UNUSABLE_VALUES[code] : undefined;
  return problem === undefined ? null : { status: code.startsWith("23") ? 409 : 400, problem };
}

function firstIssue(error: z.core.$ZodError): { problem: string; at?: string } {
  const [issue] = error.issues;
  if (!issue) return { problem: "The request cannot be read" };
  const at = issue.path.join(".");
  return at === "" ? { problem: issue.message } : { problem: `${at}: ${issue.message}`, at };
}
