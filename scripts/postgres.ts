import { reasonOf } from "#core/text/reason";
import { execFileSync, spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { connect as connectTo } from "node:net";
import { join, resolve } from "node:path";
import { isRoot, POSTGRES_BIN } from "./debian";
import { freePort, isFree } from "./ports";

/** A PostgreSQL of our own, on loopback. */
export interface Postgres {
  /** Address of its database `plain_shelf`. */
  url: string;
  /** Where its data lies. */
  folder: string;
  stop(): void;
}

const USER = "plain_shelf";

/** In bytes, without the final zero: sun_path in unix(7). */
const LONGEST_SOCKET = 107;

/** PostgreSQL refuses to run as root: as root, its programs run as the user that Debian's package made. */
function run(program: string, args: string[]): void {
  const [file = "", rest] = isRoot
    ? ["runuser", ["-u", "postgres", "--", program, ...args]]
    : [program, args];
  // Its output goes to files: a server that keeps our pipes open would hold us up for ever.
  const { status, stderr } = spawnSync(file, rest, { stdio: ["ignore", "ignore", "pipe"], encoding: "utf8" });
  if (status !== 0) throw new Error(`${program} failed: ${stderr.trim().split("\n").at(-1) ?? ""}`);
}

/** A folder that PostgreSQL's user owns and can reach; under the state folder when the wanted one is out of its reach. */
function reachable(wanted: string): string {
  mkdirSync(wanted, { recursive: true });
  if (!isRoot) return wanted;
  const id = (flag: string) => Number(execFileSync("id", [flag, "postgres"], { encoding: "utf8" }));
  const [uid, gid] = [id("-u"), id("-g")];
  const own = (folder: string) => {
    mkdirSync(folder, { recursive: true });
    chownSync(folder, uid, gid);
  };
  own(wanted);
  if (spawnSync("runuser", ["-u", "postgres", "--", "test", "-w", wanted]).status === 0) return wanted;
  const other = `/var/tmp/plain-shelf-${createHash("sha256").update(wanted).digest("hex").slice(0, 12)}`;
  own(other);
  chmodSync(other, 0o700);
  return other;
}

/**
 * Starts PostgreSQL in a folder, making its data the first time; one that already runs there is used.
 * @param quick trades safety against power failure for speed: for tests
 */
export async function startPostgres(wanted: string, quick = false): Promise<Postgres> {
  const folder = reachable(resolve(wanted));
  const data = join(folder, "data");
  const log = join(folder, "postgres.log");
  const secret = join(wanted, "password");
  if (!existsSync(join(data, "PG_VERSION"))) {
    const password = randomBytes(18).toString("base64url");
    const passwordFile = join(folder, "initial-password");
    writeFileSync(passwordFile, password, { mode: 0o600 });
    if (isRoot) execFileSync("chown", ["postgres:", passwordFile]);
    run(join(POSTGRES_BIN, "initdb"), [
      "-D",
      data,
      "-U",
      USER,
      "--auth=scram-sha-256",
      `--pwfile=${passwordFile}`,
      "-E",
      "UTF8",
      "--locale=C.UTF-8",
      "--no-sync",
    ]);
    rmSync(passwordFile);
    writeFileSync(secret, password, { mode: 0o600 });
  }
  const password = readFileSync(secret, "utf8");
  // By its socket, which costs less than loopback does, where its path is no longer than a socket's may be.
  const socket = (port: number) => join(folder, `.s.PGSQL.${port}`);
  const fits = /^[\w/.-]+$/.test(folder) && socket(65_535).length <= LONGEST_SOCKET;
  const address = (port: number) => {
    const host = existsSync(socket(port)) ? encodeURIComponent(folder) : "127.0.0.1";
    return `postgresql://${USER}:${password}@${host}:${port}/${USER}`;
  };
  const stop = () => run(join(POSTGRES_BIN, "pg_ctl"), ["-D", data, "-m", "fast", "-w", "stop"]);
  const portFile = join(folder, "port");
  const running = isRunning(data);
  let port = existsSync(portFile) ? Number(readFileSync(portFile, "utf8")) : 0;
  if (!running) {
    if (!port || !(await isFree(port))) port = await freePort();
    writeFileSync(portFile, String(port));
    const speed = quick ? "-c fsync=off -c synchronous_commit=off -c full_page_writes=off" : "";
    // What an error tells in detail are values of rows.
    const options = `-c log_error_verbosity=terse -p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=${fits ? folder : ""} ${speed}`;
    run(join(POSTGRES_BIN, "pg_ctl"), ["-D", data, "-l", log, "-w", "-o", options, "start"]);
  }
  await createDatabase(address(port));
  return { url: address(port), folder, stop };
}

const WATCH_MS = 1000;

/**
 * Starts a PostgreSQL of ours again when it dies.
 * @param say told when that happens
 * @returns how to leave it alone
 */
export function keepRunning(postgres: Postgres, wanted: string, say: (line: string) => void): () => void {
  const port = Number(new URL(postgres.url).port);
  let [busy, left] = [false, false];
  const watch = setInterval(() => {
    if (busy) return;
    busy = true;
    void answers(port)
      .then(async (alive) => {
        if (alive || left) return;
        say("PostgreSQL has ended; it is started again");
        await startPostgres(wanted);
      })
      .catch((error: unknown) => say(`PostgreSQL could not be started: ${reasonOf(error)}`))
      .finally(() => {
        busy = false;
      });
  }, WATCH_MS);
  return () => {
    left = true;
    clearInterval(watch);
  };
}

function answers(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connectTo({ port, host: "127.0.0.1", timeout: 5000 });
    const done = (alive: boolean) => {
      socket.destroy();
      resolve(alive);
    };
    socket.once("connect", () => done(true));
    socket.once("error", () => done(false));
    // A server that is busy is not one that has ended.
    socket.once("timeout", () => done(true));
  });
}

function isRunning(data: string): boolean {
  try {
    run(join(POSTGRES_BIN, "pg_ctl"), ["-D", data, "status"]);
    return true;
  } catch {
    return false; // No server runs there, which is what is asked.
  }
}

async function createDatabase(url: string): Promise<void> {
  const { default: pg } = await import("pg");
  const admin = new URL(url);
  admin.pathname = "/postgres";
  const client = new pg.Client({ connectionString: admin.href });
  await client.connect();
  try {
    const { rowCount } = await client.query("select 1 from pg_database where datname = $1", [USER]);
    if (rowCount === 0) await client.query(`create database ${USER}`);
  } finally {
    await client.end();
  }
}
