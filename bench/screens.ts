import { chromium, type Browser, type BrowserContext } from "@playwright/test";
import { existsSync, readFileSync } from "node:fs";
import { z } from "zod";
import { chromium as chromiumPackage, ensurePackages } from "../scripts/debian";
import { cookiesFor, signInTo, withProgram, type Program } from "./program";

/** So much slower than this machine: a desk that is years old. */
const SLOWER = 4;

/** Budgets of script as sent, in kB (brotli, cold). */
const SCREENS: { name: string; path: string; kB: number }[] = [
  { name: "Waiting", path: "/waiting", kB: 200 },
  { name: "Shelves", path: "/shelves", kB: 220 },
  { name: "Answering", path: "/cases/20250", kB: 330 },
  { name: "Writing", path: "/replies/sailing-put-off", kB: 420 },
];

const parts = z.record(z.string(), z.record(z.string(), z.number()));

/** What the build said of its scripts: for each, how many bytes of each package or folder of ours are in it. */
function partsOfScripts(): z.infer<typeof parts> {
  const path = "build/parts.json";
  return existsSync(path) ? parts.parse(JSON.parse(readFileSync(path, "utf8"))) : {};
}

interface Screen {
  screen: string;
  scriptKB: number;
  /** What came in the four seconds after that: acts, and what the first look does not need. */
  laterKB: number;
  budgetKB: number;
  requests: number;
  /** First contentful paint, and total blocking time (Long Tasks over 50 ms), in milliseconds, at the slowed processor. */
  firstPaint: number;
  blocked: number;
  /** The five packages that take most of the script as built, in kB before compressing. */
  largest: Record<string, number>;
}

async function load(
  browser: Browser,
  program: Program,
  cookie: string,
  { name, path, kB }: (typeof SCREENS)[number],
): Promise<Screen> {
  const context: BrowserContext = await browser.newContext({
    baseURL: program.base,
    viewport: { width: 1280, height: 800 },
  });
  await context.addCookies(cookiesFor(program, cookie));
  const page = await context.newPage();
  const cdp = await context.newCDPSession(page);
  await cdp.send("Emulation.setCPUThrottlingRate", { rate: SLOWER });
  await page.addInitScript(() => {
    const tasks: number[] = [];
    Object.assign(window, { tasks });
    new PerformanceObserver((list) => tasks.push(...list.getEntries().map((one) => one.duration))).observe({
      type: "longtask",
      buffered: true,
    });
  });
  // What the first look needs, and what comes once the page is there.
  const [first, later]: [Promise<number>[], Promise<number>[]] = [[], []];
  let isThere = false;
  const scripts: string[] = [];
  let requests = 0;
  page.on("requestfinished", (request) => {
    requests += 1;
    if (request.resourceType() !== "script") return;
    scripts.push(new URL(request.url()).pathname.slice(1));
    (isThere ? later : first).push(request.sizes().then(({ responseBodySize }) => responseBodySize));
  });
  await page.goto(path, { waitUntil: "load" });
  isThere = true;
  await page.waitForTimeout(4000);
  const measured = await page.evaluate(() => ({
    firstPaint: performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? 0,
    blocked: (window as unknown as { tasks: number[] }).tasks.reduce(
      (sum, one) => sum + Math.max(0, one - 50),
      0,
    ),
  }));
  const kilobytes = async (sizes: Promise<number>[]) =>
    Math.round((await Promise.all(sizes)).reduce((sum, one) => sum + one, 0) / 1000);
  const known = partsOfScripts();
  const total = new Map<string, number>();
  for (const script of scripts)
    for (const [part, size] of Object.entries(known[script] ?? {}))
      total.set(part, (total.get(part) ?? 0) + size);
  const largest = [...total].sort(([, a], [, b]) => b - a).slice(0, 5);
  await context.close();
  return {
    screen: name,
    scriptKB: await kilobytes(first),
    laterKB: await kilobytes(later),
    budgetKB: kB,
    requests,
    firstPaint: Math.round(measured.firstPaint),
    blocked: Math.round(measured.blocked),
    largest: Object.fromEntries(largest.map(([part, size]) => [part, Math.round(size / 1000)])),
  };
}

/** What each main screen brings to a browser that knows nothing of it yet. */
export function benchScreens(): Promise<object> {
  ensurePackages([chromiumPackage]);
  return withProgram(async (program) => {
    const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
    const cookie = await signInTo(program, "maren@example.com");
    const screens: Screen[] = [];
    for (const screen of SCREENS) screens.push(await load(browser, program, cookie, screen));
    await browser.close();
    return { bench: "screens", slower: SLOWER, screens };
  });
}
