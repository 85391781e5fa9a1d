import express, { Router, type NextFunction, type Request, type Response } from "express";
import type { EntityManager } from "@mikro-orm/postgresql";
import { environment } from "../environment";
import { log } from "../log";
import { isSame } from "../proof";
import { tellRefusal } from "../web/results";
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
  router.use(tellRefusal);
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
