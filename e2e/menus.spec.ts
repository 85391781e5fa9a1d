import { expect, test, type Locator, type Page } from "@playwright/test";
import { violations } from "./axe";
import { signIn } from "./house";

const words = (page: Page) => page.getByRole("textbox", { name: "The words" });
const menu = (page: Page) => page.getByRole("menu", { name: "What can be done here" });

/** Opens a reply; it hears the mouse once the letters beside it are drawn. */
async function openReply(page: Page): Promise<void> {
  await page.goto("/replies/sailing-put-off");
  await page.getByRole("article").first().waitFor();
}

/** Presses the other button in the middle of what is there. */
async function press(what: Locator): Promise<void> {
  await what.click({ button: "right" });
}

test("a value's own menu leads to its format, by mouse and by key", async ({ page }) => {
  await signIn(page, "tadeo@example.com");
  await openReply(page);
  const chip = words(page).getByText("new sailing", { exact: true });
  await press(chip);
  await expect(menu(page)).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("menuitem", { name: "Choose its format" })).toBeFocused();
  await page.keyboard.press("Enter");
  const cursor = page.getByRole("group", { name: "At the cursor" });
  await expect(cursor.getByText("new sailing", { exact: true })).toBeVisible();
  await expect(cursor.getByRole("combobox").first()).toBeFocused();
});

test("words are put under a condition, turned around and freed from their own menu", async ({ page }) => {
  await signIn(page, "tadeo@example.com");
  await openReply(page);
  const animal = words(page).getByText("Nothing changes for your animal");
  await press(animal);
  await page.getByRole("menuitem", { name: "Swap with otherwise" }).click();
  await expect(words(page).getByText(/^otherwise than when number of animals/)).toBeVisible();
  await expect(words(page)).toBeFocused();
  await press(animal);
  await page.getByRole("menuitem", { name: "Remove the condition" }).click();
  await expect(words(page).getByText(/number of animals is at least 1/)).toBeHidden();
  // Plain words keep the browser's own menu; selected ones have ours.
  await press(animal);
  await expect(menu(page)).toBeHidden();
  await page.keyboard.press("Escape");
  await animal.selectText();
  await press(animal);
  await page.getByRole("menuitem", { name: "Stands only when…" }).press("ArrowRight");
  await page.getByRole("menuitem", { name: /^these words, when number of animals/ }).press("Enter");
  await expect(words(page).getByText(/^when number of animals is at least 1/)).toBeVisible();
});

test("a passage that is copied from its menu brings its condition where it is pasted", async ({ page }) => {
  await signIn(page, "tadeo@example.com");
  await openReply(page);
  await press(words(page).getByText("Nothing changes for your animal"));
  await page.getByRole("menuitem", { name: "Copy with the condition" }).click();
  await page.goto("/replies/lost-property");
  await words(page).press("Control+End");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+V");
  await expect(words(page).getByText("Nothing changes for your animal")).toBeVisible();
  await expect(words(page).getByText(/^when number of animals is at least 1/)).toBeVisible();
});

test("a row's menu is opened by key, goes back to its row, and begins another reply", async ({ page }) => {
  await signIn(page, "tadeo@example.com");
  await page.goto("/shelves?q=sailing+put+off");
  const more = page.getByRole("button", { name: "More for Sailing put off by weather" });
  // Once the page is alive.
  await expect(async () => {
    await page.keyboard.press("Escape");
    await more.press("Enter");
    await expect(page.getByRole("menuitem", { name: "Look through its versions" })).toBeFocused({
      timeout: 1000,
    });
  }).toPass();
  await page.keyboard.press("Escape");
  await expect(more).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("menuitem", { name: "Look through its versions" })).toBeFocused();
  await page.keyboard.type("cop");
  await expect(page.getByRole("menuitem", { name: "Copy it" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/replies\/new\?from=sailing-put-off/);
  await expect(page.getByRole("textbox", { name: "Title" })).toHaveValue(/Sailing put off by weather/);
});

test("what opens over a page is free of accessibility findings", async ({ page }) => {
  test.setTimeout(180_000);
  await signIn(page, "tadeo@example.com");
  const look = async (what: string, opened: Locator, part = "html") => {
    await expect(opened).toBeVisible();
    expect({ what, found: await violations(page, part) }).toEqual({ what, found: [] });
    await page.keyboard.press("Escape");
    await expect(opened).toBeHidden();
  };
  // While one chooses from a list, the rest of the page is not there for who does not see it.
  const list = page.getByRole("listbox");
  const own = "[role=listbox]";
  await page.goto("/waiting");
  for (const name of ["Whose", "Topic"]) {
    await page.getByRole("combobox", { name }).press("Enter");
    await look(`Waiting, ${name}`, list, own);
  }
  await page.goto("/shelves");
  await page.getByRole("combobox", { name: /tag/i }).first().press("Enter");
  await look("Shelves, tags", list, own);
  for (const name of ["More filters", "columns"]) {
    await page.getByRole("button", { name, exact: true }).press("Enter");
    await look(`Shelves, ${name}`, page.getByRole("dialog"));
  }
  await page
    .getByRole("button", { name: /^More for/ })
    .first()
    .press("Enter");
  await look("Shelves, a row", page.getByRole("menu"), "[role=menu]");
  await openReply(page);
  await page.getByRole("button", { name: "{ value" }).press("Enter");
  await look("Writing, values", page.getByRole("combobox", { name: "Find a value" }));
  await press(words(page).getByText("new sailing", { exact: true }));
  await look("Writing, words", menu(page), "[role=menu]");
  await page.getByRole("tab", { name: "Filing" }).click();
  await page.getByRole("combobox", { name: /^Tags/ }).press("Enter");
  await look("Writing, tags", page.getByRole("dialog"));
  await page.getByRole("button", { name: "Choose review by" }).press("Enter");
  await look("Writing, a day", page.getByRole("grid"));
  await page.goto("/shelves/arrange");
  await page.getByRole("button", { name: "On board", exact: true }).click();
  await page
    .getByRole("button", { name: /^Remove/i })
    .first()
    .click();
  await look("Arrange, taking away", page.getByRole("alertdialog"));
  await page.goto("/setup/usual");
  await page.getByRole("combobox").first().press("Enter");
  await look("Setup, the usual", list, own);
});
