import { reasonOf } from "#core/text/reason";
import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { setTimeout as delay } from "node:timers/promises";
import { ownAddress, readEnvironment, type Environment } from "#server/environment";
import { ensurePackages, postgres } from "./debian";
import { isFree } from "./ports";
import { keepRunning, startPostgres, type Postgres } from "./postgres";
import { Supervisor, type Part } from "./supervise";

/** What ends the command with one clear line. */
export class Refusal extends Error {}

const print = (line: string) => process.stdout.write(`  ${line}\n`);

/** The session secret: the one that is set, else one made once and kept. */
function sessionSecret(dataDir: string): string {
  if (process.env.SESSION_SECRET) return process.env.SESSION_SECRET;
  const path = join(dataDir, "session-secret");
  if (!existsSync(path)) writeFileSync(path, randomBytes(32).toString("hex"), { mode: 0o600 });
  return readFileSync(path, "utf8");
}

function settings(databaseUrl: string, secret: string): Environment {
  const read = readEnvironment({ ...process.env, DATABASE_URL: databaseUrl, SESSION_SECRET: secret });
  if (!read.ok) throw new Refusal(read.problem);
  return read.environment;
}

async function refuseTakenPorts(environment: Environment): Promise<void> {
  const ports: [string, number][] = [
    ["PORT", environment.port],
    ["INBOUND_SMTP_PORT", environment.inboundSmtpPort],
    ...(environment.standins.on
      ? ([
          ["STANDINS_PORT", environment.standins.port],
          ["STANDINS_PORT + 1", environment.standins.smtpPort],
        ] as [string, number][])
      : []),
  ];
  const numbers = ports.map(([, port]) => port);
  for (const [name, port] of ports) {
    if (numbers.filter((one) => one === port).length > 1)
      throw new Refusal(`${name}=${port} is asked for twice; give each its own port`);
    if (!(await isFree(port, environment.host)))
      throw new Refusal(`${name}=${port} is in use; choose another port`);
  }
}

function runOnce(args: string[], env: NodeJS.ProcessEnv): Promise<void> {
  return new Promise((done, fail) => {
    const child = spawn(process.execPath, args, { stdio: ["ignore", "inherit", "inherit"], env });
    child.once("exit", (code) =>
      code === 0 ? done() : fail(new Refusal(`${args.at(-1) ?? "a step"} failed; see above`)),
    );
  });
}

/** How the program is run: as built, or with reload for developers. */
export interface Mode {
  build: () => Promise<unknown>;
  web: string[];
  jobs: string[];
  standins: string[];
}

/** Starts everything, says where it is, and runs until told to stop. */
export async function launch(mode: Mode): Promise<void> {
  const dataDir = resolve(process.env.DATA_DIR || ".data");
  // Looked at before anything is begun: a wrong setting costs no time and leaves nothing behind.
  const early = settings(
    process.env.DATABASE_URL || "postgresql://localhost/unknown",
    process.env.SESSION_SECRET || "-".repeat(32),
  );
  await refuseTakenPorts(early);
  mkdirSync(dataDir, { recursive: true });
  let database: Postgres | null = null;
  const supervisor = new Supervisor(dataDir, print);
  let stopping = false;
  let leaveDatabase = (): void => undefined;
  const stop = async (code: number) => {
    if (stopping) return;
    stopping = true;
    leaveDatabase();
    await supervisor.stop();
    database?.stop();
    process.exit(code);
  };
  const onSignal = () => void stop(0);
  process.on("SIGINT", onSignal);
  process.on("SIGTERM", onSignal);
  try {
    const built = mode.build();
    if (!process.env.DATABASE_URL) {
      ensurePackages([postgres]);
      database = await startPostgres(join(dataDir, "postgres"));
      if (!database.folder.startsWith(dataDir)) print(`PostgreSQL’s data is in ${database.folder}`);
      leaveDatabase = keepRunning(database, join(dataDir, "postgres"), print);
    }
    // For the `shelf` command, which comes from another shell.
    if (database) writeFileSync(join(dataDir, "database-url"), database.url, { mode: 0o600 });
    const environment = settings(database?.url ?? process.env.DATABASE_URL ?? "", sessionSecret(dataDir));
    const env = {
      DATABASE_URL: environment.databaseUrl,
      SESSION_SECRET: environment.sessionSecret,
      DATA_DIR: environment.dataDir,
      INBOUND_SMTP_PORT: String(environment.inboundSmtpPort),
      STANDINS_PORT: String(environment.standins.port),
      STANDINS_SMTP_PORT: String(environment.standins.smtpPort),
      ...(environment.sms
        ? { SMS_GATEWAY_URL: environment.sms.url, SMS_GATEWAY_TOKEN: environment.sms.token }
        : {}),
      PROGRAM_URL: ownAddress(environment),
    };
    process.stdout.write("\n");
    await runOnce(["--import", "tsx", "scripts/prepare.ts"], { ...process.env, ...env });
    await built;
    const parts: Part[] = [
      ...(environment.standins.on ? [{ name: "standins", args: mode.standins, env }] : []),
      { name: "jobs", args: mode.jobs, env },
      { name: "web", args: mode.web, env },
    ];
    for (const part of parts) if (!stopping) supervisor.run(part);
    const address = ownAddress(environment);
    await ready(address, () => stopping);
    if (stopping) return;
    print(`\n  Plain Shelf is at ${address}`);
    print(`It receives mail on port ${environment.inboundSmtpPort}. Ctrl-C stops it.`);
  } catch (error) {
    process.stderr.write(`plain-shelf: ${reasonOf(error)}\n`);
    await stop(1);
  }
}

async function ready(address: string, stopped: () => boolean): Promise<void> {
  for (let tries = 0; tries < 240 && !stopped(); tries += 1) {
    const response = await fetch(`${address}/healthz`).catch(() => null);
    if (response?.ok) return;
    await delay(250);
  }
  if (!stopped())
    throw new Refusal("The program did not become ready within a minute; see the logs in its data folder");
}
