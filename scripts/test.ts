import { reasonOf } from "#core/text/reason";
import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { z } from "zod";
import { build } from "./build";
import { chromium, ensurePackages, postgres, python, swaks } from "./debian";
import { freePair, freePort } from "./ports";
import { startPostgres } from "./postgres";
import { started, stopped } from "./program";
import { testShare } from "./share";

/**
 * `npm test`: style, types, imports, unused code, unit tests, then the interface in Chromium, on a database
 * and ports of its own. `npm test -- static`, `unit` or `e2e` runs a part; what follows goes to its runner.
 */

interface Count {
  passed: number;
  failed: number;
}

const folder = mkdtempSync(join(tmpdir(), "plain-shelf-test-"));
const heading = (text: string) => process.stdout.write(`\n== ${text}\n`);

interface Ran {
  code: number;
  output: string;
}

/** Runs a command; what it prints is kept, and shown as it comes when asked for. */
function run(
  command: string,
  args: string[],
  options: { show?: boolean; env?: Record<string, string> } = {},
): Promise<Ran> {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: ["ignore", "pipe", "pipe"],
      env: { ...process.env, ...options.env },
    });
    let output = "";
    const onData = (chunk: Buffer) => {
      output += chunk.toString();
      if (options.show) process.stdout.write(chunk);
    };
    child.stdout.on("data", onData);
    child.stderr.on("data", onData);
    child.once("exit", (code) => resolve({ code: code ?? 1, output }));
  });
}

const npx = (args: string[], options = {}) => run("npx", ["--no-install", ...args], options);

async function check(name: string, args: string[]): Promise<boolean> {
  const { code, output } = await npx(args);
  process.stdout.write(`${code === 0 ? "passed" : "FAILED"}  ${name}\n`);
  if (code !== 0) process.stdout.write(`${output}\n`);
  return code === 0;
}

/** Of all lines, in 100. */
const LEAST_TESTS = 25;

async function staticChecks(): Promise<Count> {
  heading("Style, types, imports, unused code");
  await npx(["react-router", "typegen"]);
  const results = [
    // Two cores: the two slowest side by side, then the rest.
    ...(await Promise.all([
      check("eslint", ["eslint", "."]),
      check("tsc", ["tsc"]).then(async (ok) => ok && (await check("prettier", ["prettier", "--check", "."]))),
    ])),
    ...(await Promise.all([
      check("import rules", [
        "depcruise",
        "app",
        "core",
        "server",
        "standins",
        "cli",
        "demo",
        "scripts",
        "bench",
        "e2e",
      ]),
      check("knip", ["knip", "--no-progress", "--no-config-hints"]),
    ])),
  ];
  const { lines, tests } = testShare(".");
  const share = (100 * tests) / lines;
  process.stdout.write(
    `tests are ${share.toFixed(1)} in 100 of ${lines.toLocaleString("en")} lines (at least ${LEAST_TESTS})\n`,
  );
  results.push(share >= LEAST_TESTS);
  return { passed: results.filter(Boolean).length, failed: results.filter((ok) => !ok).length };
}

const jestReport = z.object({
  numPassedTests: z.number(),
  numFailedTests: z.number(),
  numFailedTestSuites: z.number(),
});

/** At least so many lines in 100 of each are run by the unit tests. */
const COVERED = { core: 85, server: 85 };

const coverageReport = z.record(
  z.string(),
  z.object({ lines: z.object({ total: z.number(), covered: z.number() }) }),
);

/** Tells how many lines of `core/` and `server/` the unit tests ran. @returns whether they are enough */
function isCovered(): boolean {
  const read = coverageReport.safeParse(readJson(join(folder, "coverage", "coverage-summary.json")));
  if (!read.success) return false;
  const found = Object.entries(COVERED).map(([name, wanted]) => {
    const files = Object.entries(read.data).filter(([path]) => path.startsWith(resolve(name)));
    const sum = (which: "total" | "covered") => files.reduce((all, [, { lines }]) => all + lines[which], 0);
    return { name, wanted, share: (100 * sum("covered")) / sum("total") };
  });
  for (const { name, wanted, share } of found)
    process.stdout.write(`${name}/: ${share.toFixed(1)} lines in 100 are run (at least ${wanted})\n`);
  return found.every(({ wanted, share }) => share >= wanted);
}

async function unitTests(databaseUrl: string, args: string[]): Promise<Count> {
  heading("Unit tests");
  const report = join(folder, "jest.json");
  // What a few tests run says nothing of the whole.
  const coverage =
    args.length > 0
      ? []
      : [
          "--coverage",
          "--coverageProvider=v8",
          ...Object.keys(COVERED).map((name) => `--collectCoverageFrom=${name}/**/*.ts`),
          "--collectCoverageFrom=!**/{*.test,testing}.ts",
          "--coverageReporters=json-summary",
          `--coverageDirectory=${join(folder, "coverage")}`,
        ];
  const { code } = await npx(
    [
      "jest",
      "--json",
      `--outputFile=${report}`,
      "--silent",
      "--maxWorkers=2",
      "--workerIdleMemoryLimit=1500MB",
      ...coverage,
      ...args,
    ],
    {
      show: true,
      env: {
        NODE_OPTIONS: "--experimental-vm-modules --no-warnings",
        TEST_DATABASE_URL: databaseUrl,
        SESSION_SECRET: "for tests only, and long enough for that",
        LOG_LEVEL: "silent",
      },
    },
  );
  const parsed = jestReport.safeParse(readJson(report));
  if (!parsed.success) return { passed: 0, failed: 1 };
  const { numPassedTests: passed, numFailedTests, numFailedTestSuites } = parsed.data;
  const uncovered = coverage.length > 0 && !isCovered() ? 1 : 0;
  return { passed, failed: uncovered + Math.max(numFailedTests, numFailedTestSuites, code === 0 ? 0 : 1) };
}

const playwrightReport = z.object({
  stats: z.object({ expected: z.number(), unexpected: z.number(), flaky: z.number() }),
  errors: z.array(z.unknown()),
});

/** A program of the tests' own: its ports and data, and what an empty database begins with. */
async function programEnv(seed: "demo" | "none") {
  return {
    PORT: String(await freePort()),
    STANDINS_PORT: String(await freePair()),
    INBOUND_SMTP_PORT: String(await freePort()),
    DATA_DIR: join(folder, `data-${seed}`),
    SEED: seed,
    DATABASE_URL: "",
    SMTP_URL: "",
    STANDINS: "on",
    HOST: "127.0.0.1",
    SESSION_SECRET: "",
  };
}

async function interfaceTests(args: string[]): Promise<Count> {
  heading("The interface, in Chromium");
  ensurePackages([postgres, chromium, swaks, python]);
  build();
  const env = await programEnv("demo");
  const emptyEnv = await programEnv("none");
  const [program, empty] = [env, emptyEnv].map((one) =>
    spawn(process.execPath, ["--import", "tsx", "scripts/start.ts"], {
      stdio: ["ignore", "pipe", "pipe"],
      env: { ...process.env, ...one },
    }),
  ) as [ChildProcess, ChildProcess];
  try {
    const [, printed] = await Promise.all([started(program), started(empty)]);
    const report = join(folder, "playwright.json");
    const { code } = await npx(
      ["playwright", "test", "--config", "e2e/playwright.config.ts", "--reporter=list,json", ...args],
      {
        show: true,
        env: {
          ...env,
          EMPTY_PORT: emptyEnv.PORT,
          EMPTY_STANDINS_PORT: emptyEnv.STANDINS_PORT,
          EMPTY_INBOUND_SMTP_PORT: emptyEnv.INBOUND_SMTP_PORT,
          EMPTY_PASSWORD: /lead@example\.com with (\S+):/.exec(printed)?.[1] ?? "",
          PLAYWRIGHT_JSON_OUTPUT_NAME: report,
          E2E_OUTPUT: join(folder, "output"),
        },
      },
    );
    const parsed = playwrightReport.safeParse(readJson(report));
    if (!parsed.success) return { passed: 0, failed: 1 };
    const { expected, unexpected, flaky } = parsed.data.stats;
    if (flaky > 0) process.stdout.write(`${flaky} passed at the second try only: see “flaky” above\n`);
    return {
      passed: expected + flaky,
      failed: Math.max(unexpected + parsed.data.errors.length, code === 0 ? 0 : 1),
    };
  } finally {
    await Promise.all([stopped(program), stopped(empty)]);
  }
}

function readJson(path: string): unknown {
  try {
    return JSON.parse(readFileSync(path, "utf8"));
  } catch {
    return null; // No report is a failure, which the caller counts.
  }
}

async function all(): Promise<Count[]> {
  const [part = "all", ...args] = process.argv.slice(2);
  const counts: Count[] = [];
  if (part === "all" || part === "static") counts.push(await staticChecks());
  if (part === "all" || part === "unit") {
    ensurePackages([postgres]);
    const database = await startPostgres(join(folder, "postgres"), true);
    try {
      counts.push(await unitTests(database.url, args));
    } finally {
      database.stop();
    }
  }
  if (part === "all" || part === "e2e") counts.push(await interfaceTests(args));
  if (counts.length === 0) throw new Error(`“${part}” is no part of the tests; try static, unit or e2e`);
  return counts;
}

try {
  const counts = await all();
  const passed = counts.reduce((sum, count) => sum + count.passed, 0);
  const failed = counts.reduce((sum, count) => sum + count.failed, 0);
  process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
  process.exitCode = failed > 0 ? 1 : 0;
} catch (error) {
  process.stderr.write(`plain-shelf: ${reasonOf(error)}\n\n0 passed, 1 failed\n`);
  process.exitCode = 1;
} finally {
  rmSync(folder, { recursive: true, force: true });
}
