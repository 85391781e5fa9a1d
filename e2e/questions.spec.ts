import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, nextMail, outside, phone, showCase, signIn } from "./house";

test("a letter asks, a scanner that follows its link changes nothing, and what is pressed comes back", async ({
  page,
  browser,
}) => {
  await deliverToUs({
    from: "Rolf Either <rolf.either@example.org>",
    to: "desk@example.com",
    subject: "my sailing was cancelled",
    text: "My sailing was cancelled. What happens now?",
  });
  await signIn(page);
  await showCase(page, "Rolf Either");
  await page.keyboard.type("money back or another");
  await expect(page.getByRole("option", { name: /Money back or another sailing/ })).toHaveAttribute(
    "aria-selected",
    "true",
  );
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText(
    "Would you like your money back, or another sailing?",
  );
  await page.keyboard.press("Control+Shift+Enter");
  const mail = await nextMail("rolf.either@example.org");
  const link = /<(http:\/\/[^>]+\/q\/[^>]+)>/.exec(mail.text)?.[1] ?? "";
  expect(mail.html).toContain(`href="${link}"`);
  const path = new URL(link).pathname;

  // A program that looks at every link of a mail.
  const base = new URL(page.url()).origin;
  for (const method of ["GET", "HEAD", "GET"]) {
    const seen = await fetch(base + path, { method });
    expect([seen.status, seen.headers.get("cache-control"), seen.headers.get("x-robots-tag")]).toEqual([
      200,
      "no-store",
      "noindex",
    ]);
  }
  expect((await fetch(`${base}${path.slice(0, -1)}${path.endsWith("A") ? "B" : "A"}`)).status).toBe(404);

  // The customer, on a telephone and without script.
  const customer = await (
    await browser.newContext({ javaScriptEnabled: false, viewport: { width: 390, height: 800 } })
  ).newPage();
  await customer.goto(base + path);
  await expect(customer.getByText("Would you like your money back, or another sailing?")).toBeVisible();
  await customer.getByRole("button", { name: "Another sailing" }).click();
  await expect(customer.getByRole("status")).toContainText("Another sailing");
  await customer.goto(base + path);
  await expect(customer.getByRole("button")).toBeHidden();

  await page.goto("/waiting?whose=all&text=Rolf Either");
  await page.getByRole("link", { name: /Rolf Either/ }).click();
  await expect(page.getByText("Pressed as an answer to our question.")).toBeVisible();
  await expect(page.getByRole("article").last()).toContainText("Another sailing");
  expect(await violations(page)).toEqual([]);
});

test("a curator makes a question, looks at it as customers do, and a short message asks it", async ({
  page,
}) => {
  await signIn(page);
  await page.goto("/setup/questions");
  await page.getByText("Another question").click();
  const form = page.getByRole("form", { name: "Another question" });
  await form.getByLabel("The question").fill("Was the café open?");
  await form.getByLabel("Its name in replies").fill("Café");
  await form.getByRole("button", { name: "Add the question" }).click();
  await expect(form.getByText("Small letters, digits and low lines, as in how_was_it")).toBeVisible();
  await form.getByLabel("Its name in replies").fill("cafe_open");
  await form.getByLabel("with a remark").click();
  expect(await violations(page)).toEqual([]);
  await form.getByRole("button", { name: "Add the question" }).click();
  await expect(page.getByRole("form", { name: "Was the café open?" })).toContainText("{$ask.cafe_open}");
  await outside("/phones/%2B447700900811/messages", {
    to: "+447700900460",
    text: "refund or another sailing?",
  });
  await page.goto("/waiting?whose=all&text=900811");
  await page
    .getByRole("link", { name: /900811/ })
    .first()
    .click();
  await expect(page.getByRole("combobox", { name: "Find on the shelf" })).toBeFocused();
  await page.keyboard.type("money back or another");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+Shift+Enter");
  await expect
    .poll(async () => (await phone("+447700900811")).at(-1)?.text ?? "", { timeout: 60_000 })
    .toMatch(
      /^Both are possible, and free\. Would you like your money back, or another sailing\? http:\S+\/q\/\S{29}/,
    );
});
