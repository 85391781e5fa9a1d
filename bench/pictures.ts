import { chromium, type Browser, type Page } from "@playwright/test";
import { join, resolve } from "node:path";
import { chromium as chromiumPackage, ensurePackages } from "../scripts/debian";
import { withProgram, type Program } from "./program";

const FOLDER = resolve("docs/screenshots");

interface Camera {
  page: Page;
  take: (name: string) => Promise<void>;
}

async function camera(
  browser: Browser,
  program: Program,
  person: string,
  colorScheme: "light" | "dark" = "light",
  viewport = { width: 1280, height: 800 },
): Promise<Camera> {
  const hasTouch = viewport.width < 640;
  const context = await browser.newContext({ viewport, colorScheme, hasTouch, baseURL: program.base });
  const page = await context.newPage();
  const take = async (name: string) => {
    await page.waitForLoadState("networkidle");
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: join(FOLDER, `${name}.png`), animations: "disabled" });
  };
  await page.goto("/sign-in");
  await page.getByLabel("Email").fill(`${person}@example.com`);
  await page.getByLabel("Password").fill("kittiwake");
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.getByRole("navigation", { name: "Lists" }).waitFor();
  return { page, take };
}

async function showCase(page: Page, customer: string): Promise<void> {
  await page.goto(`/waiting?whose=all&text=${encodeURIComponent(customer)}`);
  await page
    .getByRole("link", { name: new RegExp(customer) })
    .first()
    .click();
  await page.getByRole("textbox", { name: "Our answer", includeHidden: true }).waitFor({ state: "attached" });
  await page.waitForLoadState("networkidle");
}

async function waiting({ page, take }: Camera): Promise<void> {
  await page.goto("/waiting");
  await page.getByText("close fit").first().waitFor();
  await take("waiting");
  const easy = page.getByRole("button", { name: /Answer from here/ });
  while ((await easy.count()) === 0) await page.keyboard.press("ArrowDown");
  await easy.click();
  await page.getByRole("button", { name: /^Send/ }).waitFor();
  await take("waiting-answer");
}

async function writing({ page, take }: Camera): Promise<void> {
  await page.goto("/replies/sailing-put-off");
  await page
    .getByRole("textbox", { name: "The words" })
    .getByText("Nothing changes for your animal")
    .waitFor();
  await page.getByRole("article").first().waitFor();
  await take("writing");
}

/** The list and a case on a telephone. */
async function onTelephone({ page, take }: Camera): Promise<void> {
  await showCase(page, "Ravenscroft");
  await page.getByRole("button", { name: "take it" }).tap();
  await page.getByRole("textbox", { name: "Our answer" }).scrollIntoViewIfNeeded();
  await page.getByRole("button", { name: /^Shelf/ }).tap();
  await take("phone-answering");
}

/** Three questions at once: two of them answered, a choice open. */
async function takeAnswering({ page, take }: Camera, name: string): Promise<void> {
  await showCase(page, "Ravenscroft");
  await page.keyboard.press("Enter");
  await page.getByText("in your answer").first().waitFor();
  await page.keyboard.press("Escape");
  await page.getByRole("option", { name: /Wheelchair/ }).dblclick();
  await page.getByRole("combobox", { name: /Which harbours/ }).focus();
  await page.waitForLoadState("networkidle");
  await take(name);
}

async function keeping({ page, take }: Camera): Promise<void> {
  await page.goto("/shelves");
  await take("shelves");
}

/** A talk under way: looked at first on our side. */
async function chatting(browser: Browser, program: Program, { page, take }: Camera): Promise<void> {
  await page.goto("/chats");
  await page.getByRole("combobox", { name: "I take up to" }).waitFor();
  const windows = [
    ["Jo Lind", "hi, what does it cost to take my bicycle on the 17:40? it’s folded"],
    ["Amara Okoye", "thanks. it’s the second car that I want to take off, QW7-K2M"],
  ] as const;
  for (const [name, words] of windows) {
    const context = await browser.newContext({ baseURL: program.base });
    const window = await context.newPage();
    await window.goto("/chat");
    await window.getByLabel("What is it about?").fill(words);
    await window.getByLabel("Your name").fill(name);
    await window.getByRole("button", { name: "Begin" }).click();
    await page.getByRole("region", { name: `Chat with ${name}` }).waitFor();
  }
  await page.getByRole("region", { name: "Chat with Jo Lind" }).getByRole("textbox").press("Escape");
  await page.keyboard.type("bicycles");
  await page.getByRole("option", { name: /Bicycles/, selected: true }).waitFor();
  await page.keyboard.press("Enter");
  await page.getByRole("region", { name: "Bicycles", exact: true }).waitFor();
  await take("chats");
}

/** A short message that costs more than it need. */
async function shortMessages({ page, take }: Camera): Promise<void> {
  await page.goto("/waiting?whose=all&channel=sms");
  await page.getByRole("link", { name: /Kowal/ }).first().click();
  await page.getByRole("textbox", { name: "Our answer", includeHidden: true }).waitFor({ state: "attached" });
  await page.keyboard.press("Escape");
  await page.getByRole("textbox", { name: "Our answer" }).click();
  await page.keyboard.type("Yes – as things stand it sails at 15:40. “Kittiwake” is at gate 2 from 15:10.");
  await page.getByText("Goes as").waitFor();
  await take("short-message");
  await page.getByRole("button", { name: "Write plainly" }).click();
  await sent(page);
}

async function sent(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Send and stay" }).click();
  await page
    .getByRole("article", { name: /Our answer/ })
    .getByText(/arrived|delivered/)
    .first()
    .waitFor();
}

/** What reached a customer, by every channel. */
async function outside({ page, take }: Camera): Promise<void> {
  await page.goto("/waiting?whose=all&text=refund+not+here");
  await page.getByRole("link", { name: /Kowal/ }).first().click();
  await page.getByRole("textbox", { name: "Our answer", includeHidden: true }).waitFor({ state: "attached" });
  await page.keyboard.press("Escape");
  await page.getByRole("textbox", { name: "Our answer" }).click();
  await page.keyboard.type("your money left us on Monday; banks take up to five working days to show it.");
  await sent(page);
  await page.goto(`/outside/${encodeURIComponent("marta@example.net")}`);
  await page
    .getByText(/refund not here/)
    .first()
    .waitFor();
  await take("outside");
}

/** A letter with where its words came from, all that was said, and whom it was said with. */
async function recorded({ page, take }: Camera): Promise<void> {
  await page.goto("/waiting?whose=all&text=cancel+please");
  await page.getByRole("link", { name: /Sarti/ }).first().click();
  await page.getByRole("textbox", { name: "Our answer", includeHidden: true }).waitFor({ state: "attached" });
  await page.keyboard.type("cancelled by the customer");
  await page.getByRole("option", { name: /Cancelled by the customer/, selected: true }).waitFor();
  await page.keyboard.press("Enter");
  await page.getByRole("textbox", { name: "Our answer" }).getByText("Safe travels,").click();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("End");
  await page.keyboard.type(" The trailer is paid back in full, I have seen to it.");
  await sent(page);
  await page.getByRole("link", { name: "where its words came from" }).first().click();
  await page
    .getByRole("article", { name: "The letter" })
    .getByRole("link", { name: "5", exact: true })
    .click();
  await page.getByRole("complementary", { name: "Where “5” came from" }).waitFor();
  await take("record");
  await page.goto("/record?words=refund");
  await page.locator("[data-found]").first().waitFor();
  await take("everything-said");
  await page.goto("/record?customer=marta");
  await page.getByRole("link", { name: /Kowal/ }).first().click();
  await page.getByRole("region", { name: "Cases" }).waitFor();
  await take("customer");
}

/** Takes most of the pictures in docs/screenshots anew, from the demo. */
export function takePictures(): Promise<object> {
  ensurePackages([chromiumPackage]);
  return withProgram(async (program) => {
    const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
    try {
      const light = await camera(browser, program, "maren");
      await waiting(light);
      await keeping(light);
      const curator = await camera(browser, program, "tadeo");
      await writing(curator);
      const lead = await camera(browser, program, "sunniva");
      await lead.page.goto("/setup/answer-times");
      await lead.take("setup-answer-times");
      await lead.page.goto("/setup/fields");
      await lead.take("setup-fields");
      await lead.page.goto("/standing");
      await lead.page.getByRole("button", { name: "Rehearse" }).click();
      await lead.page
        .getByRole("region", { name: "Where people did otherwise" })
        .getByText("Hello")
        .waitFor();
      await lead.take("standing");
      await lead.page.goto("/setup/sources");
      await lead.take("setup-sources");
      await lead.page.goto("/report?days=90");
      await lead.page.getByText("Answers a day").waitFor();
      await lead.take("report");
      await shortMessages(light);
      await chatting(browser, program, await camera(browser, program, "nele"));
      await outside(light);
      await recorded(light);
      await takeAnswering(await camera(browser, program, "bram"), "answering");
      await takeAnswering(await camera(browser, program, "idris", "dark"), "answering-dark");
      await onTelephone(await camera(browser, program, "maren", "light", { width: 390, height: 844 }));
      return { pictures: FOLDER };
    } finally {
      await browser.close();
    }
  });
}
