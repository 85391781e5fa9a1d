import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, nextMail, said, showCase, signIn } from "./house";

test("two cases are joined, one is split again, and each can be undone", async ({ page }) => {
  const from = "Pia Twice <pia.twice@example.org>";
  await deliverToUs({ from, to: "desk@example.com", subject: "our dog", text: "May our dog come along?" });
  await deliverToUs({ from, to: "desk@example.com", subject: "a muzzle", text: "Does he need a muzzle?" });
  await signIn(page);
  await showCase(page, "our dog");
  await page.getByRole("button", { name: "More to do with this case" }).click();
  await page.getByRole("menuitem", { name: "Join another case …" }).click();
  const dialog = page.getByRole("dialog", { name: /Join another case to/ });
  await dialog.getByRole("combobox", { name: "The other case" }).click();
  await page.getByRole("option", { name: /a muzzle/ }).click();
  expect(await violations(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Join them" }).click();
  await expect(said(page, /^Joined SF-\d+ to SF-\d+/)).toBeVisible();
  const talk = page.getByRole("region", { name: "Conversation" });
  await expect(talk.getByText("Does he need a muzzle?")).toBeVisible();
  await talk.getByRole("button", { name: "More to do with the message of Pia Twice" }).last().click();
  await page.getByRole("menuitem", { name: "A case of its own from here on" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "a muzzle" })).toBeVisible();
  await expect(talk.getByText("May our dog come along?")).toBeHidden();
  await page.getByText("History").click();
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(page.getByRole("heading", { level: 1, name: "our dog" })).toBeVisible();
  await expect(talk.getByText("Does he need a muzzle?")).toBeVisible();
});

test("a message is forwarded to a colleague, and to somebody new only when that was seen", async ({
  page,
}) => {
  await deliverToUs({
    from: "Udo Claim <udo.claim@example.org>",
    to: "desk@example.com",
    subject: "scratched door",
    text: "The car deck scratched my door.",
  });
  await signIn(page);
  await showCase(page, "Udo Claim");
  await page.getByRole("button", { name: "More to do with the message of Udo Claim" }).click();
  await page.getByRole("menuitem", { name: "Forward …" }).click();
  const dialog = page.getByRole("dialog", { name: "Forward this message" });
  await dialog.getByRole("combobox", { name: "To whom it is forwarded" }).click();
  await page.keyboard.type("assessor@example.net");
  await page.getByRole("option", { name: "Add assessor@example.net" }).click();
  await dialog.getByLabel("Your words above it").fill("What would a new door cost?");
  await dialog.getByRole("button", { name: "Forward it" }).click();
  await expect(dialog.getByText(/assessor@example.net is new on this case/)).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Send it all the same" }).click();
  await expect(page.getByText("This forwards a message to assessor@example.net.")).toBeVisible();
  const mail = await nextMail("assessor@example.net");
  expect(mail.subject).toBe("Fwd: scratched door");
  expect(mail.text).toContain("What would a new door cost?");
  expect(mail.text).toContain("The car deck scratched my door.");
});

test("a mail that no customer asked for is begun, written and read", async ({ page }) => {
  await signIn(page);
  await page.getByRole("link", { name: "Write a mail" }).click();
  await page.getByRole("combobox", { name: "To whom" }).click();
  await page.keyboard.type("left.glove@example.org");
  await page.getByRole("option", { name: "Add left.glove@example.org" }).click();
  await page.getByRole("button", { name: "Write it" }).click();
  await expect(page.getByText("Write what it is about")).toBeVisible();
  await page.getByLabel("Subject").fill("Your left glove");
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press("Enter");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  await answer.click();
  await page.keyboard.type("We have found your glove.");
  await page.keyboard.press("Control+Shift+Enter");
  const mail = await nextMail("left.glove@example.org");
  expect([mail.subject.replace(/\s*\[.*/, ""), mail.text]).toEqual([
    "Your left glove",
    expect.stringContaining("We have found your glove."),
  ]);
});
