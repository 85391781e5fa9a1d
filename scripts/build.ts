import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";

const SOURCES = [
  "app",
  "core",
  "server",
  "public",
  "package-lock.json",
  "vite.config.ts",
  "react-router.config.ts",
  "scripts/build.ts",
];
const STAMP = "build/.sources";
const COMPRESSED = /\.(?:js|css|svg|json)$/;

function files(path: string): string[] {
  if (!statSync(path).isDirectory()) return [path];
  return readdirSync(path)
    .sort()
    .flatMap((name) => files(join(path, name)));
}

function fingerprint(): string {
  const hash = createHash("sha256");
  for (const path of SOURCES.flatMap(files)) hash.update(path).update(readFileSync(path));
  return hash.digest("hex");
}

/** Compresses the built assets once, as small as they get, so that serving them costs nothing. */
function compress(folder: string): void {
  for (const path of files(folder).filter((name) => COMPRESSED.test(name))) {
    const content = readFileSync(path);
    writeFileSync(
      `${path}.br`,
      brotliCompressSync(content, {
        params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY },
      }),
    );
    writeFileSync(`${path}.gz`, gzipSync(content, { level: 9 }));
  }
}

/**
 * Builds the web application where the sources have changed since the last build.
 * @returns whether it built
 * @throws Error with what the build printed when it failed
 */
export function build(): boolean {
  const wanted = fingerprint();
  if (existsSync(STAMP) && readFileSync(STAMP, "utf8") === wanted) return false;
  const { status, stdout, stderr } = spawnSync("npx", ["--no-install", "react-router", "build"], {
    encoding: "utf8",
    env: { ...process.env, NODE_ENV: "production" },
  });
  if (status !== 0) throw new Error(`The build failed:\n${stdout}\n${stderr}`);
  compress("build/client");
  writeFileSync(STAMP, wanted);
  return true;
}

if (process.argv[1]?.endsWith("scripts/build.ts")) build();
