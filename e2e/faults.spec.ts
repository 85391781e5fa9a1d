import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, mailbox, nextMail, setFaults, showCase, signIn } from "./house";

/** Each fault of the outside, switched on and off again during work: it is told, nothing is lost, and it goes on by itself. */

test("a letter that is returned later says so on itself, and goes again once all is well", async ({
  page,
}) => {
  const address = "gone.away@example.org";
  await deliverToUs({
    from: `Gil Away <${address}>`,
    to: "desk@example.com",
    subject: "are you there",
    text: "Hello?",
  });
  await signIn(page);
  await setFaults({ mail: "bounces", only: address });
  try {
    await showCase(page, "Gil Away");
    await page.keyboard.press("Escape");
    await page.keyboard.type("We are here.");
    await expect(page.getByText("saved", { exact: true })).toBeVisible();
    await page.keyboard.press("Control+Shift+Enter");
    await expect(page.getByText(/Refused: .*The mailbox is gone/)).toBeVisible({ timeout: 60_000 });
    expect(await mailbox(address)).toEqual([]);
    expect(await violations(page)).toEqual([]);
  } finally {
    await setFaults(null);
  }
  await page.getByRole("button", { name: "Try again" }).click();
  expect((await nextMail(address)).text).toContain("We are here.");
});

test("a slow mail server and one that is down for a while lose no letter", async ({ page }) => {
  const address = "slow.post@example.org";
  await deliverToUs({
    from: `Sol Post <${address}>`,
    to: "desk@example.com",
    subject: "slowly",
    text: "Hello?",
  });
  await signIn(page);
  await setFaults({ mail: "down", only: address });
  try {
    await showCase(page, "Sol Post");
    await page.keyboard.press("Escape");
    await page.keyboard.type("All in good time.");
    await expect(page.getByText("saved", { exact: true })).toBeVisible();
    await page.keyboard.press("Control+Shift+Enter");
    await expect(page.getByText(/Not delivered yet.*out of order/)).toBeVisible({ timeout: 60_000 });
    await setFaults({ mail: "slow", only: address });
    expect((await nextMail(address)).text).toContain("All in good time.");
  } finally {
    await setFaults(null);
  }
  await expect(page.getByRole("article", { name: /Our answer by Maren/ })).toContainText("delivered");
});

test("a booking system that answers nonsense is told beside the case, and asked again once it is well", async ({
  page,
}) => {
  const reference = "QW7-K2M";
  await signIn(page);
  await setFaults({ bookings: "wrong", only: reference });
  try {
    await deliverToUs({
      from: "Nora Sense <nora.sense@example.org>",
      to: "desk@example.com",
      subject: "nonsense",
      text: `What of ${reference}?`,
    });
    await showCase(page, "Nora Sense");
    await expect(page.getByText(/The booking system’s answer cannot be read/)).toBeVisible();
  } finally {
    await setFaults(null);
  }
});

test("outside, a customer’s mailbox, phone, chat and form stand side by side", async ({ page }) => {
  await signIn(page, "sunniva@example.com");
  await page.goto(`/outside/${encodeURIComponent("marta@example.net")}`);
  await expect(page.getByRole("region", { name: "Phone", exact: true })).toBeVisible();
  const pages = page.getByRole("region", { name: "The house, on a phone" });
  const chat = page.frameLocator('iframe[title="Chat"]');
  await expect(chat.getByRole("heading", { level: 1 })).toContainText("Chat with");
  await pages.getByRole("tab", { name: "Form" }).click();
  await expect(page.frameLocator('iframe[title="Form"]').getByLabel("Message")).toBeVisible();
  expect(await violations(page)).toEqual([]);
});
