import { expect, test, type Page } from "@playwright/test";
import { violations } from "./axe";
import { choose, deliverToUs, fromMenu, header, mailbox, nextMail, said, showCase, signIn } from "./house";

/** Customers are told when their case changes; how long it took is measured, and set right. */

const words = (page: Page) => page.getByRole("textbox", { name: "The words", exact: true });

/** Writes a reply that says how a case stands, and puts it on the shelf. */
async function writeReply(page: Page, title: string): Promise<void> {
  await page.getByRole("link", { name: "Shelves", exact: true }).click();
  await page.getByRole("link", { name: "Write a reply" }).click();
  await page.getByLabel("Title").fill(title);
  await choose(page.getByLabel("Shelf"), "On board");
  await page.getByRole("button", { name: "Go on to its words" }).click();
  await page.waitForURL(/\/replies\/(?!new)/);
  await expect(words(page)).toBeFocused();
  await page.keyboard.type("Your case is {");
  await expect(page.getByRole("combobox", { name: "Find a value" })).toBeFocused();
  await page.keyboard.type("state, in");
  await page.keyboard.press("Enter");
  await expect(words(page)).toBeFocused();
  await page.keyboard.type(" now.");
  await page.getByRole("button", { name: "Publish…" }).click();
  await page.getByRole("textbox", { name: "Remark for the history" }).fill("first");
  await page.keyboard.press("Enter");
  await expect(said(page, /Version \d+ is on the shelf/)).toBeVisible();
}

/** Makes a notice of a state, for one mailbox: what other tests change tells nobody anything. */
async function addNotice(page: Page, into: string, reply: string, byItself: boolean): Promise<void> {
  const forms = page.getByRole("form", { name: /^Notice \d+$/ });
  await expect(page.getByRole("heading", { name: "Notices" })).toBeVisible();
  const count = await forms.count();
  const another = page.getByRole("form", { name: "Another notice" });
  if (!(await another.isVisible())) await page.getByText("Another notice", { exact: true }).click();
  for (const [list, option] of [
    ["Into", into],
    ["Mailbox", "freight@example.com"],
  ] as const) {
    await another.getByRole("combobox", { name: list }).click();
    await page.getByRole("option", { name: option, exact: true }).click();
    await page.keyboard.press("Escape");
  }
  await another.getByRole("combobox", { name: "The reply" }).click();
  await page.keyboard.type(reply);
  await page.getByRole("option", { name: new RegExp(`^${reply}`) }).click();
  if (byItself) {
    await choose(another.getByRole("combobox", { name: "Who sends it" }), "it goes by itself");
    await another.getByLabel("Can be called back for").fill("1");
  }
  await another.getByRole("button", { name: "Add the notice" }).click();
  await expect(forms).toHaveCount(count + 1);
}

test("a case goes through its states, and its customer hears of them by notices that a lead set, but of none that is called back", async ({
  page,
}) => {
  test.slow();
  const stamp = Date.now() % 100_000;
  const title = `How it stands ${stamp}`;
  await signIn(page, "sunniva@example.com");
  await writeReply(page, title);
  await page.getByRole("link", { name: "Setup" }).click();
  await page.getByRole("link", { name: "Notices" }).click();
  await addNotice(page, "settled", title, false);
  await addNotice(page, "waiting on a colleague", title, true);
  expect(await violations(page)).toEqual([]);

  const address = `noel.told.${stamp}@example.org`;
  await deliverToUs({
    from: `Noel Told${stamp} <${address}>`,
    to: "freight@example.com",
    subject: "our hats",
    text: "We left nine hats aboard.",
  });
  await showCase(page, `Noel Told${stamp}`);
  const side = page.getByRole("region", { name: "Their side" });
  const notices = page.getByRole("list", { name: "Notices of this case" });

  // By itself, with a chance to call it back; called back, it is offered.
  await fromMenu(page, "It waits on a colleague");
  await expect(notices).toContainText(`“${title}” goes by itself`);
  expect(await violations(page)).toEqual([]);
  await notices.getByRole("button", { name: "Call it back" }).click();
  await expect(notices).toContainText(`Tell them by “${title}”?`);
  await notices.getByRole("button", { name: "Leave it" }).click();
  await expect(notices).toHaveCount(0);

  // The same, and nobody calls it back: it arrives, says that it was sent by itself, and the case stays as it was brought.
  await fromMenu(page, "Take it up again");
  await fromMenu(page, "It waits on a colleague");
  await expect(notices).toContainText("goes by itself");
  const told = await nextMail(address);
  expect(told.text).toContain("Your case is with a colleague of ours now.");
  expect(header(told, "auto-submitted")).toBe("auto-generated");
  await expect(side.getByText(/^waiting on a colleague/)).toBeVisible();
  await expect(notices).toHaveCount(0);

  // Offered: taken into an answer, which says the new state and is the agent's own letter.
  await fromMenu(page, "Settle it");
  await notices.getByRole("button", { name: "take it" }).click();
  await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText("Your case is closed now.");
  await page.keyboard.press("Control+Shift+Enter");
  await expect(notices).toHaveCount(0);
  const answered = await nextMail(address, 2);
  expect(answered.text).toContain("Your case is closed now.");
  expect(header(answered, "auto-submitted")).toBeUndefined();
  expect(await mailbox(address)).toHaveLength(2);

  await page.getByText("History").click();
  await side.getByRole("link", { name: "The whole record" }).click();
  const record = page.getByRole("region", { name: "History of the case" });
  await expect(record).toContainText(`called the notice “${title}” back`);
  await expect(record).toContainText(`set off the notice “${title}”`);
  await expect(record).toContainText("went by itself");
  for (const words of ["nine hats", `with a colleague of ours`]) {
    await page.getByRole("link", { name: "Record", exact: true }).click();
    await page.getByRole("searchbox", { name: "Find in everything said" }).fill(`"${words}"`);
    await page.keyboard.press("Enter");
    await expect(
      page.getByRole("link", { name: new RegExp(`Told${stamp}|how it stands|our hats`, "i") }).first(),
    ).toBeVisible();
  }
});

test("how long a case took is measured and shown, and set right with a reason that stays", async ({
  page,
}) => {
  const name = `Tim Taken${Date.now() % 100_000}`;
  await deliverToUs({
    from: `${name} <tim.${Date.now()}@example.org>`,
    to: "desk@example.com",
    subject: "how long",
    text: "How long will it take?",
  });
  await signIn(page);
  const counted = page.waitForResponse((response) => response.url().endsWith("/time"), { timeout: 90_000 });
  await showCase(page, name);
  const side = page.getByRole("region", { name: "Their side" });
  expect((await counted).status()).toBe(200);
  await fromMenu(page, "Set the time spent right");
  const dialog = page.getByRole("dialog", { name: "How long it took" });
  await dialog.getByLabel("Minutes altogether").fill("25");
  await dialog.getByLabel("Why").fill("was on the phone with them");
  expect(await violations(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Set it right" }).click();
  await expect(side.getByText("25 minutes spent on it")).toBeVisible();
  await page.getByText("History").click();
  await expect(side.getByText(/to 25 minutes: was on the phone with them$/)).toBeVisible();
});
