import { spawn, type ChildProcess } from "node:child_process";
import { chmodSync, existsSync, mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { createStream, type RotatingFileStream } from "rotating-file-stream";

/** One process of the program. */
export interface Part {
  name: string;
  args: string[];
  env: Record<string, string>;
}

const FIRST_WAIT_MS = 250;
const LONGEST_WAIT_MS = 5000;
/** A process that ran this long was well: its next failure is a first one. */
const WELL_MS = 10_000;
const STOP_MS = 8000;
/** A log that is larger is put aside, while it is written to; so many are kept. */
const LARGEST_LOG = "20M";
const LOGS_KEPT = 3;

/** Runs the parts of the program, starts each again when it dies, waiting longer each time, and stops them all. */
export class Supervisor {
  readonly #dataDir: string;
  readonly #say: (line: string) => void;
  readonly #children = new Map<string, ChildProcess>();
  readonly #logs = new Map<string, RotatingFileStream>();
  #stopping = false;

  constructor(dataDir: string, say: (line: string) => void) {
    this.#dataDir = dataDir;
    this.#say = say;
    // Logs tell who asked for what, and when: they are for whoever runs the program.
    mkdirSync(join(dataDir, "log"), { recursive: true, mode: 0o700 });
    chmodSync(join(dataDir, "log"), 0o700);
    mkdirSync(join(dataDir, "run"), { recursive: true });
  }

  run(part: Part, wait = FIRST_WAIT_MS): void {
    if (this.#stopping) return;
    const started = Date.now();
    const log = this.#log(part.name);
    const child = spawn(process.execPath, part.args, {
      stdio: ["ignore", "pipe", "pipe"],
      env: { ...process.env, ...part.env, PROCESS_NAME: part.name },
    });
    this.#children.set(part.name, child);
    writeFileSync(this.#pidFile(part.name), String(child.pid));
    child.stdout.pipe(log, { end: false });
    child.stderr.pipe(log, { end: false });
    child.once("exit", (code, signal) => {
      this.#children.delete(part.name);
      rmSync(this.#pidFile(part.name), { force: true });
      if (this.#stopping) return;
      const next = Date.now() - started > WELL_MS ? FIRST_WAIT_MS : wait;
      this.#say(
        `${part.name} ended (${signal ?? `code ${code}`}); it starts again in ${next / 1000} s. Its log: ${join(this.#dataDir, "log", `${part.name}.log`)}`,
      );
      setTimeout(() => this.run(part, Math.min(next * 2, LONGEST_WAIT_MS)), next);
    });
  }

  /** Ends every part: asked first, after a while made to. */
  async stop(): Promise<void> {
    this.#stopping = true;
    await Promise.all(
      [...this.#children.values()].map(
        (child) =>
          new Promise<void>((resolve) => {
            const force = setTimeout(() => child.kill("SIGKILL"), STOP_MS);
            child.once("exit", () => {
              clearTimeout(force);
              resolve();
            });
            child.kill("SIGTERM");
          }),
      ),
    );
  }

  #log(name: string): RotatingFileStream {
    const known = this.#logs.get(name);
    if (known) return known;
    const path = join(this.#dataDir, "log");
    const file = `${name}.log`;
    if (existsSync(join(path, file))) chmodSync(join(path, file), 0o600);
    const log = createStream(file, { path, size: LARGEST_LOG, rotate: LOGS_KEPT, mode: 0o600 });
    log.on("error", (error) => this.#say(`${name}.log cannot be written: ${error.message}`));
    this.#logs.set(name, log);
    return log;
  }

  #pidFile(name: string): string {
    return join(this.#dataDir, "run", `${name}.pid`);
  }
}
