import type { Request, Response } from "express";

/** Whether a request came from a script of ours that reads JSON: it is told in JSON, and led nowhere. */
export function wantsJson(headers: { get(name: string): string | null | undefined }): boolean {
  return (
    (headers.get("content-type") ?? "").startsWith("application/json") ||
    (headers.get("accept") ?? "").includes("application/json")
  );
}

/** Refuses a request in one sentence, and reads no more of it. */
export function refuse(request: Request, response: Response, status: number, problem: string): void {
  response.status(status).set("Cache-Control", "no-store");
  if (Number(request.get("content-length") ?? 0) > 0) response.set("Connection", "close");
  if (wantsJson({ get: (name) => request.get(name) })) response.json({ problem });
  else response.type("text/plain").send(problem);
}
