import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { choose, deliverToUs, said, showCase, signIn } from "./house";

test("a lead adds a field, a curator’s reply reads it at once, an agent fills it in and answers with it", async ({
  page,
}) => {
  const stamp = Date.now() % 100_000;
  const label = `Cabin${stamp}`;
  await signIn(page, "sunniva@example.com");
  await page.goto("/setup/fields");
  const form = page.getByRole("form", { name: "A new field" });
  await form.getByRole("textbox", { name: "A new field" }).fill(label);
  await choose(form.getByRole("combobox", { name: "Kind" }), "choice");
  await form.getByRole("combobox", { name: "What it is chosen from" }).click();
  for (const choice of ["window", "corridor"]) {
    await page.keyboard.type(choice);
    await page.keyboard.press("Enter");
  }
  await page.keyboard.press("Escape");
  expect(await violations(page)).toEqual([]);
  await form.getByRole("button", { name: "Add field" }).click();
  await expect(said(page, "Replies can use it now.")).toBeVisible();
  const row = page
    .getByRole("region", { name: "Of the case" })
    .getByRole("listitem")
    .filter({ hasText: label });
  await expect(row).toContainText("one of window, corridor");
  await expect(row).toContainText("no reply reads it");

  const name = `Cora Cabin${stamp}`;
  await deliverToUs({
    from: `${name} <cora.${Date.now()}@example.org>`,
    to: "desk@example.com",
    subject: "which cabin",
    text: "Which cabin is mine?",
  });
  await showCase(page, name);
  await page.getByRole("button", { name: "Fill in …" }).click();
  const dialog = page.getByRole("dialog", { name: "Fill in" });
  await choose(dialog.getByRole("combobox", { name: label }), "window");
  await dialog.getByRole("textbox", { name: "help needed aboard" }).fill("a ramp");
  expect(await violations(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Keep it" }).click();
  const side = page.getByRole("region", { name: "Their side" });
  await expect(side.getByRole("definition").filter({ hasText: "window" })).toBeVisible();
  await expect(side.getByRole("definition").filter({ hasText: "a ramp" })).toBeVisible();

  await page.getByRole("link", { name }).click();
  await expect(page.getByRole("heading", { name })).toBeVisible();
  await expect(page.getByRole("definition").filter({ hasText: "a ramp" })).toBeVisible();
  expect(await violations(page)).toEqual([]);

  await page.getByRole("link", { name: "Setup" }).click();
  await page.getByRole("link", { name: "Fields", exact: true }).click();
  await row.getByRole("button", { name: `More to do with ${label}` }).click();
  await page.getByRole("menuitem", { name: "Change it …" }).click();
  const change = page.getByRole("dialog", { name: `Change ${label}` });
  await change.getByRole("textbox", { name: "What it is called" }).fill(`${label} side`);
  await change.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(row).toContainText(`${label} side`);
  await row.getByRole("button", { name: `More to do with ${label} side` }).click();
  await page.getByRole("menuitem", { name: /^Retire it/ }).click();
  await expect(row).toContainText("retired");

  await page.getByRole("link", { name: "Gaps in the data" }).first().click();
  await expect(page.getByRole("heading", { name: "Gaps in the data" })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});
