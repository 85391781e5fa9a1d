/**
 * First step of every command on a fresh machine: the packages, then the command itself.
 * Plain JavaScript, since before the packages are there nothing else runs.
 */
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";

const [major = 0, minor = 0] = process.versions.node.split(".").map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`plain-shelf: Node.js 20.19 or newer is needed; this is ${process.versions.node}`);
  process.exit(1);
}

process.chdir(new URL("..", import.meta.url).pathname);
const stamp = "node_modules/.plain-shelf-lock";
const lock = createHash("sha256").update(readFileSync("package-lock.json")).digest("hex");
if (!existsSync(stamp) || readFileSync(stamp, "utf8") !== lock) {
  console.error("  Installing packages…");
  const { status } = spawnSync("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"], {
    stdio: ["ignore", 2, 2],
  });
  if (status !== 0) {
    console.error("plain-shelf: the packages could not be installed; see above");
    process.exit(1);
  }
  writeFileSync(stamp, lock);
}

const [script, ...rest] = process.argv.slice(2);
const child = spawn(process.execPath, ["--import", "tsx", `scripts/${script}.ts`, ...rest], {
  stdio: "inherit",
});
// A terminal's Ctrl-C reaches the child by itself; signals meant for us alone are handed on.
process.on("SIGINT", () => {});
process.on("SIGTERM", () => child.kill("SIGTERM"));
child.on("exit", (code, signal) => process.exit(signal ? 1 : (code ?? 1)));
