import { expect, test, type Page } from "@playwright/test";
import { showCase, said, signIn } from "./house";

/** The shelves in the order in which they stand, by their handles. */
function shelves(page: Page): Promise<string[]> {
  return page
    .getByRole("list", { name: "Shelves" })
    .getByRole("button", { name: /^Move / })
    .evaluateAll((handles) =>
      handles.map((one) => one.getAttribute("aria-label")?.replace("Move ", "") ?? ""),
    );
}

/** Moves a finger from the middle of one element to that of another, as a touch screen tells of it. */
async function drag(page: Page, from: string, to: string): Promise<void> {
  const middle = async (name: string) => {
    const box = await page.getByRole("button", { name: `Move ${name}`, exact: true }).boundingBox();
    if (!box) throw new Error(`There is no handle of ${name}`);
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const [start, end] = [await middle(from), await middle(to)];
  const screen = await page.context().newCDPSession(page);
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", points: { x: number; y: number }[]) =>
    screen.send("Input.dispatchTouchEvent", { type, touchPoints: points });
  await touch("touchStart", [start]);
  const steps = 12;
  for (let step = 1; step <= steps; step += 1)
    await touch("touchMove", [{ x: start.x, y: start.y + ((end.y - start.y) * step) / steps }]);
  await touch("touchEnd", []);
}

test("shelves are put into another order by a finger, and by the keyboard, which is spoken to", async ({
  browser,
}) => {
  const page = await (await browser.newContext({ hasTouch: true })).newPage();
  await signIn(page, "tadeo@example.com");
  await page.goto("/shelves/arrange");
  const before = await shelves(page);
  const [first = "", second = "", third = ""] = before;
  await drag(page, first, third);
  const after = [second, third, first, ...before.slice(3)];
  await expect.poll(() => shelves(page)).toEqual(after);
  await expect(said(page, "The shelves stand in this order.")).toBeVisible();
  await page.reload();
  expect(await shelves(page)).toEqual(after);
  // What speaks of the order is there once the page hears keys.
  await expect(page.locator("[id^=DndLiveRegion]")).toBeAttached();

  const handle = page.getByRole("button", { name: `Move ${first}`, exact: true });
  await handle.focus();
  await page.keyboard.press("Space");
  await expect(page.getByText(`${first} would stand at place 3 of`)).toBeAttached();
  await page.keyboard.press("ArrowUp");
  await expect(page.getByText(`${first} would stand at place 2 of`)).toBeAttached();
  await page.keyboard.press("ArrowUp");
  await expect(page.getByText(`${first} would stand at place 1 of`)).toBeAttached();
  await page.keyboard.press("Escape");
  await expect.poll(() => shelves(page)).toEqual(after);
  await handle.focus();
  for (const _step of [1, 2]) {
    const kept = page.waitForResponse(/\/shelves\/order/);
    await page.keyboard.press("Alt+ArrowUp");
    await kept;
  }
  await expect.poll(() => shelves(page)).toEqual(before);
  await expect(handle).toBeFocused();
  await page.reload();
  await expect.poll(() => shelves(page)).toEqual(before);
  await page.context().close();
});

test("the slips of an answer are put into another order by a finger, and by the keyboard, which is spoken to", async ({
  browser,
}) => {
  const page = await (await browser.newContext({ hasTouch: true })).newPage();
  await signIn(page);
  await showCase(page, "Stella");
  await page.keyboard.type("lost on board");
  await expect(page.getByRole("option", { selected: true })).toContainText(/lost/i);
  await page.keyboard.press("Enter");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  const slips = () =>
    answer.getByRole("region").evaluateAll((all) => all.map((one) => one.getAttribute("aria-label") ?? ""));
  await expect(answer.getByRole("region")).toHaveCount(3);
  const [first = "", second = "", third = ""] = await slips();
  await drag(page, first, second);
  await expect.poll(slips).toEqual([second, first, third]);
  await expect(page.getByText(`${first} is put down, place`)).toBeAttached();

  await page.getByRole("button", { name: `Move ${first}`, exact: true }).focus();
  await page.keyboard.press("Space");
  await expect(page.getByText(`${first} would stand at place 2 of 3`)).toBeAttached();
  await page.keyboard.press("ArrowUp");
  await expect(page.getByText(`${first} would stand at place 1 of 3`)).toBeAttached();
  await page.keyboard.press("Space");
  await expect.poll(slips).toEqual([first, second, third]);
  for (const name of [first, second, third]) {
    const dropped = answer.getByRole("region", { name, exact: true });
    await dropped.getByRole("button", { name: "remove" }).click();
  }
  await expect.poll(slips).toEqual(["Your own words"]);
  await page.context().close();
});

test("four notices stand at once, each with its own way back; Alt+Z takes the latest back first", async ({
  page,
}) => {
  await signIn(page, "tadeo@example.com");
  await page.goto("/shelves?q=bicycle");
  const row = page.getByRole("row", { name: "Bicycles", exact: true });
  const notices = page.getByRole("region", { name: /^Notices/ }).getByRole("listitem");
  for (const tag of ["one", "two", "three", "four"]) {
    await row.focus();
    await page.keyboard.press("Space");
    const selected = page.getByRole("region", { name: "Selected replies" });
    await selected.getByRole("combobox", { name: "Tag" }).fill(tag);
    await selected.getByRole("button", { name: "add" }).click();
    await expect(selected.getByRole("button", { name: /^Add the tag/ })).toBeFocused();
    await expect(row.getByText(tag, { exact: true })).toBeHidden();
    await page.keyboard.press("Enter");
    await expect(row.getByText(tag)).toBeVisible();
  }
  await expect(notices).toHaveCount(4);
  await expect(notices.getByRole("button", { name: /^Undo/ })).toHaveText([
    "Undo",
    "Undo",
    "Undo",
    "UndoAlt Z",
  ]);
  for (const tag of ["four", "three", "two", "one"]) {
    await page.keyboard.press("Alt+z");
    await expect(row.getByText(tag)).toBeHidden();
  }
  await expect(page.getByText("1 reply is as before.").first()).toBeVisible();
  const lately = page.getByRole("region", { name: "Lately changed by you" });
  await expect(lately.getByRole("listitem")).toHaveCount(4);
  await expect(lately.getByRole("button")).toHaveCount(0);
});

test("a reply is written, filed and its day chosen by keyboard alone", async ({ page }) => {
  await signIn(page, "tadeo@example.com");
  await page.goto("/replies/new");
  await page.keyboard.type("Deck chairs");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("combobox", { name: "Shelf" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("option", { name: "On board" })).toBeVisible();
  await page.keyboard.type("On b");
  await expect(page.getByRole("option", { name: "On board" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("combobox", { name: "Shelf" })).toHaveText("On board");
  await page.getByRole("textbox", { name: "Title" }).press("Enter");
  await expect(page).toHaveURL(/\/replies\/deck/);
  await expect(page.getByRole("tab", { name: "Try on" })).toBeVisible();
  await page.keyboard.press("Alt+5");
  await page.getByRole("combobox", { name: /^Tags/ }).focus();
  await page.keyboard.press("Enter");
  await page.keyboard.type("sunshine");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("combobox", { name: "Tags: sunshine" })).toBeFocused();
  await page.getByRole("textbox", { name: "Review by" }).focus();
  await page.keyboard.type("30.2.2027");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("alert").filter({ hasText: "no day" })).toBeVisible();
  await page.getByRole("textbox", { name: "Review by" }).fill("1.3.2027");
  await page.getByRole("button", { name: "Choose review by" }).press("Enter");
  await expect(page.getByRole("button", { name: /^Monday, 1 March 2027/ })).toBeFocused();
  // It saves itself.
  const saved = page.waitForResponse(
    (response) =>
      response.url().endsWith("/save") && (response.request().postData() ?? "").includes("2027-03-02"),
  );
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Review by" })).toHaveValue("02/03/2027");
  expect((await saved).status()).toBe(200);
  await page.reload();
  await page.getByRole("tab", { name: "Filing" }).click();
  await expect(page.getByRole("combobox", { name: "Tags: sunshine" })).toBeVisible();

  const toolbar = page.getByRole("toolbar", { name: "Formatting" });
  await toolbar.getByRole("button", { name: "{ value" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(toolbar.getByRole("button", { name: "bold" })).toBeFocused();
  await expect(page.getByRole("tooltip", { name: "Bold (Ctrl B)" })).toBeAttached();
  await page.keyboard.press("End");
  await expect(toolbar.getByRole("button", { name: "redo" })).toBeFocused();
});

test("a long list draws what is in sight; the keys reach its end, and Back comes to the same place", async ({
  page,
}) => {
  await signIn(page, "maren@example.com");
  await page.goto("/waiting?whose=all");
  const cases = page.getByRole("main").getByRole("listitem");
  const count = Number(
    await page
      .getByRole("link", { name: /^Waiting for us/ })
      .locator("span")
      .textContent(),
  );
  expect(count).toBeGreaterThan(40);
  // Once the page is alive, the keys move.
  await expect(async () => {
    await page.keyboard.press("ArrowDown");
    await expect(cases.nth(1).getByRole("link")).toBeFocused({ timeout: 500 });
  }).toPass();
  expect(await cases.count()).toBeLessThan(count);
  for (let step = 0; step < count; step += 1) await page.keyboard.press("ArrowDown");
  const last = cases.last().getByRole("link");
  // Cases may come meanwhile.
  await expect(async () => {
    await page.keyboard.press("ArrowDown");
    await expect(last).toBeFocused({ timeout: 500 });
  }).toPass();
  await expect(last).toBeInViewport();
  const name = (await last.textContent()) ?? "";
  const scrolled = () => page.locator("#main").evaluate((main) => Math.round(main.scrollTop));
  const before = await scrolled();
  expect(before).toBeGreaterThan(1000);
  await page.getByRole("link", { name: "Keys" }).click();
  await expect.poll(scrolled).toBeLessThan(before);
  await page.goBack();
  await expect.poll(scrolled).toBe(before);
  await expect(page.getByText(name.slice(0, 60)).first()).toBeVisible();
});
