import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build } from "../scripts/build";
import { ensurePackages, postgres } from "../scripts/debian";
import { freePort, isFree } from "../scripts/ports";

/** The whole program with the demo, on ports and data of its own, for as long as a measurement takes. */
export interface Program {
  /** http:// address, without a closing slash. */
  base: string;
  dataDir: string;
  inboundPort: number;
  standins: string;
  /** postgresql:// address. */
  databaseUrl: string;
  /** Process id of a part: web, jobs or standins. */
  pid: (part: string) => number;
}

export async function withProgram<Result>(work: (program: Program) => Promise<Result>): Promise<Result> {
  ensurePackages([postgres]);
  build();
  const folder = mkdtempSync(join(tmpdir(), "plain-shelf-bench-"));
  const dataDir = join(folder, "data");
  const [port, inboundPort, standins] = [await freePort(), await freePort(), await pairOfPorts()];
  const child = spawn(process.execPath, ["--import", "tsx", "scripts/start.ts"], {
    stdio: ["ignore", "pipe", "pipe"],
    env: {
      ...process.env,
      PORT: String(port),
      INBOUND_SMTP_PORT: String(inboundPort),
      STANDINS_PORT: String(standins),
      DATA_DIR: dataDir,
      SEED: "demo",
      DATABASE_URL: "",
      SMTP_URL: "",
      SESSION_SECRET: "",
    },
  });
  try {
    await ready(child);
    const pid = (part: string) => Number(readFileSync(join(dataDir, "run", `${part}.pid`), "utf8"));
    const environment = readFileSync(`/proc/${pid("web")}/environ`, "utf8").split("\0");
    const databaseUrl = environment
      .find((one) => one.startsWith("DATABASE_URL="))
      ?.slice("DATABASE_URL=".length);
    if (!databaseUrl) throw new Error("The serving process was not told where its database is");
    return await work({
      base: `http://127.0.0.1:${port}`,
      dataDir,
      inboundPort,
      standins: `http://127.0.0.1:${standins}`,
      databaseUrl,
      pid,
    });
  } finally {
    await ended(child);
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A port whose neighbour is free too. */
async function pairOfPorts(): Promise<number> {
  for (;;) {
    const port = await freePort();
    if (port < 65_535 && (await isFree(port + 1))) return port;
  }
}

function ready(child: ChildProcess): Promise<void> {
  return new Promise((resolve, reject) => {
    let output = "";
    const hear = (chunk: Buffer) => {
      output += chunk.toString();
      if (output.includes("Plain Shelf is at")) resolve();
    };
    child.stdout?.on("data", hear);
    child.stderr?.on("data", hear);
    child.once("exit", (code) => reject(new Error(`npm start ended with ${code}:\n${output}`)));
  });
}

function ended(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.removeAllListeners("exit");
    child.once("exit", () => resolve());
    child.kill("SIGTERM");
  });
}

/** Signs a person of the demo in. @returns the Cookie header for requests */
export async function signInTo({ base }: Program, email: string): Promise<string> {
  const response = await fetch(`${base}/sign-in`, {
    method: "POST",
    redirect: "manual",
    headers: { Origin: base, "Content-Type": "application/x-www-form-urlencoded" },
    body: new URLSearchParams({ email, password: "kittiwake" }),
  });
  if (response.status !== 302) throw new Error(`Signing in ${email} answered ${response.status}`);
  return response.headers
    .getSetCookie()
    .map((cookie) => cookie.split(";")[0] ?? "")
    .join("; ");
}
