import { expect, test, type Browser, type Page } from "@playwright/test";
import { violations } from "./axe";
import { choose, nextMail, said, signIn } from "./house";

/** A customer with a window of their own. */
async function customer(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 390, height: 760 } });
  return context.newPage();
}

async function takeChats(page: Page): Promise<void> {
  await page.goto("/chats");
  await expect(page.getByRole("combobox", { name: "I take up to" })).toContainText("3 chats");
}

async function begin(window: Page, name: string, words: string, email = ""): Promise<void> {
  await window.goto("/chat");
  await window.getByLabel("What is it about?").fill(words);
  await window.getByLabel("Your name").fill(name);
  if (email !== "") await window.getByLabel("Your email address").fill(email);
  await window.getByRole("button", { name: "Begin" }).click();
}

test("a chat goes both ways, a piece of the shelf is looked at first, and the talk goes by mail at its end", async ({
  page,
  browser,
}, { retry }) => {
  const name = `Jo Lind ${retry}`;
  await signIn(page, "bram@example.com");
  await takeChats(page);
  const window = await customer(browser);
  await begin(window, name, "hi, what does it cost to take my bicycle?", `jo.chat${retry}@example.org`);
  await expect(window.getByRole("status")).toHaveText("Bram is with you.");
  const chat = page.getByRole("region", { name: `Chat with ${name}` });
  await expect(chat).toContainText("hi, what does it cost to take my bicycle?");
  expect(await violations(page)).toEqual([]);

  // Their own words, and who is writing.
  await window.getByLabel("Write here").fill("it is folded");
  await expect(chat).toContainText(`${name} is writing …`);
  await window.keyboard.press("Enter");
  await expect(chat.getByRole("listitem").filter({ hasText: "it is folded" })).toBeVisible();
  await expect(window.getByText("read").first()).toBeVisible();

  // From the shelf, looked at first.
  await chat.getByRole("textbox").press("Escape");
  const shelf = page.getByRole("combobox", { name: "Find on the shelf" });
  await expect(shelf).toBeFocused();
  await page.keyboard.type("bicycles");
  await expect(page.getByRole("option", { name: /Bicycles/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Enter");
  const looked = page.getByRole("region", { name: "Bicycles", exact: true });
  await expect(looked).toContainText("looked at first");
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press("Escape");
  await expect(looked).toBeHidden();
  await page.keyboard.press("Enter");
  await expect(looked.getByRole("button", { name: "Send it" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(window.getByText(/Bicycles go on with the foot passengers/)).toBeVisible();
  await expect(chat.getByText(/read \d\d:\d\d/).first()).toBeVisible();
  expect(await violations(window)).toEqual([]);

  // Typed.
  await chat.getByRole("textbox").fill("Anything else?");
  await chat.getByRole("textbox").press("Enter");
  await expect(window.getByText("Anything else?")).toBeVisible();

  await window.getByRole("button", { name: "End the chat" }).click();
  await expect(window.getByText("The whole talk went to", { exact: false })).toBeVisible();
  await expect(chat).toContainText(`The talk went to jo.chat${retry}@example.org.`);
  const mail = await nextMail(`jo.chat${retry}@example.org`);
  expect(mail.text).toContain(`${name}: it is folded`);
  expect(mail.text).toContain("Bram: Anything else?");
  await choose(page.getByRole("combobox", { name: "I take up to" }), "no chats");
});

test("a window that lost its connection goes on where it was, and nothing is said twice", async ({
  page,
  browser,
}, { retry }) => {
  const name = `Wale Ade ${retry}`;
  await signIn(page, "idris@example.com");
  await takeChats(page);
  const window = await customer(browser);
  await begin(window, name, "is the ship full?");
  const chat = page.getByRole("region", { name: `Chat with ${name}` });
  await expect(chat).toContainText("is the ship full?");
  await window.context().setOffline(true);
  await window.getByLabel("Write here").fill("said while offline");
  await window.keyboard.press("Enter");
  await expect(window.getByText("not sent yet")).toBeVisible();
  await chat.getByRole("textbox").fill("answered meanwhile");
  await chat.getByRole("textbox").press("Enter");
  await window.context().setOffline(false);
  await expect(window.getByText("answered meanwhile")).toBeVisible();
  await expect(window.getByText("not sent yet")).toBeHidden();
  await expect(chat.getByText("said while offline")).toHaveCount(1);
  await window.reload();
  await expect(window.getByText("said while offline")).toHaveCount(1);

  // At once: only what has neither a blank nor a finding.
  await chat.getByRole("textbox").press("Escape");
  await page.getByRole("combobox", { name: "Find on the shelf" }).fill("bicycles");
  await expect(page.getByRole("option", { name: /Bicycles/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Control+Enter");
  await expect(window.getByText(/Bicycles go on with the foot passengers/)).toBeVisible();
  await chat.getByRole("button", { name: "End it" }).click();
  await expect(window.getByText("The chat has ended.").first()).toBeVisible();
});

test("a chat whose connection is lost again and again loses no word", async ({ page, browser }, {
  retry,
}) => {
  const name = `Vera Drop ${retry}`;
  await signIn(page, "idris@example.com");
  await takeChats(page);
  const window = await customer(browser);
  await window.goto(`/chat?as=vera${retry}&name=${encodeURIComponent(name)}&fault=drops`);
  await expect(window.getByLabel("Your name")).toHaveValue(name);
  await window.getByLabel("What is it about?").fill("number 0");
  await window.getByRole("button", { name: "Begin" }).click();
  const chat = page.getByRole("region", { name: `Chat with ${name}` });
  await expect(chat).toContainText("number 0");
  for (let number = 1; number <= 8; number += 1) {
    await window.getByLabel("Write here").fill(`number ${number}`);
    await window.keyboard.press("Enter");
    await expect(window.getByText(`number ${number}`)).toHaveCount(1);
    await chat.getByRole("textbox").fill(`answer ${number}`);
    await chat.getByRole("textbox").press("Enter");
    await expect(window.getByText(`answer ${number}`)).toHaveCount(1);
  }
  await expect(window.getByText("not sent yet")).toHaveCount(0);
  for (let number = 0; number <= 8; number += 1)
    await expect(chat.getByText(`number ${number}`, { exact: true })).toHaveCount(1);
  await chat.getByRole("button", { name: "End it" }).click();
});

test("a piece asks, its answers stand as buttons below it, and what is pressed is told in the chat", async ({
  page,
  browser,
}, { retry }) => {
  const name = `Pia Press ${retry}`;
  await signIn(page, "idris@example.com");
  await takeChats(page);
  const window = await customer(browser);
  await begin(window, name, "my sailing is cancelled, what now?");
  const chat = page.getByRole("region", { name: `Chat with ${name}` });
  await expect(chat).toContainText("what now?");
  await chat.getByRole("textbox").press("Escape");
  await page.getByRole("combobox", { name: "Find on the shelf" }).fill("money back or another");
  await expect(page.getByRole("option", { name: /Money back or another/ })).toHaveAttribute(
    "aria-selected",
    "true",
  );
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Send it" })).toBeFocused();
  await page.keyboard.press("Enter");
  const question = window.getByRole("form", { name: "Would you like your money back, or another sailing?" });
  await expect(question).toBeVisible();
  await expect(window.getByText("/q/")).toHaveCount(0);
  expect(await violations(window)).toEqual([]);
  await question.getByRole("button", { name: "My money back" }).click();
  await expect(window.getByText("Thank you. We have your answer.")).toBeVisible();
  await expect(chat.getByText(/another sailing\? My money back/)).toBeVisible();
  await window.reload();
  await expect(window.getByText("Thank you. We have your answer.")).toBeVisible();
  await expect(question).toHaveCount(0);
  await chat.getByRole("button", { name: "End it" }).click();
});

test("when nobody takes chats, the form stands there, and works without script", async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const window = await context.newPage();
  await window.goto("/contact/contact");
  await window.getByRole("button", { name: "Send" }).click();
  await expect(window.getByText("Write your email address, as in ana@example.org")).toBeVisible();
  await window.getByLabel("Your email address").fill("form.sender@example.org");
  await window.getByLabel("Your name").fill("Form Sender");
  await window.getByLabel("What it is about").selectOption("Lost property");
  await window.getByLabel("Message").fill("I left a green umbrella on the Kittiwake.");
  const number = window.getByText(/Your number: SF-\d+/);
  // Faster than any person it is asked to look again.
  await expect(async () => {
    await window.getByRole("button", { name: "Send" }).click();
    await expect(number).toBeVisible({ timeout: 2000 });
  }).toPass();
  const mail = await nextMail("form.sender@example.org");
  expect(mail.text).toContain(/SF-\d+/.exec((await number.textContent()) ?? "")?.[0]);
  expect(mail.headers.find((one) => one.name === "auto-submitted")?.value).toBe("auto-replied");
});

test("a lead makes a form of their own, and sees what is wrong with it", async ({ page }) => {
  await signIn(page, "sunniva@example.com");
  await page.goto("/setup/forms");
  expect(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "Another form" }).click();
  const form = page.getByRole("form", { name: "Another form" });
  await form.getByLabel("Title").fill("Lost property");
  await form.getByLabel("Its address, after /contact/").fill("Lost property");
  await form.getByRole("button", { name: "Add the form" }).click();
  await expect(form.getByText(/Small letters, digits and hyphens/)).toBeVisible();
  await form.getByLabel("Its address, after /contact/").fill("lost-property");
  await form.getByLabel("What is said once it was sent").fill("Thank you, we look for it.");
  await form.getByRole("button", { name: "Add a field" }).click();
  await form.getByLabel("What it is called").fill("Colour");
  await form.getByRole("button", { name: "Add the form" }).click();
  await expect(said(page, "Saved")).toBeVisible();
  await page.goto("/contact/lost-property");
  await expect(page.getByLabel(/Colour/)).toBeVisible();
  expect(await violations(page)).toEqual([]);
});
