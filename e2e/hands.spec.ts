import { expect, test, type Page } from "@playwright/test";
import { deliverToUs, insertTable, nextMail, said, showCase, signIn } from "./house";

/** What is done with the hands on the keys. */

const answer = (page: Page) => page.getByRole("textbox", { name: "Our answer" });
const bar = (page: Page) => page.getByRole("toolbar", { name: "Formatting" });

async function openCaseOf(page: Page, name: string, subject: string, text: string): Promise<string> {
  const address = `${name.toLowerCase().replaceAll(" ", ".")}@example.org`;
  await deliverToUs({ from: `${name} <${address}>`, to: "desk@example.com", subject, text });
  await page.goto(`/waiting?whose=all&text=${encodeURIComponent(name)}`);
  await expect(async () => {
    await page.reload();
    await expect(page.getByRole("link", { name: new RegExp(name) }).first()).toBeVisible({ timeout: 1000 });
  }).toPass();
  await showCase(page, name);
  return address;
}

async function selectLastWord(page: Page, word: string): Promise<void> {
  await page.keyboard.press("ControlOrMeta+Shift+ArrowLeft");
  await expect.poll(() => page.evaluate(() => String(document.getSelection()))).toBe(word);
  // The editor hears of it a moment after the page.
  const isSelected = (element: Element) => {
    const { editor } = element as Element & { editor: { state: { selection: { empty: boolean } } } };
    return !editor.state.selection.empty;
  };
  await expect.poll(() => answer(page).evaluate(isSelected)).toBe(true);
}

test("an answer has links and a table, each with a way out, and sending it leaves an empty one", async ({
  page,
}) => {
  await signIn(page);
  const address = await openCaseOf(
    page,
    "Tove Tabell",
    "hours",
    "When are the halls open, and is there a map?",
  );
  await page.keyboard.press("Escape");
  await expect(answer(page)).toBeFocused();
  await expect(bar(page)).toBeVisible();
  await page.keyboard.type("Here is the map");

  // A link by its key; its address is asked for at once.
  await selectLastWord(page, "map");
  await page.keyboard.press("ControlOrMeta+k");
  const to = page.getByRole("textbox", { name: "Leads to" });
  await expect(to).toBeFocused();
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("https://example.org/map");
  await page.keyboard.press("Enter");
  await expect(answer(page)).toBeFocused();
  await expect(answer(page).getByRole("link", { name: "map" })).toHaveAttribute(
    "href",
    "https://example.org/map",
  );

  // A table from the bar, which the keys reach and leave.
  await page.keyboard.press("End");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Alt+F10");
  await expect(bar(page).getByRole("button", { name: "bold" })).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(answer(page)).toBeFocused();
  await page.keyboard.press("Alt+F10");
  await insertTable(page);
  await expect(page.getByRole("group", { name: "Table" })).toBeVisible();
  await page.keyboard.type("Quay");
  for (const step of ["ArrowDown", "ArrowDown", "ArrowDown"]) await page.keyboard.press(step);
  await page.keyboard.type("After the table.");
  const paragraph = answer(page).getByText("After the table.");
  await expect(paragraph).toBeVisible();
  await expect(paragraph.locator("xpath=ancestor::table")).toHaveCount(0);

  await page.getByRole("button", { name: "Send and stay" }).click();
  const mail = await nextMail(address);
  expect(mail.html).toContain('<a href="https://example.org/map">map</a>');
  expect(mail.html).toMatch(/<table[\s\S]*Quay[\s\S]*<\/table>[\s\S]*After the table\./);
  await expect(page.getByRole("region", { name: /How “/ })).toHaveCount(0);
  await expect(answer(page).getByRole("table")).toHaveCount(0);
  await expect(answer(page)).not.toContainText("Here is the map");
  await expect(page.getByText("Here is the map").first()).toBeVisible();
});

test("an address that is pasted over words makes them a link", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await signIn(page);
  await openCaseOf(page, "Liv Linke", "map", "Where is the map?");
  await page.keyboard.press("Escape");
  await page.keyboard.type("See our map");
  await selectLastWord(page, "map");
  await page.evaluate(() => navigator.clipboard.writeText("https://example.org/quays"));
  await page.keyboard.press("ControlOrMeta+v");
  await expect(answer(page).getByRole("link", { name: "map" })).toHaveAttribute(
    "href",
    "https://example.org/quays",
  );
  await expect(answer(page)).toContainText("See our map");
  await page.keyboard.press("ControlOrMeta+z");
  await expect(answer(page).getByRole("link")).toHaveCount(0);
});

test("in lists, ↓ and Enter act on what was found, and Escape goes back step by step", async ({ page }) => {
  await signIn(page);
  await deliverToUs({
    from: "Greta Gangway <greta.gangway@example.org>",
    to: "desk@example.com",
    subject: "gangway",
    text: "How steep is the gangway?",
  });
  await page.goto("/waiting?whose=all");

  // Three presses of Tab from the top to the list.
  await page.reload();
  await page.keyboard.press("Tab");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "To the list" })).toBeFocused();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("main").getByRole("listitem").first().getByRole("link")).toBeFocused();

  await page.keyboard.press("/");
  const field = page.getByRole("searchbox", { name: "Find a case" });
  await expect(field).toBeFocused();
  await expect(async () => {
    await page.keyboard.press("ControlOrMeta+a");
    await page.keyboard.type("gangway");
    await page.keyboard.press("ArrowDown");
    await expect(page.getByRole("link", { name: /Greta Gangway/ })).toBeFocused({ timeout: 5000 });
  }).toPass();
  await page.keyboard.press("/");
  await page.keyboard.press("Escape");
  await expect(field).toHaveValue("");
  await expect(field).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(field).not.toBeFocused();
  await page.keyboard.press("/");
  await page.keyboard.type("gangway");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/cases\/\d+/);
  await expect(page.getByRole("heading", { name: "gangway" })).toBeVisible();

  // The same on the shelves: nothing of the list before it is opened.
  await page.goto("/shelves");
  // Once the page is alive, the keys act.
  await expect(async () => {
    await page.keyboard.press("/");
    await expect(page.getByRole("searchbox", { name: "Find a reply" })).toBeFocused({ timeout: 500 });
  }).toPass();
  await page.keyboard.type("bicycle");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/replies\/[a-z-]*bicycle/);
  await expect(said(page, "There is no")).toHaveCount(0);
});
