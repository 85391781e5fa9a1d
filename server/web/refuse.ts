import type { Request, Response } from "express";

/** Whether a request came from a script of ours that reads JSON: it is told in JSON, and led nowhere. */
export function wantsJson(headers: { get(name: string): string | null | undefined }): boolean {
  return (
    (headers.get("content-type") ?? "").startsWith("application/json") ||
    (headers.get("accept") ?? "").includes("application/json")
  );
}

/** So much of what is refused is read and thrown away, in bytes; and for so long. */
const MOST_DISCARDED = 64 * 1024 * 1024;
const LONGEST_DISCARDED_MS = 10_000;

/** Refuses a request in one sentence; what comes of it still is thrown away. */
export function refuse(request: Request, response: Response, status: number, problem: string): void {
  response.status(status).set("Cache-Control", "no-store");
  if (Number(request.get("content-length") ?? 0) > MOST_DISCARDED) response.set("Connection", "close");
  else discard(request);
  if (wantsJson({ get: (name) => request.get(name) })) response.json({ problem });
  else response.type("text/plain").send(problem);
}

/**
 * Reads on to a body's end: who still sends would hear of a broken connection, and never of the reason (RFC 9112,
 * section 9.6). One that is too long or too slow is cut off.
 */
function discard(request: Request): void {
  let left = MOST_DISCARDED;
  const timer = setTimeout(() => request.destroy(), LONGEST_DISCARDED_MS).unref();
  const done = () => clearTimeout(timer);
  request.on("end", done).on("close", done);
  request.on("data", (chunk: Buffer) => {
    left -= chunk.length;
    if (left < 0) request.destroy();
  });
}
