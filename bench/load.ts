import { readFileSync } from "node:fs";
import { setTimeout as delay } from "node:timers/promises";
import { Agent, get } from "node:http";
import { createTransport } from "nodemailer";
import { percentiles } from "./measure";
import { signInTo, withProgram, type Program } from "./program";

const PEOPLE = ["maren", "bram", "sunniva", "idris", "nele", "tadeo"].map((name) => `${name}@example.com`);
const TICKS_A_SECOND = 100;
/** Before anything is measured. */
const WARM_MS = 15_000;

/** CPU seconds that a process has used (proc(5)). */
function cpuOf(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, "utf8").split(") ")[1]?.split(" ") ?? [];
  return (Number(fields[11]) + Number(fields[12])) / TICKS_A_SECOND;
}

function memoryOf(pid: number): number {
  return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) >> 10;
}

/** So many connections ask for pages as fast as they are answered, for so many milliseconds. */
async function ask(
  program: Program,
  cookies: string[],
  paths: string[],
  connections: number,
  milliseconds: number,
): Promise<{ perSecond: number; p50: number; p95: number; failed: number }> {
  const agent = new Agent({ keepAlive: true, maxSockets: connections });
  const times: number[] = [];
  let failed = 0;
  const until = performance.now() + milliseconds;
  let count = 0;
  const one = () =>
    new Promise<void>((resolve) => {
      const at = (count += 1);
      const person = at % cookies.length;
      const began = performance.now();
      const request = get(
        `${program.base}${paths[at % paths.length]}`,
        { agent, headers: { Cookie: cookies[person] ?? "", Accept: "text/html" } },
        (response) => {
          response.resume();
          // A session is given another token from time to time; a browser keeps the new one.
          const [fresh] = response.headers["set-cookie"] ?? [];
          if (fresh !== undefined) cookies[person] = fresh.split(";")[0] ?? "";
          response.on("end", () => {
            if (response.statusCode === 200) times.push(performance.now() - began);
            else failed += 1;
            resolve();
          });
        },
      );
      request.setTimeout(10_000, () => request.destroy(new Error("too slow")));
      request.on("error", () => {
        failed += 1;
        resolve();
      });
    });
  await Promise.all(
    Array.from({ length: connections }, async () => {
      while (performance.now() < until) await one();
    }),
  );
  agent.destroy();
  return { perSecond: Math.round(times.length / (milliseconds / 1000)), ...percentiles(times), failed };
}

/** Opens a live screen: hears its events, and does with them what the screen does. */
function watch(program: Program, cookie: string, onRow: (data: string) => void): () => void {
  const request = get(
    `${program.base}/events?list=1`,
    { agent: false, headers: { Cookie: cookie } },
    (response) => {
      let text = "";
      response.setEncoding("utf8");
      response.on("data", (chunk: string) => {
        text += chunk;
        const parts = text.split("\n\n");
        text = parts.pop() ?? "";
        for (const part of parts) if (part.startsWith("event: row")) onRow(part);
      });
      response.on("error", () => undefined);
    },
  );
  request.on("error", () => undefined);
  return () => request.destroy();
}

async function screens(program: Program, cookies: string[], count: number, seconds: number): Promise<object> {
  const heard: [string, number][] = [];
  const stops = Array.from({ length: count }, (_, index) =>
    watch(program, cookies[index % cookies.length] ?? "", (data) => {
      const key = /tick (\d+)/.exec(data)?.[1];
      if (key !== undefined) heard.push([key, performance.now()]);
    }),
  );
  const sentAt = new Map<string, number>();
  await delay(3000);
  const web = program.pid("web");
  const before = cpuOf(web);
  const transport = createTransport({
    host: "127.0.0.1",
    port: program.inboundPort,
    ignoreTLS: true,
    pool: true,
  });
  for (let tick = 0; tick < seconds; tick += 1) {
    const began = performance.now();
    await transport.sendMail({
      from: `Tick ${tick} <tick${tick}@example.net>`,
      to: "desk@example.com",
      subject: `tick ${tick}`,
      text: "When does the first boat sail tomorrow?",
    });
    // Taken in: from here on the change is known.
    sentAt.set(String(tick), performance.now());
    await delay(Math.max(0, 1000 - (performance.now() - began)));
  }
  await delay(2000);
  const cpu = (cpuOf(web) - before) / (seconds + 2);
  transport.close();
  for (const stop of stops) stop();
  // A screen may hear of a message before whoever sent it hears that it was taken.
  const times = heard.map(([key, at]) => Math.max(0, at - (sentAt.get(key) ?? Infinity)));
  return {
    screens: count,
    changesSeen: times.length,
    changesWanted: count * seconds,
    untilSeen: percentiles(times),
    coresOfWeb: Number(cpu.toFixed(2)),
  };
}

/** Pages a second under load, and what open screens cost while mail comes in. */
export function benchLoad(): Promise<object> {
  return withProgram(async (program) => {
    const cookies: string[] = [];
    for (const email of PEOPLE) cookies.push(await signInTo(program, email));
    const numbers = Array.from({ length: 20 }, (_, index) => `/cases/${20_250 + index}`);
    // Compiled, and with everything learned that was sent before.
    await ask(program, cookies, ["/waiting", ...numbers], 4, WARM_MS);
    const web = program.pid("web");
    const seconds = Number(process.env.LOAD_SECONDS ?? 15);
    // One figure before, and one after each part.
    const memoryMB = [memoryOf(web)];
    const measured = async <Result>(part: Promise<Result>): Promise<Result> => {
      const result = await part;
      memoryMB.push(memoryOf(web));
      return result;
    };
    return {
      bench: "load",
      waiting10: await measured(ask(program, cookies, ["/waiting"], 10, seconds * 1000)),
      case10: await measured(ask(program, cookies, numbers, 10, seconds * 1000)),
      both50: await measured(ask(program, cookies, ["/waiting", ...numbers.slice(0, 1)], 50, seconds * 1000)),
      live: await measured(screens(program, cookies, 200, seconds)),
      memoryMB,
    };
  });
}
