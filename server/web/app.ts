import compression from "compression";
import expressStaticGzip from "express-static-gzip";
import express, { type Express, type NextFunction, type Request, type Response } from "express";
import helmet from "helmet";
import { randomBytes } from "node:crypto";
import { readdirSync } from "node:fs";
import { createRequestHandler } from "@react-router/express";
import type { MikroORM } from "@mikro-orm/postgresql";
import type { ServerBuild } from "react-router";
import type { Environment } from "../environment";
import { log } from "../log";
import { findSession } from "../people/sessions";
import type { RankerState } from "../ranking/house-ranker";
import type { Viewer } from "../people/viewer";
import { readToken, writeToken } from "./cookie";
import { health } from "./health";
import { limitRates, limitRequests, placeOf } from "./limits";
import { refuse } from "./refuse";
import { chatEndpoints } from "../chats/endpoints";
import { contactFromElsewhere } from "../contact/elsewhere";
import { settingsOf } from "../house/settings";
import { smsEndpoints } from "../sms/endpoints";
import { loggable } from "../told";

export interface WebOptions {
  orm: MikroORM;
  environment: Environment;
  ranker: { state: RankerState };
  build: ServerBuild | (() => Promise<ServerBuild>);
  /** Folder of built assets; null while developing. */
  assets: string | null;
}

interface Locals {
  nonce: string;
  viewer: Viewer | null;
  sessionId: number | null;
  token: string | null;
}

function localsOf(response: Response): Locals {
  return response.locals as Locals;
}

/** Frames of inbound messages bring a policy of their own, stricter than ours. */
const MESSAGE_FRAME = /^\/(?:(?:outside\/)?messages\/[^/]+\/(?:html|attachments\/\d+)|paper)$/;

/** Pages that customers see, which may stand in a frame on sites that are allowed to. */
const PUBLIC_PAGE = /^\/(?:chat|contact\/[^/]+)(?:\.data)?$/;

/** The web process's application: security headers, assets, sessions, then the routes. */
export function webApp({ orm, environment, ranker, build, assets }: WebOptions): Express {
  const app = express();
  app.disable("x-powered-by");
  app.set("trust proxy", ["loopback", ...environment.trustProxy]);

  app.get("/healthz", async (_request, response) => {
    const found = await health(orm, environment, ranker);
    const { ranking, ...parts } = found;
    response
      .status(Object.values(parts).every(Boolean) && ranking !== "down" ? 200 : 503)
      .set("Cache-Control", "no-store")
      .json(found);
  });

  app.use(
    compression({
      filter: (request, response) => !isStream(response) && compression.filter(request, response),
    }),
  );
  if (assets !== null) {
    const compressed = { enableBrotli: true, orderPreference: ["br", "gz"] as ("br" | "gz")[] };
    app.use(
      "/assets",
      expressStaticGzip(`${assets}/assets`, {
        ...compressed,
        index: false,
        serveStatic: { immutable: true, maxAge: "1y", fallthrough: false },
      }),
    );
    const files = expressStaticGzip(assets, { ...compressed, index: false, serveStatic: { maxAge: "1h" } });
    // Pages are not looked for among the files.
    const names = new Set(readdirSync(assets));
    app.use((request, response, next) => {
      if (names.has(request.path.slice(1))) files(request, response, next);
      else next();
    });
  }

  // Gateways are no browsers: they sign in by their token, and are met before what is for browsers.
  app.use(
    "/sms",
    smsEndpoints(() => orm.em.fork()),
  );

  app.use(
    "/chat",
    chatEndpoints(() => orm.em.fork()),
  );

  const [ofPages, ofFrames] = [policy(assets === null, false), policy(assets === null, true)];
  app.use(limitRequests);
  app.use((request, response, next) => {
    // What is private is in no cache, also not in the browser's own for going back.
    response.set("Cache-Control", "no-store");
    if (request.secure) response.set("Strict-Transport-Security", "max-age=31536000");
    localsOf(response).nonce = randomBytes(16).toString("base64");
    if (PUBLIC_PAGE.test(placeOf(request.path))) return next();
    (MESSAGE_FRAME.test(request.path) ? ofFrames : ofPages)(request, response, next);
  });
  app.use(PUBLIC_PAGE, async (request, response, next) => {
    // Which sites may hold it is a setting, and may be another one by now.
    const { embedOrigins } = await settingsOf(orm.em.fork());
    policy(assets === null, false, embedOrigins)(request, response, next);
  });
  app.use(
    /^\/contact\/([a-z0-9-]{1,40})$/,
    contactFromElsewhere(() => orm.em.fork()),
  );
  app.use(sameOrigin);
  app.use(async (request, response, next) => {
    await recognise(orm, request, response);
    const { viewer } = localsOf(response);
    if (viewer) return limitRates(viewer, request, response, next);
    // Whoever is not signed in has nothing read but what signs in.
    const place = placeOf(request.path);
    const isRead =
      request.method === "GET" ||
      request.method === "HEAD" ||
      place === "/sign-in" ||
      PUBLIC_PAGE.test(place) ||
      place.startsWith("/q/") ||
      place.startsWith("/welcome/");
    if (isRead) return next();
    refuse(request, response, 401, "Your session has ended. Sign in again.");
  });

  app.use(
    createRequestHandler({
      build,
      mode: assets === null ? "development" : "production",
      getLoadContext: (request, response) => {
        const { viewer, sessionId, token, nonce } = localsOf(response);
        const address = request.ip ?? "unknown";
        return { viewer, sessionId, sessionToken: token, nonce, address, secure: request.secure };
      },
    }),
  );

  app.use((error: unknown, request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) return next(error);
    const status = statusOf(error);
    if (status >= 500)
      log.error({
        event: "request failed",
        path: request.path,
        error: loggable(error),
      });
    response
      .status(status)
      .type("text/plain")
      .send(
        status >= 500 ? "Something went wrong here. It was noted; please try again." : "That cannot be had.",
      );
  });
  return app;
}

function statusOf(error: unknown): number {
  const status =
    typeof error === "object" && error !== null && "status" in error ? Number(error.status) : 500;
  return status >= 400 && status < 600 ? status : 500;
}

function isStream(response: Response): boolean {
  return String(response.getHeader("content-type") ?? "").startsWith("text/event-stream");
}

function policy(developing: boolean, frame: boolean, holders: string[] | null = null) {
  const nonce = (_request: unknown, response: unknown) => `'nonce-${localsOf(response as Response).nonce}'`;
  return helmet({
    contentSecurityPolicy: frame
      ? false
      : {
          useDefaults: false,
          directives: {
            defaultSrc: ["'self'"],
            scriptSrc: ["'self'", nonce],
            // The interface's parts place themselves by styles of their elements.
            styleSrcAttr: ["'unsafe-inline'"],
            // Developing, Vite puts styles into the page by script.
            styleSrc: developing ? ["'self'", "'unsafe-inline'"] : ["'self'", nonce],
            imgSrc: ["'self'", "data:", "blob:"],
            fontSrc: ["'self'"],
            connectSrc: developing ? ["'self'", "ws:"] : ["'self'"],
            frameSrc: ["'self'"],
            objectSrc: ["'none'"],
            baseUri: ["'none'"],
            formAction: ["'self'"],
            frameAncestors: holders === null ? ["'none'"] : ["'self'", ...holders],
          },
        },
    // Told by whoever puts TLS in front.
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: false,
    // With no referrer at all, forms sent without script would name no origin, and be refused.
    referrerPolicy: { policy: "same-origin" },
    // It knows of no list; who reads it alone would let nobody.
    xFrameOptions: holders !== null ? false : frame ? { action: "sameorigin" } : { action: "deny" },
  });
}

/** Whatever changes something must come from our own pages. */
function sameOrigin(request: Request, response: Response, next: NextFunction): void {
  if (request.method === "GET" || request.method === "HEAD" || request.method === "OPTIONS") return next();
  const site = request.get("sec-fetch-site");
  const origin = request.get("origin");
  const own =
    site !== undefined
      ? site === "same-origin"
      : origin !== undefined && URL.canParse(origin) && new URL(origin).host === request.host;
  if (own) return next();
  refuse(
    request,
    response,
    403,
    "This request did not come from a page of ours. Open the page again and retry.",
  );
}

async function recognise(orm: MikroORM, request: Request, response: Response): Promise<void> {
  const locals = localsOf(response);
  locals.viewer = null;
  locals.sessionId = null;
  locals.token = await readToken(request.get("cookie"));
  if (locals.token === null) return;
  const found = await findSession(orm.em.fork(), locals.token, new Date());
  locals.viewer = found?.viewer ?? null;
  locals.sessionId = found?.id ?? null;
  if (found?.freshToken) {
    locals.token = found.freshToken;
    response.append("Set-Cookie", await writeToken(found.freshToken, request.secure));
  }
}
