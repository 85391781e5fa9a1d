import type { NextFunction, Request, Response } from "express";
import { RateLimiterMemory, RateLimiterRes } from "rate-limiter-flexible";
import type { Viewer } from "../people/viewer";
import { refuse } from "./refuse";

const KB = 1024;
const MB = 1024 * KB;

/** Largest bodies by address, in bytes; looked at before anything is read. */
const bodies: [RegExp, number][] = [
  [/^\/sign-(?:in|out)$/, 8 * KB],
  // 20 MB of a file, and what the form says around it.
  [/^\/(?:cases\/\d+\/files|replies\/files)$/, 21 * MB],
  [/^\/cases\/\d+\/(?:draft|names)$/, 2 * MB],
  [/^\/replies\/(?:create|[^/]+\/save)$/, 2 * MB],
  [/^\/setup(?:\/|$)/, 2 * MB],
  [/^\/(?:outside|contact)\//, 21 * MB],
];
const OTHERS = 256 * KB;

/** An address without what React Router adds to ask for data only. */
export function placeOf(path: string): string {
  return path.replace(/\.data$/, "");
}

function largestBody(path: string): number {
  return bodies.find(([pattern]) => pattern.test(path))?.[1] ?? OTHERS;
}

/**
 * Refuses before anything is read: addresses that no page has, bodies that are too large or do not say how large they are.
 */
export function limitRequests(request: Request, response: Response, next: NextFunction): void {
  if (!isReadable(request.originalUrl))
    return refuse(request, response, 400, "This address cannot be read. Go back and follow a link of ours.");
  if (request.method === "GET" || request.method === "HEAD") return next();
  const length = request.get("content-length");
  if (length === undefined && request.get("transfer-encoding") !== undefined)
    return refuse(request, response, 411, "The request does not say how long it is.");
  const most = largestBody(placeOf(request.path));
  if (Number(length ?? 0) <= most) return next();
  const size = most >= MB ? `${Math.floor(most / MB)} MB` : `${Math.floor(most / KB)} kB`;
  refuse(request, response, 413, `That is too large: at most ${size} are taken here.`);
}

/** Whether an address can be decoded, and holds no NUL. */
function isReadable(url: string): boolean {
  try {
    return !decodeURIComponent(url.replaceAll("+", " ")).includes("\u0000");
  } catch {
    return false; // Told as unreadable.
  }
}

/** What is asked of the server again and again, by person: so often in so many seconds. */
const rates: { what: RegExp; methods: RegExp; limiter: RateLimiterMemory }[] = [
  // Searching and ranking: several keys a second, for minutes.
  {
    what: /^\/(?:cases\/\d+\/(?:strip|opened)|replies\/trials|waiting\/best)$/,
    methods: /GET|POST/,
    limiter: new RateLimiterMemory({ points: 300, duration: 20 }),
  },
  // Files.
  {
    what: /^\/(?:cases\/\d+\/files|replies\/files)$/,
    methods: /POST/,
    limiter: new RateLimiterMemory({ points: 60, duration: 60 }),
  },
  // Whatever else changes something.
  {
    what: /^\//,
    methods: /POST|PUT|DELETE|PATCH/,
    limiter: new RateLimiterMemory({ points: 600, duration: 60 }),
  },
  { what: /^\//, methods: /GET/, limiter: new RateLimiterMemory({ points: 6000, duration: 60 }) },
];

/** Slows a person down who asks much more often than a hand can. */
export async function limitRates(
  viewer: Viewer,
  request: Request,
  response: Response,
  next: NextFunction,
): Promise<void> {
  const path = placeOf(request.path);
  const rate = rates.find((one) => one.what.test(path) && one.methods.test(request.method));
  const seconds = rate ? await tooOften(rate.limiter, viewer.id) : null;
  if (seconds === null) return next();
  response.set("Retry-After", String(seconds));
  refuse(request, response, 429, `That was too often. Wait ${seconds} s, then try again.`);
}

/** Counts one more of whoever it is. @returns in how many seconds they may ask again; null where they may now */
export async function tooOften(limiter: RateLimiterMemory, who: string | number): Promise<number | null> {
  try {
    await limiter.consume(who);
    return null;
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    return Math.max(1, Math.ceil(error.msBeforeNext / 1000));
  }
}
