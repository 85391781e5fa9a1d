import { devices, expect, test, type Page } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, nextMail, signIn } from "./house";

/** A telephone, and a page at twice its size. */

const screens = [
  "/waiting?whose=all",
  "/chats",
  "/write",
  "/shelves",
  "/shelves/arrange",
  "/shelves/proposals",
  "/replies/dogs",
  "/replies/new",
  "/setup/start",
  "/setup/house",
  "/setup/mail",
  "/setup/mailboxes",
  "/setup/numbers",
  "/setup/forms",
  "/setup/questions",
  "/setup/forwarders",
  "/setup/teams",
  "/setup/people",
  "/setup/signatures",
  "/setup/facts",
  "/setup/facts/office_hours",
  "/setup/usual",
  "/setup/stationery",
  "/setup/fields",
  "/outside",
  "/outside/marta%40example.net",
  "/account",
  "/keys",
];

/** What reaches beyond the page at the right, and cannot be scrolled to within a part of its own. */
function beyond(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const isScrolled = (element: Element | null): boolean =>
      element !== null &&
      (["auto", "scroll", "hidden", "clip"].includes(getComputedStyle(element).overflowX) ||
        isScrolled(element.parentElement));
    return [...document.querySelectorAll("body *")]
      .filter((element) => {
        const { right, width } = element.getBoundingClientRect();
        return (
          width > 1 &&
          right > window.innerWidth + 1 &&
          !isScrolled(element.parentElement?.closest(":not(#main)") ?? null)
        );
      })
      .map((element) => `${element.tagName} ${element.textContent.slice(0, 40)}`)
      .slice(0, 5);
  });
}

/** How wide the page is, with what reaches beyond the window. */
function widthOf(page: Page): Promise<number> {
  return page.evaluate(() => document.documentElement.scrollWidth);
}

for (const [name, viewport] of [
  ["on a telephone", { width: 390, height: 844 }],
  ["at 200 % of 1280 by 800", { width: 640, height: 400 }],
] as const) {
  test(`every screen stands in one column ${name}`, async ({ page }) => {
    await page.setViewportSize(viewport);
    await signIn(page, "sunniva@example.com");
    for (const screen of screens) {
      await page.goto(screen);
      await expect(page.getByRole("heading", { level: 1 }).first()).toBeAttached();
      expect({ screen, beyond: await beyond(page) }).toEqual({ screen, beyond: [] });
      expect({ screen, width: await widthOf(page) }).toEqual({ screen, width: viewport.width });
      expect({ screen, found: await violations(page) }).toEqual({ screen, found: [] });
    }
  });
}

test("every screen stands in one column on a telephone before any script has loaded", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await signIn(page, "sunniva@example.com");
  await page.route(/\.js(?:$|\?)/, (route) => route.abort());
  for (const screen of screens) {
    await page.goto(screen);
    await expect(page.getByRole("heading", { level: 1 }).first()).toBeAttached();
    expect({ screen, width: await widthOf(page) }).toEqual({ screen, width: 390 });
  }
});

const { viewport, hasTouch, isMobile } = devices["Pixel 7"];
test.describe("by touch", () => {
  test.use({ viewport: { ...viewport, width: 390 }, hasTouch, isMobile });

  const first = ["Tilde", "Tore", "Tyra", "Tove", "Tjark", "Tomma", "Talea", "Torge", "Tamme", "Taalke"];
  const names = first.map((one) => `${one} Fingal`);
  const addressOf = (name: string) => `${name.toLowerCase().replace(" ", ".")}@example.org`;
  const answerOf = (page: Page) => page.getByRole("textbox", { name: "Our answer" });

  /** Takes the reply about dogs from the drawer. */
  async function takeFromTheDrawer(page: Page): Promise<void> {
    const drawer = page.getByRole("button", { name: /^Shelf/ });
    await expect(drawer).toHaveAttribute("aria-expanded", "false");
    const search = page.getByRole("combobox", { name: "Find on the shelf" });
    await expect(search).toBeHidden();
    await expect(page.getByRole("textbox", { name: "Our answer", includeHidden: true })).toBeAttached();
    await drawer.tap();
    await expect(search).toBeVisible();
    const dogs = page.getByRole("option", { name: /^Dogs aboard/ });
    await dogs.tap();
    await expect(dogs).toHaveAttribute("aria-selected", "true");
    await drawer.tap();
    await page.getByRole("button", { name: "take it" }).tap();
    await expect(answerOf(page)).toContainText("Dogs are welcome");
  }

  /** Writes an address and a table by the bar that stands over the answer. */
  async function withTableAndLink(page: Page): Promise<void> {
    await page.getByRole("button", { name: "write it yourself" }).tap();
    await answerOf(page).tap();
    await page.keyboard.type("Look at https://example.org/dogs for more.");
    await page.getByRole("button", { name: "table", exact: true }).tap();
    await expect(answerOf(page).getByRole("table")).toBeVisible();
    await page.keyboard.type("Dogs are welcome");
  }

  /** Takes the reply, writes on, and undoes five steps, each by a tap. */
  async function undoneFiveSteps(page: Page): Promise<void> {
    await takeFromTheDrawer(page);
    await answerOf(page).tap();
    for (const tool of ["table", "list", "quote", "rule"]) {
      await page.getByRole("button", { name: tool, exact: true }).tap();
    }
    await expect(answerOf(page).locator("table, ul, blockquote, hr").first()).toBeVisible();
    const undo = page.getByRole("button", { name: "undo", exact: true });
    for (let step = 0; step < 5; step += 1) await undo.tap();
    await expect(answerOf(page)).not.toContainText("Dogs are welcome");
    await expect(answerOf(page).locator("table, ul, blockquote, hr")).toHaveCount(0);
    await answerOf(page).tap();
    await page.keyboard.type("Dogs are welcome, once more.");
  }

  test("ten cases are answered on a telephone: the shelf is a drawer, and the bar to send is never over the letter", async ({
    page,
  }) => {
    for (const name of names)
      await deliverToUs({
        from: `${name} <${addressOf(name)}>`,
        to: "desk@example.com",
        subject: "dog",
        text: "May I bring my dog on board, and what does it cost?",
      });
    await signIn(page);
    for (const [count, name] of names.entries()) {
      // One is found by its customer's name, where they wait.
      if (count === 3) {
        await page.goto("/waiting?whose=all");
        const find = page.getByRole("searchbox", { name: "Find a case" });
        await find.tap();
        await find.fill(name);
      } else await page.goto(`/waiting?whose=all&text=${encodeURIComponent(name)}`);
      const row = page.getByRole("link", { name: new RegExp(name) });
      await expect(async () => {
        if (count !== 3) await page.reload();
        await expect(row).toBeVisible({ timeout: 1000 });
      }).toPass();
      if (count < 3) expect(await violations(page)).toEqual([]);
      await row.tap();
      await expect(page.getByRole("textbox", { name: "Our answer", includeHidden: true })).toBeAttached();
      if (count === 1) await withTableAndLink(page);
      else if (count === 2) await undoneFiveSteps(page);
      else await takeFromTheDrawer(page);
      const send = page.getByRole("button", { name: "Send, take the next" });
      await send.scrollIntoViewIfNeeded();
      const [letter, bar] = [await answerOf(page).boundingBox(), await send.boundingBox()];
      expect((letter?.y ?? 0) + (letter?.height ?? 0)).toBeLessThanOrEqual(bar?.y ?? 0);
      // A table of which only one cell is filled has headings that say nothing.
      if (count === 0 || count === 2) expect(await violations(page)).toEqual([]);
      expect(await beyond(page)).toEqual([]);
      const here = page.url();
      await send.tap();
      await expect(page).not.toHaveURL(here);
    }
    for (const [count, name] of names.entries()) {
      const { text, html } = await nextMail(addressOf(name));
      expect(text).toContain("Dogs are welcome");
      if (count === 1) {
        expect(html).toMatch(/<table[\s\S]*Dogs are welcome[\s\S]*<\/table>/);
        expect(html).toContain('<a href="https://example.org/dogs">https://example.org/dogs</a>');
      }
      if (count === 2) expect(text).toContain("once more");
    }
  });
});
