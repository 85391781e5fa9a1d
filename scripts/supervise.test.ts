import { afterEach, beforeEach, expect, test } from "@jest/globals";
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Supervisor } from "./supervise";

let folder = "";
let said: string[] = [];
let heard: (() => void)[] = [];
let supervisor: Supervisor;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "supervise-"));
  [said, heard] = [[], []];
  supervisor = new Supervisor(folder, (line) => {
    said.push(line);
    for (const one of heard) one();
  });
});
afterEach(async () => {
  await supervisor.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Waits until so many lines were said. */
function lines(count: number): Promise<void> {
  return new Promise((resolve) => {
    const look = () => {
      if (said.length >= count) resolve();
    };
    heard.push(look);
    look();
  });
}

/** Waits until a file holds something. */
async function content(name: string, wanted: RegExp): Promise<string> {
  for (;;) {
    const text = existsSync(join(folder, name)) ? readFileSync(join(folder, name), "utf8") : "";
    if (wanted.test(text)) return text;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

const isAlive = (pid: number) => {
  try {
    return process.kill(pid, 0);
  } catch {
    return false; // Nobody has this number.
  }
};

const script = (code: string) => ["-e", code];
const STAYS = "process.stdout.write('here '+process.env.PROCESS_NAME); setInterval(()=>{}, 1000);";

test("a part runs under its name, its number is written down, its words go to a log that others cannot read", async () => {
  supervisor.run({ name: "web", args: script(STAYS), env: { PORT: "1" } });
  await content("log/web.log", /here web/);
  expect(statSync(join(folder, "log", "web.log")).mode & 0o777).toBe(0o600);
  expect(statSync(join(folder, "log")).mode & 0o777).toBe(0o700);
  const pid = Number(await content("run/web.pid", /^\d+$/));
  expect(isAlive(pid)).toBe(true);
  await supervisor.stop();
  expect(isAlive(pid)).toBe(false);
  expect(existsSync(join(folder, "run", "web.pid"))).toBe(false);
  expect(said).toEqual([]);
});

test("one that ends is started again, later each time, and that is told with where its log is", async () => {
  supervisor.run({ name: "jobs", args: script("console.error('broken'); process.exit(3)"), env: {} });
  await lines(3);
  expect(said.map((line) => line.replace(folder, ""))).toEqual([
    "jobs ended (code 3); it starts again in 0.25 s. Its log: /log/jobs.log",
    "jobs ended (code 3); it starts again in 0.5 s. Its log: /log/jobs.log",
    "jobs ended (code 3); it starts again in 1 s. Its log: /log/jobs.log",
  ]);
  expect(readFileSync(join(folder, "log", "jobs.log"), "utf8").match(/broken/g)).toHaveLength(3);
});

test("one that is killed is told by its signal; stopping starts nothing again", async () => {
  supervisor.run({ name: "web", args: script(STAYS), env: {} });
  const pid = Number(await content("run/web.pid", /^\d+$/));
  await content("log/web.log", /here/);
  process.kill(pid, "SIGKILL");
  await lines(1);
  expect(said[0]).toMatch(/^web ended \(SIGKILL\)/);
  await supervisor.stop();
  supervisor.run({ name: "web", args: script(STAYS), env: {} });
  expect(existsSync(join(folder, "run", "web.pid"))).toBe(false);
});
