import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";

export const isRoot = process.getuid?.() === 0;

/** A program that must be there, and Debian's package that has it. */
interface Needed {
  /** One of these paths exists when it is installed. */
  paths: string[];
  package: string;
}

/** Folder of PostgreSQL's programs. */
export const POSTGRES_BIN = "/usr/lib/postgresql/15/bin";
export const CHROMIUM = "/usr/bin/chromium";

export const postgres: Needed = { paths: [`${POSTGRES_BIN}/postgres`], package: "postgresql-15" };
export const chromium: Needed = { paths: [CHROMIUM], package: "chromium" };

/** Mail clients that tests deliver with, and read answers with. */
export const swaks: Needed = { paths: ["/usr/bin/swaks"], package: "swaks" };
export const python: Needed = { paths: ["/usr/bin/python3"], package: "python3" };

/**
 * Installs what is missing of Debian's packages: as root as we are, else with sudo where it asks for no password.
 * @throws Error with the one line to run by hand
 */
export function ensurePackages(needed: Needed[]): void {
  const missing = needed
    .filter(({ paths }) => !paths.some((path) => existsSync(path)))
    .map((one) => one.package);
  if (missing.length === 0) return;
  const command = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(" ")}`;
  const prefix = isRoot ? [] : ["sudo", "-n"];
  if (!isRoot && spawnSync("sudo", ["-n", "true"], { stdio: "ignore" }).status !== 0) {
    throw new Error(`Debian’s ${missing.join(" and ")} is missing; run: sudo sh -c '${command}'`);
  }
  process.stderr.write(`  Installing ${missing.join(", ")}…\n`);
  const [program = "sh", ...args] = [
    ...prefix,
    "sh",
    "-c",
    `export DEBIAN_FRONTEND=noninteractive; ${command}`,
  ];
  const { status, stderr, stdout } = spawnSync(program, args, {
    encoding: "utf8",
    stdio: ["ignore", "pipe", "pipe"],
  });
  if (status !== 0)
    throw new Error(
      `${missing.join(" and ")} could not be installed: ${(stderr || stdout).trim().split("\n").at(-1)}`,
    );
}
