import pino from "pino";

/** Structured log, one line an event. Never give it message bodies, cookies, passwords or tokens. */
export const log = pino({
  level: process.env.LOG_LEVEL ?? "info",
  base: { process: process.env.PROCESS_NAME ?? "program" },
  timestamp: pino.stdTimeFunctions.isoTime,
});
