import express, { Router, type NextFunction, type Request, type Response } from "express";
import { RateLimiterMemory } from "rate-limiter-flexible";
import { z } from "zod";
import type { EntityManager } from "@mikro-orm/postgresql";
import { MOST_PIECE } from "#core/chat/protocol";
import { MOST_ID } from "#core/forms/fields";
import { Attachment } from "../db/entities/answering";
import { NotFound } from "../errors";
import { contentOf } from "../files/store";
import { MOST_REMARK, pressInChat } from "../questions/press";
import { tooOften } from "../web/limits";
import { tellRefusal } from "../web/results";
import { t } from "../words";
import { piecesAfter } from "./pieces";
import {
  beginChat,
  beginningSchema,
  chatOf,
  chatState,
  endInWindow,
  sayInWindow,
  tellRead,
  windowIsThere,
} from "./window";

/** Chats that one network address begins within ten minutes. */
const beginnings = new RateLimiterMemory({ points: 20, duration: 600 });
/** What one address asks within ten seconds. */
const asking = new RateLimiterMemory({ points: 200, duration: 10 });

const number = z.coerce.number().int().min(0).max(MOST_ID);
const said = z.strictObject({
  key: z.string().min(1).max(60),
  text: z.string().trim().min(1).max(MOST_PIECE),
});
const pressed = z.strictObject({
  asked: number,
  answer: z.string().min(1).max(200),
  remark: z.string().max(MOST_REMARK),
});
const read = z.strictObject({ got: number, read: number });

/** The token of a window, as it stands in the request. */
function tokenOf(request: Request): string {
  const token = /^Bearer ([\w-]{20,200})$/.exec(request.get("authorization") ?? "")?.[1];
  if (token === undefined) throw new NotFound(t("thereIsNoSuchChat"));
  return token;
}

/**
 * What a chat window asks by requests: to begin a chat, and all the rest where no WebSocket can be had. JSON; the window
 * shows its token (`Authorization: Bearer`).
 */
export function chatEndpoints(em: () => EntityManager): Router {
  const router = Router();
  router.use(limited(asking));
  router.use(express.json({ limit: "32kb" }));
  router.post("/begin", limited(beginnings), async (request, response) => {
    const input = beginningSchema.parse(request.body);
    response.json({ token: (await beginChat(em(), input, new Date())).token });
  });
  router.get("/pieces", async (request, response) => {
    const chat = await chatOf(em(), tokenOf(request));
    await windowIsThere(em(), chat.id, new Date());
    response.json({
      pieces: await piecesAfter(em(), chat.id, number.parse(request.query.after ?? "0")),
      chat: await chatState(em(), chat.id),
    });
  });
  router.post("/say", async (request, response) => {
    const chat = await chatOf(em(), tokenOf(request));
    response.json({ n: await sayInWindow(em(), chat.id, said.parse(request.body), new Date()) });
  });
  router.post("/read", async (request, response) => {
    const chat = await chatOf(em(), tokenOf(request));
    await tellRead(em(), chat, read.parse(request.body), new Date());
    response.json({});
  });
  router.post("/press", async (request, response) => {
    const chat = await chatOf(em(), tokenOf(request));
    const { asked, ...given } = pressed.parse(request.body);
    await pressInChat(em(), chat.id, asked, given, new Date());
    response.json({});
  });
  router.post("/end", async (request, response) => {
    const chat = await chatOf(em(), tokenOf(request));
    await endInWindow(em(), chat.id, new Date());
    response.json({});
  });
  router.get("/files/:id", async (request, response) => {
    const chat = await chatOf(em(), tokenOf(request));
    const file = await em().findOne(Attachment, { id: number.parse(request.params.id), message: { chat } });
    if (!file) throw new NotFound(t("thereIsNoSuchFile"));
    response
      .attachment(file.name)
      .type(file.contentType)
      .set("X-Content-Type-Options", "nosniff")
      .send(await contentOf(em(), file.file.id));
  });
  router.use(tellRefusal);
  // What is no such request may be a page of ours.
  return router;
}

/** Slows an address down that asks much more often than people do. */
function limited(limiter: RateLimiterMemory) {
  return async (request: Request, response: Response, next: NextFunction): Promise<void> => {
    const seconds = await tooOften(limiter, request.ip ?? "unknown");
    if (seconds === null) return next();
    response
      .status(429)
      .set("Retry-After", String(seconds))
      .json({ problem: t("thatWasTooOftenWait") });
  };
}
