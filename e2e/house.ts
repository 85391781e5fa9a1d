import { expect, type Locator, type Page } from "@playwright/test";
import { createTransport, type SendMailOptions } from "nodemailer";

/** The house under test, as agents, customers and mail servers meet it. */

const env = (name: string, usual: string) => process.env[name] || usual;
/** Where the simulated outside is. */
export const OUTSIDE = `http://127.0.0.1:${env("STANDINS_PORT", "4320")}`;

export async function signIn(page: Page, email = "maren@example.com"): Promise<void> {
  await page.goto("/sign-in");
  await page.getByLabel("Email").fill(email);
  await page.getByLabel("Password").fill("kittiwake");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("navigation", { name: "Lists" })).toBeVisible();
}

/** Opens the case of a customer from the list of all that wait. */
export async function showCase(page: Page, customer: string): Promise<void> {
  await page.goto(`/waiting?whose=all&text=${encodeURIComponent(customer)}`);
  await page
    .getByRole("link", { name: new RegExp(customer) })
    .first()
    .click();
  await answerReady(page);
}

/** Chooses from the menu of the case that is open. */
export async function fromMenu(page: Page, words: string): Promise<void> {
  await page.getByRole("button", { name: "More to do with this case" }).click();
  await page.getByRole("menuitem", { name: words }).click();
}

/** Chooses from a list of few. */
export async function choose(list: Locator, option: string | RegExp): Promise<void> {
  await list.click();
  const found = list.page().getByRole("option", { name: option, exact: true });
  await found.click();
  await expect(list).toBeFocused();
}

/** The answer's page is there and can be typed in. */
export async function answerReady(page: Page): Promise<void> {
  await expect(page.getByRole("combobox", { name: "Find on the shelf" })).toBeFocused();
  await expect(page.getByRole("textbox", { name: "Our answer", includeHidden: true })).toBeAttached();
}

export interface Mail {
  id: string;
  from: string;
  subject: string;
  messageId: string | null;
}

export interface OpenedMail extends Mail {
  text: string;
  html: string;
  headers: { name: string; value: string }[];
  attachments: { name: string; contentType: string; size: number; contentId: string | null }[];
}

/** Asks something of the outside that changes it. */
export async function outside(path: string, body: object): Promise<void> {
  const response = await fetch(OUTSIDE + path, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
}

/** What a phone shows. */
export async function phone(number: string): Promise<{ written: boolean; text: string }[]> {
  return ask(`/phones/${encodeURIComponent(number)}`);
}

async function ask<T>(path: string): Promise<T> {
  const response = await fetch(OUTSIDE + path);
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  return (await response.json()) as T;
}

export async function mailbox(address: string): Promise<Mail[]> {
  return ask(`/mailboxes/${encodeURIComponent(address)}`);
}

/** Waits until a mailbox has so many messages. @returns the latest, opened */
export async function nextMail(address: string, count = 1): Promise<OpenedMail> {
  await expect
    .poll(async () => (await mailbox(address)).length, { timeout: 90_000, message: `mail for ${address}` })
    .toBe(count);
  const [latest] = await mailbox(address);
  if (!latest) throw new Error("There is no mail");
  return ask(`/messages/${latest.id}`);
}

export async function rawMail(id: string): Promise<string> {
  return (await fetch(`${OUTSIDE}/messages/${id}/raw`)).text();
}

/** For whom something went wrong last. */
let only: string | undefined;

/** Makes something go wrong for one address or booking, so that tests beside it notice nothing; or all well for it again. */
export async function setFaults(
  faults: { mail?: string; bookings?: string; bookingDelay?: number; sms?: string; only: string } | null,
): Promise<void> {
  if (faults) only = faults.only;
  const response = await fetch(`${OUTSIDE}/faults`, {
    method: "PUT",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ mail: "fine", bookings: "fine", bookingDelay: 150, only, ...faults }),
  });
  if (!response.ok) throw new Error(await response.text());
}

/** Delivers a message to the program as any mail server would, which tries again where nobody answers: a test beside may have killed it. */
export async function deliverToUs(
  message: SendMailOptions,
  port = env("INBOUND_SMTP_PORT", "4325"),
): Promise<{ messageId: string }> {
  const transport = createTransport({
    host: "127.0.0.1",
    port: Number(port),
    ignoreTLS: true,
  });
  try {
    await expect
      .poll(() => transport.verify().catch((error: unknown) => String(error)), { timeout: 60_000 })
      .toBe(true);
    return await transport.sendMail(message);
  } finally {
    transport.close();
  }
}

export function header(mail: OpenedMail, name: string): string | undefined {
  return mail.headers.find((one) => one.name === name)?.value;
}

/** What a notice at the foot says. */
export function said(page: Page, words: string | RegExp): Locator {
  return page.getByRole("region", { name: /^Notices/ }).getByText(words);
}

/** Puts a table into the answer, from its formatting bar and by its keys alone; the hand is in the bar already. */
export async function insertTable(page: Page): Promise<void> {
  const bar = page.getByRole("toolbar", { name: "Formatting" });
  await expect(bar.getByRole("button", { name: "bold" })).toBeFocused();
  for (const [key, name] of [
    ["End", "redo"],
    ["ArrowLeft", "undo"],
    ["ArrowLeft", "table"],
  ] as const) {
    await page.keyboard.press(key);
    await expect(bar.getByRole("button", { name, exact: true })).toBeFocused();
  }
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Our answer" }).getByRole("table")).toBeVisible();
}
