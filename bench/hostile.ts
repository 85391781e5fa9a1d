import { fork } from "node:child_process";
import { monitorEventLoopDelay } from "node:perf_hooks";
import { setTimeout as delay } from "node:timers/promises";
import { readOpenCase } from "#server/answering/open";
import { messageHtml } from "#server/cases/conversation";
import { cleanMessage } from "#server/cases/clean";
import { waitingCases } from "#server/cases/waiting";
import { Case } from "#server/db/entities/cases";
import { Message } from "#server/db/entities/messages";
import { Person } from "#server/db/entities/people";
import { startBoss, useBoss } from "#server/queue/boss";
import { viewerOf } from "#server/people/viewer";
import { stopRankers } from "#server/ranking/house-ranker";
import { stopReading } from "#server/reading/pool";
import { listenForMail } from "#server/receiving/listen";
import { onDemoDatabase } from "./database";
import { freePort } from "../scripts/ports";

/** Shapes of messages, each made as large as wanted by `hostile-sender.ts`. */
const SHAPES = [
  "plain",
  "quotes",
  "oneLine",
  "styles",
  "deep",
  "tables",
  "parts",
  "nested",
  "addresses",
  "references",
  "headers",
  "base64",
  "flowed",
  "entities",
] as const;

/**
 * Receives generated mails of every shape up to 30 MB, opens their cases and shows them as they were formatted, all in one
 * process: for how long its serving thread stood still at most.
 */
export function benchHostile(): Promise<object> {
  return onDemoDatabase(async (em, url) => {
    process.env.DATABASE_URL = url;
    process.env.SESSION_SECRET ||= "for measuring only, and long enough for that";
    const boss = await startBoss(url, "sender");
    useBoss(boss);
    const port = await freePort();
    const server = await listenForMail({ port, host: "127.0.0.1", certificate: null, trusted: [] });
    const person = await em().findOneOrFail(Person, { email: "maren@example.com" }, { populate: ["team"] });
    const viewer = viewerOf(person);
    const megabytes = (process.env.HOSTILE_MB ?? "0.1,1,5,29").split(",").map(Number);
    const sender = fork("bench/hostile-sender.ts", [String(port)], { execArgv: ["--import", "tsx"] });
    const still: Record<string, number> = {};
    let worst = { still: 0, shape: "", megabytes: 0, seconds: 0 };
    let slowest = { seconds: 0, shape: "", megabytes: 0 };
    try {
      for (const shape of SHAPES)
        for (const size of megabytes) {
          const watch = monitorEventLoopDelay({ resolution: 5 });
          await delay(50);
          watch.enable();
          const began = performance.now();
          const answer = new Promise<string>((resolve) =>
            sender.once("message", (said: string) => resolve(said)),
          );
          sender.send({ shape, bytes: Math.round(size * 1024 * 1024) });
          const said = await answer;
          if (said !== "taken") throw new Error(`${shape} of ${size} MB: ${said}`);
          const [message] = await em().find(
            Message,
            { direction: "in" },
            { orderBy: { id: "desc" }, limit: 1, populate: ["case"] },
          );
          if (!message) throw new Error("Nothing was received");
          const subject = await em().findOneOrFail(Case, { id: message.case.id });
          await readOpenCase(em(), viewer, subject.number, 0, new Date());
          await waitingCases(em(), viewer, {
            list: "us",
            whose: "all",
            channel: null,
            topic: null,
            text: "",
          });
          if (message.html !== null) {
            const { html } = await messageHtml(em(), message.id);
            await cleanMessage(html, new Map(), false);
          }
          watch.disable();
          const seconds = (performance.now() - began) / 1000;
          // Half of what is measured is the timer's own step.
          const longest = Math.round(watch.max / 1e6 - 5);
          still[shape] = Math.max(still[shape] ?? 0, longest);
          if (longest > worst.still)
            worst = { still: longest, shape, megabytes: size, seconds: Math.round(seconds * 10) / 10 };
          if (seconds > slowest.seconds)
            slowest = { seconds: Math.round(seconds * 10) / 10, shape, megabytes: size };
        }
    } finally {
      sender.kill();
      await new Promise<void>((resolve) => server.close(() => resolve()));
      await stopReading();
      await stopRankers();
      await boss.stop({ graceful: false });
    }
    return { bench: "hostile", megabytes, longestStillMs: worst, byShapeMs: still, slowest };
  }, new Date());
}
