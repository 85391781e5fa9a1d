import { chromium, type Page } from "@playwright/test";
import { chromium as chromiumPackage, ensurePackages } from "../scripts/debian";
import { percentiles } from "./measure";
import { cookiesFor, signInTo, withProgram, type Program } from "./program";

const CASE = 20_250;
const PARAGRAPHS = 40;
const WORDS =
  "The boat is late and we are sorry for the wait; the café on deck 5 stays open meanwhile. ".repeat(3);
const KEYS = 200;
/** So many cards come with the case, and so many the strip has. */
const [FIRST_CARDS, CARDS] = [8, 60];
/** What must stay as it is while somebody writes. */
const STILL = ["Conversation", "Replies"];

declare global {
  interface Window {
    painted: number[];
    redrawn: number;
  }
}

/** Gives a case a long answer: 10 kB with 40 tokens. */
async function writeLongAnswer(program: Program, cookie: string): Promise<void> {
  const content = Array.from({ length: PARAGRAPHS }, () => ({
    type: "paragraph",
    attrs: { passages: [] },
    content: [
      { type: "text", text: WORDS },
      { type: "token", attrs: { name: "case.number", fn: null, options: {} } },
    ],
  }));
  const slips = [
    { uid: "long", versionId: null, language: "en", document: { type: "doc", content }, values: {} },
  ];
  const saved = await fetch(`${program.base}/cases/${CASE}/draft`, {
    method: "POST",
    headers: {
      Cookie: cookie,
      "Content-Type": "application/json",
      Accept: "application/json",
      Origin: program.base,
    },
    body: JSON.stringify({
      draft: { version: 0, language: "en", subject: { from: "thread" }, slips },
      text: WORDS,
    }),
  });
  if (!saved.ok) throw new Error(`Saving the long answer answered ${saved.status}`);
}

/** From here on the page notes when a key is painted, and what is drawn again that should stay. */
async function watchPainting(page: Page): Promise<void> {
  await page.evaluate((still) => {
    window.painted = [];
    window.redrawn = 0;
    document.addEventListener(
      "keydown",
      (event) => {
        const began = event.timeStamp;
        // A message that is posted within a frame arrives when that frame has been painted.
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => window.painted.push(performance.now() - began);
          port2.postMessage(null);
        });
      },
      { capture: true },
    );
    const observer = new MutationObserver((records) => {
      window.redrawn += records.length;
    });
    for (const name of still) {
      const part = document.querySelector(`[aria-label="${name}"]`);
      if (part === null) throw new Error(`There is no “${name}” on the page`);
      observer.observe(part, { subtree: true, childList: true, characterData: true, attributes: true });
    }
  }, STILL);
}

/** From a key in a long answer to the painted letter, in milliseconds, and what else was drawn again. */
export function benchKeystroke(): Promise<object> {
  ensurePackages([chromiumPackage]);
  return withProgram(async (program) => {
    const cookie = await signInTo(program, "maren@example.com");
    await writeLongAnswer(program, cookie);
    const browser = await chromium.launch({
      executablePath: "/usr/bin/chromium",
      args: ["--no-sandbox", "--disable-gpu"],
    });
    try {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      await context.addCookies(cookiesFor(program, cookie));
      const page = await context.newPage();
      await page.goto(`${program.base}/cases/${CASE}`);
      const editor = page.getByRole("textbox", { name: "Our answer" });
      // Going along the shelf brings its other cards.
      const cards = page.getByRole("option");
      await cards.first().click();
      for (let step = 0; step < FIRST_CARDS; step += 1) await page.keyboard.press("ArrowRight");
      await cards.nth(CARDS - 1).waitFor({ state: "attached" });
      await page.keyboard.press("Escape");
      await editor.getByText("The boat is late").nth(20).click();
      await page.waitForLoadState("networkidle");
      await watchPainting(page);
      await page.keyboard.type("so ".repeat(Math.ceil(KEYS / 3)).slice(0, KEYS), { delay: 80 });
      await page.waitForFunction((count) => window.painted.length >= count, KEYS);
      const { painted, redrawn } = await page.evaluate(() => ({
        painted: window.painted,
        redrawn: window.redrawn,
      }));
      const characters = ((await editor.textContent()) ?? "").length;
      return {
        bench: "keystroke",
        keys: KEYS,
        characters,
        tokens: PARAGRAPHS,
        cards: await cards.count(),
        paintedMs: percentiles(painted),
        redrawn,
      };
    } finally {
      await browser.close();
    }
  });
}
