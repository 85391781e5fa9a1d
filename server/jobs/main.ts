import { reckonDue } from "../cases/reckon";
import { hostname } from "node:os";
import { z } from "zod";
import { Heartbeat } from "../db/entities/people";
import { connect, disconnect, entityManager } from "../db/orm";
import { openDoor } from "../chats/door";
import { endSilent } from "../chats/end";
import { databaseReady } from "../db/ready";
import { lookUp } from "../details/look-up";
import { environment } from "../environment";
import { log } from "../log";
import { sweepSessions } from "../people/sessions";
import { stopRankers } from "../ranking/house-ranker";
import { listenForMail } from "../receiving/listen";
import { stopReading } from "../reading/pool";
import { receivingCertificate } from "../receiving/tls";
import { closeMailServer, deliver } from "../sending/deliver";
import { noticeJob, sendNotice } from "../sending/notice";
import { queueLostDeliveries } from "../sending/schedule";
import { queues, startBoss, useBoss, type QueueName } from "../queue/boss";
import { answerChange, changeJob, queueChanges } from "../standing/occasions";
import { answerByRules } from "../standing/on-arrival";
import { endPast } from "../standing/rules";
import { answerSilences } from "../standing/silences";
import { endOnFaults, loggable } from "../told";

/**
 * The process that works in the background: delivers letters, asks outside systems, receives mail.
 * It may be killed at any line: what it had begun is begun again by itself or by another of its kind.
 */
endOnFaults((line) => log.fatal(line));
const settings = environment();
await databaseReady(settings.databaseUrl, (problem) =>
  log.warn({ event: "waiting for the database", problem }),
);
await connect(settings.databaseUrl);
const boss = await startBoss(settings.databaseUrl, "worker");
useBoss(boss);

const sendJob = z.object({ message: z.number().int() });
const standingJob = z.union([sendJob, changeJob]);
const lookUpJob = z.object({ case: z.number().int() });

/**
 * Works a queue: each job by itself, so that one failure does not touch its neighbours.
 * @param together whether the jobs of a batch are worked at once; else one after the other
 * @param batchSize how many are taken at once; those of a process that dies are begun again when their time is over
 * @param lots jobs that go in lots: each by itself where its lot fails
 */
async function work(
  name: QueueName,
  together: boolean,
  handle: (data: unknown, lastTry: boolean) => Promise<void>,
  batchSize = 10,
  lots?: { isOne(data: unknown): boolean; size: number; handle(all: unknown[]): Promise<void> },
): Promise<void> {
  await boss.work(name, { includeMetadata: true, batchSize, pollingIntervalSeconds: 0.5 }, async (jobs) => {
    const one = async (job: (typeof jobs)[number]) => {
      try {
        await handle(job.data, job.retryCount >= queues[name].retryLimit);
      } catch (error) {
        const message = loggable(error);
        log.warn({ event: "job failed", queue: name, job: job.id, message });
        await boss.fail(name, job.id, { message });
      }
    };
    const inLots = lots ? jobs.filter(({ data }) => lots.isOne(data)) : [];
    const alone = jobs.filter((job) => !inLots.includes(job));
    for (let at = 0; lots && at < inLots.length; at += lots.size) {
      const lot = inLots.slice(at, at + lots.size);
      try {
        await lots.handle(lot.map(({ data }) => data));
      } catch (error) {
        log.warn({ event: "jobs failed together", queue: name, message: loggable(error) });
        for (const job of lot) await one(job);
      }
    }
    if (together) await Promise.all(alone.map(one));
    else for (const job of alone) await one(job);
  });
}

// One letter at a time: whoever is killed leaves no more than one of which nobody knows whether it went.
await work("send", false, async (data, lastTry) => {
  const outcome = await deliver(
    await entityManager(),
    sendJob.parse(data).message,
    lastTry,
    () => new Date(),
  );
  if (outcome === "under way" || outcome === "put off") return;
  if (outcome === "try later") throw new Error("Not delivered yet");
});
await work("notice", true, async (data) => {
  await sendNotice(await entityManager(), noticeJob.parse(data), new Date());
});
await work("look-up", true, async (data, lastTry) => {
  const done = await lookUp(await entityManager(), lookUpJob.parse(data).case, new Date());
  if (!done && !lastTry) throw new Error("A detail source did not answer");
});
await work(
  "standing",
  false,
  async (data) => {
    const [em, job, now] = [await entityManager(), standingJob.parse(data), new Date()];
    await ("message" in job ? answerByRules(em, job.message, now) : answerChange(em, job, now));
  },
  200,
  {
    isOne: (data) => sendJob.safeParse(data).success,
    size: 20,
    handle: async (all) => {
      const messages = all.map((data) => sendJob.parse(data).message);
      await answerByRules(await entityManager(), messages, new Date());
    },
  },
);
await work("reckon-due", false, async () => {
  await reckonDue(await entityManager(), () => new Date());
});

const receiving = await listenForMail({
  port: settings.inboundSmtpPort,
  host: settings.host,
  certificate: await receivingCertificate(settings),
  trusted: settings.mailReceivers,
});
log.info({ event: "receiving mail", port: settings.inboundSmtpPort });

const BEAT_MS = 5000;
const name = `jobs ${hostname()} ${process.pid}`;

async function beat(): Promise<void> {
  const em = await entityManager();
  await em.upsert(Heartbeat, { name, beatAt: new Date() });
  await em.nativeDelete(Heartbeat, { beatAt: { $lt: new Date(Date.now() - 20 * BEAT_MS) } });
}

async function findLost(atStart: boolean): Promise<void> {
  const count = await queueLostDeliveries(await entityManager(), new Date(), atStart);
  if (count > 0) log.warn({ event: "letters queued again", count });
}

function complain(event: string) {
  return (error: unknown) => log.error({ event, error: loggable(error) });
}

await beat();
await findLost(true);
const timers = [
  setInterval(() => void beat().catch(complain("heartbeat failed")), BEAT_MS),
  setInterval(() => void findLost(false).catch(complain("looking for lost letters failed")), 15_000),
  setInterval(
    () =>
      void entityManager()
        .then((em) => sweepSessions(em, new Date()))
        .catch(complain("sweeping failed")),
    3_600_000,
  ),
];
timers.push(
  setInterval(
    () =>
      void entityManager()
        .then(async (em) => {
          const now = new Date();
          const ended = await endSilent(em, now);
          if (ended > 0) log.info({ event: "silent chats ended", count: ended });
          await openDoor(em.fork(), now);
        })
        .catch(complain("looking after chats failed")),
    20_000,
  ),
);
/** Does something again and again, and never twice at once. */
function every(milliseconds: number, event: string, does: () => Promise<unknown>): NodeJS.Timeout {
  let isUnderWay = false;
  return setInterval(() => {
    if (isUnderWay) return;
    isUnderWay = true;
    does()
      .catch(complain(event))
      .finally(() => (isUnderWay = false));
  }, milliseconds);
}
timers.push(
  every(1000, "asking rules of changes failed", async () => queueChanges((await entityManager()).fork())),
  every(15_000, "asking rules of silences failed", async () => {
    const now = new Date();
    await endPast(await entityManager(), now);
    await answerSilences(await entityManager(), now);
  }),
);
log.info({ event: "job runner ready" });

async function stop(): Promise<void> {
  timers.forEach((timer) => clearInterval(timer));
  await new Promise<void>((resolve) => {
    receiving.close(() => resolve());
  });
  await boss.stop({ graceful: true, timeout: 5000 });
  closeMailServer();
  await stopReading();
  await stopRankers();
  await disconnect();
}

for (const signal of ["SIGINT", "SIGTERM"] as const) {
  process.once(signal, () => {
    stop().then(
      () => process.exit(0),
      (error: unknown) => {
        complain("stopping failed")(error);
        process.exit(1);
      },
    );
  });
}
