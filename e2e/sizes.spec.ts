import { devices, expect, test, type Page } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, nextMail, signIn } from "./house";

/** A telephone, and a page at twice its size. */

const screens = [
  "/waiting?whose=all",
  "/shelves",
  "/shelves/arrange",
  "/shelves/proposals",
  "/replies/dogs",
  "/replies/new",
  "/setup/start",
  "/setup/house",
  "/setup/mail",
  "/setup/teams",
  "/setup/people",
  "/setup/signatures",
  "/setup/facts",
  "/setup/facts/office_hours",
  "/setup/usual",
  "/setup/stationery",
  "/setup/fields",
  "/outside",
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
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
        viewport.width,
      );
      expect({ screen, found: await violations(page) }).toEqual({ screen, found: [] });
    }
  });
}

const { viewport, hasTouch, isMobile } = devices["Pixel 7"];
test.describe("by touch", () => {
  test.use({ viewport: { ...viewport, width: 390 }, hasTouch, isMobile });

  test("cases are answered on a telephone: the shelf is a drawer, and the bar to send is never over the letter", async ({
    page,
  }) => {
    const names = ["Tilde Fingal", "Tore Fingal", "Tyra Fingal"];
    const addressOf = (name: string) => `${name.toLowerCase().replace(" ", ".")}@example.org`;
    for (const name of names)
      await deliverToUs({
        from: `${name} <${addressOf(name)}>`,
        to: "desk@example.com",
        subject: "dog",
        text: "May I bring my dog on board, and what does it cost?",
      });
    await signIn(page);
    for (const name of names) {
      await page.goto(`/waiting?whose=all&text=${encodeURIComponent(name)}`);
      await expect(async () => {
        await page.reload();
        await expect(page.getByRole("link", { name: new RegExp(name) })).toBeVisible({ timeout: 1000 });
      }).toPass();
      expect(await violations(page)).toEqual([]);
      await page.getByRole("link", { name: new RegExp(name) }).tap();
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
      const answer = page.getByRole("textbox", { name: "Our answer" });
      await expect(answer).toContainText("Dogs are welcome");
      const send = page.getByRole("button", { name: "Send, take the next" });
      await send.scrollIntoViewIfNeeded();
      const [letter, bar] = [await answer.boundingBox(), await send.boundingBox()];
      expect((letter?.y ?? 0) + (letter?.height ?? 0)).toBeLessThanOrEqual(bar?.y ?? 0);
      expect(await violations(page)).toEqual([]);
      expect(await beyond(page)).toEqual([]);
      const here = page.url();
      await send.tap();
      await expect(page).not.toHaveURL(here);
      expect((await nextMail(addressOf(name))).text).toContain("Dogs are welcome");
    }
  });
});
