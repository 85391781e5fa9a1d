import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

/** Folders that hold code. */
const FOLDERS = ["app", "core", "server", "standins", "cli", "demo", "scripts", "bench", "e2e"];
const CODE = /\.(?:ts|tsx|mjs)$/;
const TEST = /(?:^e2e\/|^(?:core|app)\/testing\/|\.test\.tsx?$|\/testing\.ts$|-environment\.mjs$)/;

/** How many lines of code there are, and how many of them are tests or serve nothing else. */
export interface Share {
  lines: number;
  tests: number;
}

/** Counts lines that are not empty. @param files by path from the root, with `/` between folders */
export function shareOf(files: Iterable<readonly [path: string, text: string]>): Share {
  let [lines, tests] = [0, 0];
  for (const [path, text] of files) {
    if (!CODE.test(path)) continue;
    const own = text.split("\n").filter((line) => line.trim() !== "").length;
    lines += own;
    if (TEST.test(path)) tests += own;
  }
  return { lines, tests };
}

/** The share of tests of this program. @param root its folder */
export function testShare(root: string): Share {
  return shareOf(
    FOLDERS.flatMap((folder) =>
      readdirSync(join(root, folder), { recursive: true, encoding: "utf8" })
        .map((path) => `${folder}/${path}`)
        .filter((path) => CODE.test(path))
        .map((path) => [path, readFileSync(join(root, path), "utf8")] as const),
    ),
  );
}
