import { expect, test } from "@playwright/test";
import { deliverToUs, mailbox, nextMail, showCase, said, signIn } from "./house";

test("what is sent is what is seen: another reply on the page is not the letter that goes", async ({
  page,
}) => {
  await signIn(page);
  await deliverToUs({
    from: "Lena Seen <lena.seen@example.net>",
    to: "desk@example.com",
    subject: "roof box",
    text: "Does a roof box count as part of the height of my car?",
  });
  await showCase(page, "Lena Seen");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  const preview = page.getByRole("region", { name: /reads for this case/ });
  const send = page.getByRole("button", { name: "Send, take the next" });

  await expect(preview).toBeVisible();
  await page.keyboard.press("Control+Enter");
  await expect(said(page, "Take it first")).toBeVisible();

  await page.keyboard.type("roof box");
  await expect(page.getByRole("option", { name: /Roof box/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Enter");
  await expect(answer).toContainText("Everything that stands out counts");
  await expect(send).toHaveAttribute("data-ready", "true");

  await page.getByRole("combobox", { name: "Find on the shelf" }).focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(preview).toBeVisible();
  await expect(send).toBeDisabled();
  await page.keyboard.press("Control+Enter");
  await expect(said(page, "This is the letter that would go.")).toBeVisible();
  await expect(preview).toBeHidden();
  expect(await mailbox("lena.seen@example.net")).toHaveLength(0);
  await page.keyboard.press("Control+Shift+Enter");
  await expect(said(page, /On its way to lena.seen/)).toBeVisible();
  // The editor is empty again, and the letter stands in the conversation.
  await expect(page.getByRole("article", { name: /Our answer by Maren/ })).toContainText(
    "Everything that stands out",
  );
  await expect(page.getByRole("textbox", { name: "Our answer", includeHidden: true })).not.toContainText(
    "Everything that stands out",
  );
  const mail = await nextMail("lena.seen@example.net");
  expect(mail.text).toContain("Everything that stands out counts");
});

test("somebody who was forwarded our letter gets nothing that is the customer's before an agent has confirmed it", async ({
  page,
}) => {
  await signIn(page);
  const first = await deliverToUs({
    from: "Ina Owner <ina.owner@example.org>",
    to: "desk@example.com",
    subject: "my cabin",
    text: "Is there a cabin on the late boat?",
  });
  await showCase(page, "Ina Owner");
  await page.keyboard.press("Escape");
  await page.keyboard.type("There is.");
  await page.keyboard.press("Control+Shift+Enter");
  await nextMail("ina.owner@example.org");
  await deliverToUs({
    from: "Somebody Else <else@example.net>",
    to: "desk@example.com",
    replyTo: "third@example.net",
    subject: "Fwd: my cabin",
    text: "She sent me this. What is her booking?",
    inReplyTo: first.messageId,
  });
  const strange = page.getByRole("article", { name: "From Somebody Else" });
  await expect(strange).toContainText("which is not known to be Ina Owner’s");
  await expect(strange).toContainText("Asks for answers to third@example.net");
  await expect(strange.getByRole("heading")).toHaveCount(0);

  const answer = page.getByRole("textbox", { name: "Our answer" });
  await page.getByRole("combobox", { name: "Find on the shelf" }).focus();
  await page.keyboard.press("Escape");
  await answer.click();
  await page.keyboard.type("We tell that to her only.");
  await page.getByRole("button", { name: "another address" }).click();
  await page.getByRole("radio", { name: /else@example\.net/ }).click();
  await expect(page.getByRole("complementary", { name: "Second look" })).toContainText(
    "else@example.net wrote on this case for the first time; it is not known to be Ina Owner’s.",
  );
  await page.keyboard.press("Control+Shift+Enter");
  await expect(said(page, /On its way/)).toBeHidden();
  await page.getByRole("button", { name: "Send this letter there" }).click();
  await page.keyboard.press("Control+Shift+Enter");
  await expect(said(page, /On its way to else@example.net/)).toBeVisible();
  await nextMail("else@example.net");
  expect(await mailbox("ina.owner@example.org")).toHaveLength(1);
});

test("what is typed when the session has ended is told of, and is there again after signing in", async ({
  page,
  context,
}) => {
  await signIn(page, "idris@example.com");
  await deliverToUs({
    from: "Paul Late <paul.late@example.net>",
    to: "desk@example.com",
    subject: "late again",
    text: "Is the last boat late again?",
  });
  await showCase(page, "Paul Late");
  await page.keyboard.press("Escape");
  await page.keyboard.type("It is");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await context.clearCookies();
  await page.keyboard.type(" late by an hour.");
  await expect(
    page.getByText("Your session has ended. What you typed is kept in this browser", { exact: false }),
  ).toBeVisible();
  await page.getByRole("link", { name: "sign in again", exact: true }).click();
  await page.getByLabel("Email").fill("idris@example.com");
  await page.getByLabel("Password").fill("kittiwake");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(said(page, "What you had typed here is back.")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText("It is late by an hour.");
});

test("going to another case waits for the last words, and a server that is away throws nobody out", async ({
  page,
}) => {
  await signIn(page, "nele@example.com");
  await deliverToUs({
    from: "Kim Going <kim.going@example.net>",
    to: "desk@example.com",
    subject: "going on",
    text: "May we go on board early?",
  });
  await showCase(page, "Kim Going");
  await page.keyboard.press("Escape");
  // The save is slow: the next case comes only behind it.
  await page.route("**/draft", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 700));
    await route.continue();
  });
  await page.keyboard.type("You may, from six.");
  const address = page.url();
  await page.getByRole("link", { name: /^Waiting/ }).click();
  await expect(page.getByRole("navigation", { name: "Lists" })).toBeVisible();
  await page.unroute("**/draft");
  await page.goto(address);
  const answer = page.getByRole("textbox", { name: "Our answer" });
  await expect(answer).toContainText("You may, from six.");

  await page.route("**/*.data*", (route) => route.abort());
  await deliverToUs({
    from: "Kim Going <kim.going@example.net>",
    to: "desk@example.com",
    subject: "Re: going on",
    text: "And the dog?",
  });
  await expect(
    page.getByText("The server does not answer: what is shown may be out of date.", { exact: false }),
  ).toBeVisible();
  await expect(answer).toContainText("You may, from six.");
  await page.unroute("**/*.data*");
  await expect(page.getByRole("article", { name: "From Kim Going" })).toHaveCount(2);
  await expect(page.getByText("The server does not answer", { exact: false })).toBeHidden();
});

test("words that a document cannot hold are cleaned when they are pasted, and stay", async ({ page }) => {
  await signIn(page, "tadeo@example.com");
  await showCase(page, "Greta");
  await page.keyboard.press("Escape");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  const html = [
    '<p>One <a href="">empty</a></p>',
    `<p>Two <a href="https://example.org/${"x".repeat(2100)}">long</a></p>`,
    `${"<blockquote>".repeat(60)}<p>Three deep</p>${"</blockquote>".repeat(60)}`,
  ].join("");
  await answer.evaluate((element, pasted) => {
    const data = new DataTransfer();
    data.setData("text/html", pasted);
    element.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, html);
  for (const words of ["One empty", "Two long", "Three deep"]) await expect(answer).toContainText(words);
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
});

test("signing out leaves nothing to go back to, and ends what was open", async ({ page, context }) => {
  await signIn(page, "sunniva@example.com");
  await showCase(page, "Maeve");
  const address = page.url();
  const other = await context.newPage();
  await other.goto("/account");
  await expect(other.getByText("(this one)")).toBeVisible();
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page.getByLabel("Password")).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel("Password")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Our answer" })).toHaveCount(0);
  const response = await page.request.get(address, { maxRedirects: 0 });
  expect(response.status()).toBe(302);
  for (const to of ["/%09/evil.example", "//evil.example", "/\\evil.example", "https://evil.example/"]) {
    await page.goto(`/sign-in?to=${to}`);
    await page.getByLabel("Email").fill("sunniva@example.com");
    await page.getByLabel("Password").fill("kittiwake");
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(page).toHaveURL(/\/waiting$/);
    await page.getByRole("button", { name: "Sign out" }).click();
    await expect(page).toHaveURL(/\/sign-in$/);
  }
});
