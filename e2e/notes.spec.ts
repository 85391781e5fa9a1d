import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, said, showCase, signIn } from "./house";

test("a note is written by keys of its own, reaches the colleague it names, and is never sent", async ({
  page,
  browser,
}) => {
  const name = `Nora Noted${Date.now() % 100_000}`;
  await deliverToUs({
    from: `${name} <nora.${Date.now()}@example.org>`,
    to: "desk@example.com",
    subject: "length of lane 4",
    text: "Is lane 4 long enough for a horse box?",
  });
  const other = await (await browser.newContext()).newPage();
  await signIn(other, "bram@example.com");
  await signIn(page);
  await showCase(page, name);
  const address = page.url();

  await page.keyboard.press("Alt+n");
  const field = page.getByRole("textbox", { name: "A note for colleagues" });
  await expect(field).toBeFocused();
  await page.keyboard.type("please measure lane 4, @bram");
  await expect(page.getByRole("option", { name: /^Bram/ })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("alert").filter({ hasText: "This is a note" })).toBeVisible();
  await expect(said(page, /^On its way/)).toHaveCount(0);
  await page.keyboard.press("Alt+Enter");
  const between = page.getByRole("region", { name: "Between us" });
  await expect(between.getByText("please measure lane 4, @Bram")).toBeVisible();
  await expect(field).toHaveCount(0);

  await other.getByRole("button", { name: /notes? for you$/ }).click();
  await other
    .getByRole("link", { name: /please measure lane 4/ })
    .last()
    .click();
  await expect(other).toHaveURL(address);
  await expect(other.getByRole("region", { name: "Between us" })).toContainText("please measure lane 4");
  expect(await violations(other)).toEqual([]);
  await other.context().close();

  await page.goto(`${address}/record`);
  await expect(page.getByRole("list", { name: "History of the case" })).toContainText("Maren Oduya’s note");
});

test("what a case is about is set by hand, and taken back", async ({ page }) => {
  const name = `Tilda Topic${Date.now() % 100_000}`;
  await deliverToUs({
    from: `${name} <tilda.${Date.now()}@example.org>`,
    to: "desk@example.com",
    subject: "sheep",
    text: "May sheep come aboard?",
  });
  await signIn(page);
  await showCase(page, name);
  await page.getByRole("button", { name: "More to do with this case" }).click();
  await page.getByRole("menuitem", { name: "Say what it is about …" }).click();
  const dialog = page.getByRole("dialog", { name: /^What SF-\d+ is about$/ });
  await dialog.getByRole("combobox", { name: "The topic" }).click();
  await page.keyboard.type("sheep and goats");
  await page.getByRole("option", { name: "sheep and goats, a new topic" }).click();
  expect(await violations(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Set the topic" }).click();
  const side = page.getByRole("region", { name: "Their side" });
  await expect(side.getByText(/^SF-\d+, email, sheep and goats$/)).toBeVisible();
  await page.keyboard.press("Alt+z");
  await expect(side.getByText(/^SF-\d+, email$/)).toBeVisible();
});

test("what was promised stands on the case and with the customer until it is kept", async ({ page }) => {
  const name = `Pia Promised${Date.now() % 100_000}`;
  await deliverToUs({
    from: `${name} <pia.${Date.now()}@example.org>`,
    to: "desk@example.com",
    subject: "my money",
    text: "When do I get my money back?",
  });
  await signIn(page);
  await showCase(page, name);
  await page.getByRole("button", { name: "More to do with this case" }).click();
  await page.getByRole("menuitem", { name: "We have promised something …" }).click();
  const dialog = page.getByRole("dialog", { name: /^What was promised on SF-\d+$/ });
  await dialog.getByRole("textbox", { name: "What we promised" }).fill("the money is back");
  await dialog.getByRole("textbox", { name: "By which day" }).fill("24/12/2099");
  expect(await violations(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Keep it in mind" }).click();
  const promised = page.getByRole("region", { name: "Promised" });
  await expect(promised).toContainText("the money is back");
  await page.getByRole("link", { name }).click();
  await expect(promised.getByRole("link", { name: /^SF-\d+$/ })).toBeVisible();
  await promised.getByRole("button", { name: "it is kept" }).click();
  await expect(promised).toContainText("kept, Maren Oduya");
  await expect(promised.getByRole("button")).toHaveCount(0);
  expect(await violations(page)).toEqual([]);
});
