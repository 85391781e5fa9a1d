import { expect, test, type Page } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, said, showCase, signIn } from "./house";

async function toRecord(page: Page): Promise<void> {
  await page.getByRole("link", { name: "Record", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Everything said" })).toBeAttached();
}

test("a letter is found again by what it said, tells of each word where it came from, and leads to all that used its reply", async ({
  page,
}) => {
  const mark = `quillfin${Date.now()}`;
  const name = `Petra Proven${Date.now() % 100_000}`;
  const from = `${name} <petra.${Date.now()}@example.org>`;
  await deliverToUs({
    from,
    to: "desk@example.com",
    subject: "a dog",
    text: `May my dog come aboard? My ${mark} stays at home.`,
  });
  await signIn(page);
  await showCase(page, name);
  await page.keyboard.type("dogs aboard");
  await expect(page.getByRole("option", { name: /Dogs aboard/ }).first()).toBeVisible();
  await page.keyboard.press("Enter");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  await expect(answer).toContainText("Dogs are welcome");
  await answer.getByText("Safe travels,").click();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("End");
  await page.keyboard.type(` Your ${mark} would have been welcome too.`);
  await page.keyboard.press("Control+Shift+Enter");
  await expect(said(page, /^On its way to petra/)).toBeVisible();

  await toRecord(page);
  await page.keyboard.press("/");
  await page.keyboard.type(mark);
  const found = page.getByRole("listitem").filter({ hasText: mark });
  await expect(found).toHaveCount(2);
  expect(await violations(page)).toEqual([]);
  await found.filter({ hasText: "would have been welcome" }).locator("[data-found]").click();

  const letter = page.getByRole("article", { name: "The letter" });
  await letter.getByRole("link", { name: new RegExp(`Your ${mark}`) }).click();
  const beside = page.getByRole("complementary", { name: /^Where “Your quillfin.*” came from$/ });
  await expect(beside.getByText("written by Maren Oduya")).toBeVisible();
  await expect(beside.getByText(/^Dogs aboard, version \d+$/)).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await letter.getByRole("link", { name: "€7.50" }).click();
  await expect(page.getByRole("complementary", { name: "Where “€7.50” came from" })).toContainText(
    "House fact",
  );

  await page.getByRole("link", { name: "All of the letter" }).click();
  await page
    .getByRole("complementary", { name: "How it was made" })
    .getByRole("heading", { name: "Reply" })
    .nth(1)
    .locator("..")
    .getByRole("link", { name: /letters? used this version/ })
    .click();
  await expect(page.getByRole("combobox", { name: "Reply" })).toHaveText("Dogs aboard");
  await expect(page.getByRole("listitem").filter({ hasText: name })).toHaveCount(1);

  await page.getByRole("link", { name }).first().click();
  await expect(page.getByRole("heading", { name })).toBeVisible();
  await expect(page.getByRole("region", { name: "Cases" })).toContainText("one case");
  expect(await violations(page)).toEqual([]);
});

test("what was said by whom, to which organisation and in which days is found, a page at a time", async ({
  page,
}) => {
  await signIn(page);
  await toRecord(page);
  const rows = page.locator("[data-found]");
  await expect(rows).toHaveCount(40);
  await page.getByRole("link", { name: "Earlier ones" }).click();
  await expect(page.getByRole("link", { name: "To the latest" })).toBeVisible();
  await expect(rows).toHaveCount(40);
  await page.keyboard.press("/");
  await page.keyboard.type("nobody ever said thiswordhere");
  await expect(page.getByText("Nothing that was said is like that.")).toBeVisible();
  await page.getByRole("link", { name: "Show everything" }).click();
  await page.getByRole("combobox", { name: "Said by" }).click();
  await page.getByRole("option", { name: "Idris Vance" }).click();
  await expect(page.getByText(/^Idris Vance to /).first()).toBeVisible();
  await expect(
    page.getByRole("listitem").filter({ hasNotText: "Idris Vance" }).filter({ has: rows }),
  ).toHaveCount(0);
});
