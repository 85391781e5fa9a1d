import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build } from "../scripts/build";
import { ensurePackages, postgres } from "../scripts/debian";
import { freePair, freePort } from "../scripts/ports";
import { started, stopped } from "../scripts/program";

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
  const [port, inboundPort, standins] = [await freePort(), await freePort(), await freePair()];
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
    await started(child);
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
    await stopped(child);
    rmSync(folder, { recursive: true, force: true });
  }
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

/** A Cookie header as a browser of Playwright takes cookies. */
export function cookiesFor(
  { base }: Program,
  header: string,
): { name: string; value: string; url: string }[] {
  return header.split("; ").map((one) => {
    const at = one.indexOf("=");
    return { name: one.slice(0, at), value: one.slice(at + 1), url: base };
  });
}
