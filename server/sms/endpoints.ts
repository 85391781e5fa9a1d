import { timingSafeEqual } from "node:crypto";
import express, { Router, type NextFunction, type Request, type Response } from "express";
import { z } from "zod";
import type { EntityManager } from "@mikro-orm/postgresql";
import { digestOf } from "../digest";
import { environment } from "../environment";
import { NotFound } from "../errors";
import { log } from "../log";
import { acceptReceipt, acceptShortMessage, inboundSchema, receiptSchema } from "./receive";

/**
 * Where a gateway hands in short messages and says what became of ours (docs/sms.md): `POST /sms/messages` and
 * `POST /sms/receipts`, JSON, with the token that both sides know.
 */
export function smsEndpoints(em: () => EntityManager): Router {
  const router = Router();
  router.use(signedByGateway);
  router.use(express.json({ limit: "64kb" }));
  router.post("/messages", async (request, response) => {
    const { caseNumber, messageId, opened } = await acceptShortMessage(
      em(),
      inboundSchema.parse(request.body),
      new Date(),
    );
    log.info({ event: "received", channel: "sms", case: caseNumber, message: messageId, opened });
    response.json({ case: caseNumber });
  });
  router.post("/receipts", async (request, response) => {
    response.json({ known: await acceptReceipt(em(), receiptSchema.parse(request.body), new Date()) });
  });
  router.use((error: unknown, _request: Request, response: Response, next: NextFunction) => {
    if (error instanceof NotFound) return void response.status(404).json({ problem: error.message });
    if (error instanceof z.core.$ZodError) {
      const [issue] = error.issues;
      const problem = `${issue?.path.join(".") ?? "body"}: ${issue?.message ?? "cannot be read"}`;
      return void response.status(400).json({ problem });
    }
    next(error);
  });
  return router;
}

function signedByGateway(request: Request, response: Response, next: NextFunction): void {
  const { sms } = environment();
  const given = /^Bearer (\S{1,500})$/.exec(request.get("authorization") ?? "")?.[1];
  const isTheirs = sms !== null && given !== undefined && isSame(given, sms.token);
  if (isTheirs) return next();
  response
    .status(401)
    .set("WWW-Authenticate", "Bearer")
    .json({ problem: "The gateway’s token is missing or wrong" });
}

/** Compared in time that says nothing of where they differ. */
function isSame(one: string, other: string): boolean {
  const [a, b] = [one, other].map((text) => Buffer.from(digestOf(Buffer.from(text))));
  return a !== undefined && b !== undefined && timingSafeEqual(a, b);
}
