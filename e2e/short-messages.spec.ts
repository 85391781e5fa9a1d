import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { choose, outside, phone, said, setFaults, signIn } from "./house";

test("a short message becomes a case, is answered plainly, and the answer is on the phone", async ({
  page,
}) => {
  await signIn(page);
  await outside("/phones/%2B447700900801/messages", {
    to: "+447700900460",
    text: "is the 15:40 sailing today",
  });
  await page.goto("/waiting?whose=all&text=7700+900801");
  await page
    .getByRole("link", { name: /900801/ })
    .first()
    .click();
  await expect(page.getByRole("article").getByText("is the 15:40 sailing today")).toBeVisible();
  await page.keyboard.press("Escape");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  await answer.click();
  await page.keyboard.type("Yes – it sails at 15:40, “Kittiwake” is at gate 2.");
  await expect(page.getByText("Goes as one message")).toBeVisible();
  // What has no formatting offers none.
  const bar = page.getByRole("toolbar", { name: "Formatting" });
  await expect(bar.getByRole("button", { name: "undo" })).toBeVisible();
  await expect(bar.getByRole("button", { name: "bold" })).toHaveCount(0);
  await expect(page.getByText(/are not of the short alphabet/)).toBeVisible();
  await page.getByRole("button", { name: "Write plainly" }).click();
  await expect(answer).toContainText('Yes - it sails at 15:40, "Kittiwake" is at gate 2.');
  await expect(page.getByText(/of the short alphabet/)).toBeHidden();
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press("Control+Shift+Enter");
  await expect(page.getByRole("article", { name: /Our answer/ })).toContainText("arrived", {
    timeout: 30_000,
  });
  expect((await phone("+447700900801")).map((one) => [one.written, one.text])).toEqual([
    [true, "is the 15:40 sailing today"],
    [false, 'Yes - it sails at 15:40, "Kittiwake" is at gate 2.'],
  ]);
});

test("a short message that fails is told on its case, and goes again once all is well", async ({ page }) => {
  const number = "+447700900802";
  await signIn(page);
  await outside(`/phones/${encodeURIComponent(number)}/messages`, { to: "+447700900460", text: "gate?" });
  await page.goto("/waiting?whose=all&text=900802");
  await page
    .getByRole("link", { name: /900802/ })
    .first()
    .click();
  await setFaults({ sms: "fails", only: number });
  await page.getByRole("textbox", { name: "Our answer" }).click();
  await page.keyboard.type("Gate 2.");
  await page.keyboard.press("Control+Shift+Enter");
  await expect(said(page, /Call it back|leaves in/)).toBeVisible();
  await expect(page.getByText("Refused: The phone is not reachable")).toBeVisible({ timeout: 30_000 });
  await setFaults(null);
  await page.getByRole("button", { name: "Try again" }).click();
  await expect(page.getByRole("article", { name: /Our answer/ })).toContainText("arrived", {
    timeout: 30_000,
  });
});

test("a customer’s phone stands beside their mailbox, outside", async ({ page }) => {
  await signIn(page, "sunniva@example.com");
  await page.goto(`/outside/${encodeURIComponent("marta@example.net")}`);
  const held = page.getByRole("region", { name: "Phone", exact: true });
  await held.getByLabel("Short message").fill("and the one after?");
  await held.getByRole("button", { name: "Send it" }).click();
  await expect(held.getByRole("listitem")).toContainText("and the one after?");
  expect(await violations(page)).toEqual([]);
  await page.goto("/setup/numbers");
  await expect(page.getByRole("form", { name: "+44 7700 900460" })).toBeVisible();
  await page.getByRole("form", { name: "Another number" }).getByLabel("Number").fill("12");
  await page.getByRole("button", { name: "Add the number" }).click();
  await expect(page.getByText(/no such telephone number/)).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

test("a reply has a text of its own for short messages, written beside the common one", async ({ page }) => {
  await signIn(page);
  await page.goto("/replies/money-or-sailing");
  const reply = page.getByRole("region", { name: "The reply" });
  await choose(reply.getByRole("combobox", { name: "Which text" }), "text for chats");
  await expect(reply.getByText("The common text, made plain")).toBeVisible();
  await reply.getByRole("button", { name: "Write one for chats" }).click();
  await reply.getByRole("textbox", { name: "The words" }).click();
  await page.keyboard.press("Control+a");
  const kept = page.waitForResponse(
    (answer) =>
      answer.url().endsWith("/save") && (answer.request().postData() ?? "").includes("Both are free."),
  );
  await page.keyboard.type("Both are free.");
  expect((await kept).ok()).toBe(true);
  await page.reload();
  await choose(reply.getByRole("combobox", { name: "Which text" }), "text for short messages");
  await expect(reply.getByRole("textbox", { name: "The words" })).toContainText(
    "Both are possible, and free.",
  );
  await choose(reply.getByRole("combobox", { name: "Which text" }), "text for chats");
  await expect(reply.getByRole("textbox", { name: "The words" })).toHaveText("Both are free.");
  expect(await violations(page)).toEqual([]);
  await reply.getByRole("button", { name: "Use the common text instead" }).click();
  await expect(reply.getByText("The common text, made plain")).toBeVisible();
});
