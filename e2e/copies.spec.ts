import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, header, nextMail, showCase, signIn } from "./house";

test("a letter is answered to all, somebody is added by name, and somebody unseen", async ({ page }) => {
  await deliverToUs({
    from: "Cara Many <cara.many@example.org>",
    to: "desk@example.com, jo.many@example.org",
    cc: "otto.many@example.net",
    subject: "our three cabins",
    text: "Are our three cabins beside each other?",
  });
  await signIn(page);
  await showCase(page, "Cara Many");
  await page.getByRole("button", { name: "Answer all: 2 more" }).click();
  const answer = page.getByRole("region", { name: "Our answer" });
  await expect(answer.getByText("jo.many@example.org")).toBeVisible();
  await expect(answer.getByText("otto.many@example.net")).toBeVisible();
  await page.getByRole("combobox", { name: "Copy: add somebody" }).click();
  await page.keyboard.type("Bram Tess");
  await page.getByRole("option", { name: /Bram Tessler/ }).click();
  await page.getByRole("combobox", { name: "Unseen: add somebody" }).click();
  await page.keyboard.type("auditor@example.net");
  await page.getByRole("option", { name: "Add auditor@example.net" }).click();
  await expect(page.getByText("auditor@example.net is new on this case")).toBeVisible();
  await page.getByRole("button", { name: "Leave jo.many@example.org out" }).click();
  expect(await violations(page)).toEqual([]);
  await page.getByRole("textbox", { name: "Our answer" }).click();
  await page.keyboard.type("They are.");
  await page.keyboard.press("Control+Shift+Enter");
  const mail = await nextMail("otto.many@example.net");
  expect([header(mail, "to"), header(mail, "cc"), header(mail, "bcc")]).toEqual([
    "cara.many@example.org",
    "otto.many@example.net, bram@example.com",
    undefined,
  ]);
  expect((await nextMail("auditor@example.net")).subject).toBe(mail.subject);
});
