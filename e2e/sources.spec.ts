import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { OUTSIDE, answerReady, choose, deliverToUs, nextMail, setFaults, showCase, signIn } from "./house";

test("a lead sets an outside system and tries it; what it says stands beside the next case, and its secret nowhere", async ({
  page,
}) => {
  const stamp = Date.now() % 100_000;
  const write = async (name: string) =>
    deliverToUs({
      from: `${name} <${name.toLowerCase().replace(/\W+/g, ".")}@example.org>`,
      to: "desk@example.com",
      subject: "the hold",
      text: "Something of mine is in hold QW7-K2M still.",
    });
  await signIn(page, "sunniva@example.com");
  await write(`Hal Hold${stamp}`);
  await showCase(page, `Hal Hold${stamp}`);
  const number = /\d+$/.exec(page.url())?.[0] ?? "";

  await page.getByRole("link", { name: "Setup" }).click();
  await page.getByRole("link", { name: "Detail sources" }).click();
  await page.getByText("Another source", { exact: true }).click();
  const form = page.getByRole("form", { name: "Another source" });
  await form.getByLabel("What it is called").first().fill(`Holds ${stamp}`);
  await form.getByLabel(/^Its address/).fill(`${OUTSIDE}/bookings`);
  await form.getByLabel(/^How its references look/).fill("hold ([A-Z0-9]{3}-[A-Z0-9]{3})");
  await form.getByRole("button", { name: "Add a header" }).click();
  await form.getByLabel("Header", { exact: true }).fill("X-Key");
  await form.getByLabel("What it says").fill("of no use to anybody");
  const value = form.getByRole("group", { name: "Another value" });
  await value.getByLabel("What it is called").fill("Ship of the hold");
  await value.getByLabel("Where it stands").fill("$.ship");
  await choose(value.getByRole("combobox", { name: "Kind" }), "text");
  await form.getByRole("button", { name: "Add the source" }).click();
  await expect(form.getByText("An address with the reference in it", { exact: false })).toBeVisible();
  await form.getByLabel(/^Its address/).fill(`${OUTSIDE}/bookings/{reference}`);
  expect(await violations(page)).toEqual([]);
  await form.getByRole("button", { name: "Add the source" }).click();

  const made = page.getByRole("form", { name: `Holds ${stamp}` });
  await expect(made.getByLabel("Header", { exact: true })).toHaveValue("X-Key");
  await expect(made.getByLabel("What it says")).toHaveValue("");
  expect(await page.content()).not.toContain("of no use to anybody");
  await made.getByLabel("Try it on the case").fill(`SF-${number}`);
  await made.getByLabel("Try it on the case").press("Enter");
  await expect(made.getByText(/^QW7-K2M is found in the messages/)).toBeVisible();
  await expect(made.getByRole("definition")).not.toHaveText("nothing");

  await write(`Hilda Hold${stamp}`);
  await showCase(page, `Hilda Hold${stamp}`);
  const side = page.getByRole("region", { name: "Their side" });
  await expect(side.getByRole("term").filter({ hasText: `Holds ${stamp}` })).toBeVisible();
  await expect(side.getByRole("term").filter({ hasText: "Ship of the hold" })).toBeVisible();
  expect(await violations(page)).toEqual([]);

  await page.getByRole("link", { name: "Setup" }).click();
  await page.getByRole("link", { name: "Detail sources" }).click();
  await made.getByRole("button", { name: "Remove" }).last().click();
  await expect(made).toHaveCount(0);
});

test("a booking system that takes too long keeps nobody from answering, and says so", async ({ page }) => {
  const reference = "SL0-W1Y";
  const address = `sid.slow.${Date.now()}@example.org`;
  await signIn(page);
  await setFaults({ bookingDelay: 9000, only: reference });
  try {
    await deliverToUs({
      from: `Sid Slowbooking <${address}>`,
      to: "desk@example.com",
      subject: "slowly",
      text: `What of ${reference}?`,
    });
    await showCase(page, "Sid Slowbooking");
    await answerReady(page);
    await page.keyboard.press("Escape");
    await page.keyboard.type("We will see.");
    await expect(page.getByText("saved", { exact: true })).toBeVisible();
    await page.keyboard.press("Control+Shift+Enter");
    await expect(page.getByRole("article", { name: /Our answer by Maren/ })).toContainText("We will see.");
    await expect(page.getByText("The booking system takes too long")).toBeVisible({ timeout: 60_000 });
    expect((await nextMail(address)).text).toContain("We will see.");
  } finally {
    await setFaults(null);
  }
});
