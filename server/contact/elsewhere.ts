import { Readable } from "node:stream";
import type { NextFunction, Request, Response } from "express";
import type { EntityManager } from "@mikro-orm/postgresql";
import { NotFound, Unusable } from "../errors";
import { settingsOf } from "../house/settings";
import { openForm } from "./forms";
import { readFormData, submitForm } from "./submit";

/**
 * Takes contact forms that stand on other sites' pages, where the house lets them (CORS; Fetch Standard). One that a
 * script sends is answered in JSON; one that the page itself sends is led to our thanks, or told what is wrong with it.
 */
export function contactFromElsewhere(em: () => EntityManager) {
  return async (request: Request, response: Response, next: NextFunction): Promise<void> => {
    const origin = request.get("origin");
    const isElsewhere =
      origin !== undefined && URL.canParse(origin) && new URL(origin).host !== request.get("host");
    if (!isElsewhere || (request.method !== "POST" && request.method !== "OPTIONS")) return next();
    const { embedOrigins } = await settingsOf(em());
    // Others are refused like every request that comes from no page of ours.
    if (!embedOrigins.includes(origin)) return next();
    response.set({
      "Access-Control-Allow-Origin": origin,
      Vary: "Origin",
      "Access-Control-Allow-Methods": "POST",
      "Access-Control-Allow-Headers": "Content-Type, Accept",
    });
    if (request.method === "OPTIONS") return void response.status(204).end();
    const key = String(request.params[0] ?? "");
    const wantsJson = (request.get("accept") ?? "").includes("application/json");
    const refuse = (status: number, problems: object, words: string) => {
      response.status(status);
      if (wantsJson) response.json({ problems });
      else
        response
          .type("text/plain")
          .send(`${words}\n\nGo back with your browser: what you wrote is still there.`);
    };
    try {
      const form = await openForm(em(), key);
      const fields = await readFormData(
        new Request(`http://here.invalid${request.originalUrl}`, {
          method: "POST",
          headers: { "Content-Type": request.get("content-type") ?? "" },
          body: Readable.toWeb(request) as ReadableStream,
          duplex: "half",
        } as RequestInit),
      );
      const address = request.ip ?? "unknown";
      const done = await submitForm(em(), form, fields, { address, fromElsewhere: true, now: new Date() });
      if (!done.ok) return refuse(400, done.problems, Object.values(done.problems).join("\n"));
      if (wantsJson) response.json({ case: done.caseNumber, thanks: form.thanks });
      else response.redirect(303, `/contact/${form.key}?sent=${encodeURIComponent(done.caseNumber)}`);
    } catch (error) {
      if (error instanceof NotFound) return refuse(404, { form: error.message }, error.message);
      if (error instanceof Unusable) return refuse(400, { form: error.message }, error.message);
      next(error);
    }
  };
}
