import { expect, test, type Page } from "@playwright/test";
import { deliverToUs, nextMail, showCase, said, signIn } from "./house";

const write = (name: string, subject: string, text: string) =>
  deliverToUs({
    from: `${name} <${name.toLowerCase().replaceAll(" ", ".")}@example.org>`,
    to: "desk@example.com",
    subject,
    text,
  });
const answer = (page: Page) => page.getByRole("textbox", { name: "Our answer" });
const shelf = (page: Page) => page.getByRole("listbox", { name: "Replies" });

/** Opens a case that came by mail just now. */
async function openNew(page: Page, customer: string): Promise<void> {
  await page.goto(`/waiting?whose=all&text=${encodeURIComponent(customer)}`);
  await expect(async () => {
    await page.reload();
    await expect(page.getByRole("link", { name: new RegExp(customer) }).first()).toBeVisible({
      timeout: 1000,
    });
  }).toPass();
  await showCase(page, customer);
}

/** Questions that one reply of the shelf answers without a blank, and words of that reply. */
const easy: [subject: string, text: string, reads: RegExp][] = [
  ["tandem", "Can we take a tandem bicycle with us on the ferry?", /bicycle/i],
  ["bicycle", "How much does a bicycle cost, and where do bicycles travel?", /bicycle/i],
  ["two bicycles", "Do we have to book a place for two bicycles?", /bicycle/i],
  ["dog", "May our dog come on deck with us, and what does a dog pay?", /dog/i],
  ["small dog", "Is a small dog allowed on board?", /dog/i],
  ["motorbike", "Do I bring my own straps for the motorbike?", /motorbike/i],
  ["motorbike", "How is a motorbike tied down on the car deck?", /motorbike/i],
  ["seasick", "My children get seasick. Where on the ship is it best to sit?", /middle|seasick|low/i],
  ["seasickness", "What helps against seasickness on the crossing?", /seasick|low/i],
  ["food", "Is there food without gluten in the café?", /gluten/i],
  ["café", "When does the café open and may I bring my own food?", /café/i],
  [
    "first sailing",
    "When is the first and the last sailing from Pellick? A timetable please.",
    /first and last/i,
  ],
  ["timetable", "Please send me the timetable: the last boat back from Tarn Head.", /first and last/i],
  ["season card", "How do I get a season card and what does a season card cost?", /season card/i],
  ["season card", "Where can I buy a season card?", /season card/i],
  ["reduced fares", "Who gets reduced fares? Is there a student discount?", /reduced|student/i],
  ["discount", "Is there a discount for students and pensioners?", /reduced|student/i],
  ["electric car", "Can I charge my electric car on board?", /charg/i],
  ["charging", "Is charging an electric car possible during the crossing?", /charg/i],
  ["roof box", "My car has a roof box. Does the roof box count for the height?", /roof|stands out/i],
];

test("twenty easy cases: from opened to sent it takes two keystrokes", async ({ page }) => {
  test.setTimeout(240_000);
  for (const [index, [subject, text]] of easy.entries())
    await write(`Easy Number${index}`, subject, `Hello,\n\n${text}\n\nThank you`);
  await signIn(page);
  await openNew(page, "Number19");
  for (const [index, [, , reads]] of easy.entries()) {
    await showCase(page, `Number${index}`);
    // Names that begin alike are told apart by the heading.
    await expect(page.getByText(`easy.number${index}@example.org`)).toBeVisible();
    await expect(page.getByRole("region", { name: /reads for this case/ })).toContainText(reads);
    await page.keyboard.press("Enter");
    await page.keyboard.press("Control+Enter");
    await expect(said(page, `On its way to easy.number${index}@example.org`)).toBeVisible();
  }
  const mail = await nextMail("easy.number3@example.org");
  expect(mail.text).toMatch(/dog/i);
});

test("a reply that is taken before what writes the answer is here is taken once it is", async ({ page }) => {
  await write("Early Bird", "dog", "May I bring my dog on board, and what does it cost?");
  await signIn(page);
  await openNew(page, "Early Bird");
  let come = () => {};
  const wait = new Promise<void>((resolve) => (come = resolve));
  await page.route(/\/writer-[^/]+\.js/, async (route) => {
    await wait;
    await route.continue();
  });
  await page.reload();
  const search = page.getByRole("combobox", { name: "Find on the shelf" });
  await expect(search).toBeFocused();
  await expect(async () => {
    await page.keyboard.press("ArrowRight");
    await expect(shelf(page).getByRole("option").nth(1)).toHaveAttribute("aria-selected", "true", {
      timeout: 500,
    });
  }).toPass();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Enter");
  await expect(answer(page)).toBeHidden();
  come();
  await expect(answer(page)).toContainText(/dog/i);
});

test("from Waiting an easy case is read and sent in three keystrokes at most", async ({ page }) => {
  await write(
    "Wanda Motor",
    "motorbikes",
    "Two of us come on motorbikes. Are there straps for the motorbikes?",
  );
  await signIn(page, "bram@example.com");
  await expect(async () => {
    await page.goto("/waiting?whose=all&text=Wanda");
    await expect(page.getByRole("link", { name: /Wanda Motor.*close fit/ })).toBeVisible({ timeout: 2000 });
  }).toPass();
  await page.keyboard.press("Enter");
  const compact = page.getByRole("region", { name: "Answer to Wanda Motor" });
  await expect(compact).toContainText("Hello Wanda");
  await expect(compact.getByRole("button", { name: "Send" })).toBeEnabled();
  // What comes in meanwhile is listed, and leaves the answer where it is.
  await write("Wanda Later", "a dog", "Is our dog allowed on deck?");
  await expect(page.getByRole("link", { name: /Wanda Later/ })).toBeVisible();
  await expect(compact).toContainText("Hello Wanda");
  await page.keyboard.press("Control+Enter");
  await expect(said(page, "On its way to wanda.motor@example.org")).toBeVisible();
  const mail = await nextMail("wanda.motor@example.org");
  expect(mail.text).toMatch(/motorbike/i);
  expect(mail.text.match(/Bram Tessler/g)).toHaveLength(1);
});

test("cases that one reply fits are put together and answered one after the other", async ({ page }) => {
  for (const name of ["Olga Alike", "Otto Alike"])
    await write(name, "motorbikes", "Two of us come on motorbikes. Are there straps for the motorbikes?");
  await write("Oona Alike", "a dog", "Is our dog allowed on deck?");
  await signIn(page, "bram@example.com");
  await expect(async () => {
    await page.goto("/waiting?whose=all&text=Alike");
    await expect(page.getByRole("link", { name: /Alike.*(close fit|likely)/ })).toHaveCount(3, {
      timeout: 2000,
    });
  }).toPass();
  await page.keyboard.press("a");
  const together = page.getByRole("main").getByRole("region", { name: /motorbikes/i });
  await expect(together.getByRole("link")).toHaveCount(2);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: /Answer to O(lga|tto) Alike/ })).toContainText(
    /Hello O(lga|tto)/,
  );
  await page.keyboard.press("Control+Enter");
  await expect(together.getByRole("link")).toHaveCount(1);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: /Answer to O(lga|tto) Alike/ })).toContainText(
    /Hello O(lga|tto)/,
  );
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("link", { name: /O(lga|tto) Alike/ })).toHaveCount(0);
  await page.keyboard.press("a");
  await expect(page.getByRole("checkbox", { name: "Alike" })).not.toBeChecked();
});

test("a second question stacks a second answer with a join, and slips are moved by key", async ({ page }) => {
  await signIn(page);
  await write(
    "Tilda Twice",
    "two questions",
    "Are there straps for our two motorbikes on the car deck?\n\nAlso, is our dog allowed on deck with us, and what does a dog pay?",
  );
  await openNew(page, "Tilda Twice");
  const cards = shelf(page).getByRole("option");
  await expect(cards.nth(1)).toContainText("also asks");
  await page.keyboard.press("Enter");
  await expect(answer(page)).toContainText("Hello Tilda");
  // The hand is on the shelf, where the second question's answer is chosen by now.
  await expect(cards.nth(1)).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Enter");
  await expect(answer(page)).toContainText("As to your other question:");
  const titles = () =>
    answer(page)
      .locator("section.slip")
      .evaluateAll((slips) => slips.map((slip) => slip.getAttribute("aria-label")));
  const before = await titles();
  expect(before).toHaveLength(5);
  // What is said already is not said again.
  await expect(cards.nth(1)).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Shift+Enter");
  await expect(said(page, "is in your answer already")).toBeVisible();
  expect(await titles()).toEqual(before);
  await answer(page).getByText("As to your other question:").click();
  await page.keyboard.press("Alt+Shift+ArrowUp");
  await expect.poll(titles).toEqual([before[0], before[2], before[1], before[3], before[4]]);
  await page.keyboard.press("Control+z");
  await expect.poll(titles).toEqual(before);
});

test("another reply swaps the first: own paragraphs go along, changed ones are set aside, and undo brings all back", async ({
  page,
}) => {
  await write("Sven Swapper", "season", "How do I get a season card, please?");
  await signIn(page);
  await openNew(page, "Sven Swapper");
  await page.keyboard.type("roof box");
  await expect(page.getByRole("option", { name: /Roof box/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Enter");
  const words = answer(page).getByText("Everything that stands out counts", { exact: false });
  // The end of the paragraph, not of its first line.
  const box = await words.boundingBox();
  await words.click({ position: { x: (box?.width ?? 0) - 4, y: (box?.height ?? 0) - 4 } });
  await page.keyboard.press("End");
  await page.keyboard.type(" Even the antenna, Sven.");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Greetings from all of us to your grandmother.");
  await page.getByRole("combobox", { name: "Find on the shelf" }).focus();
  await page.keyboard.type("season card");
  await expect(page.getByRole("option", { name: /Season card, how to get one/ })).toHaveAttribute(
    "aria-selected",
    "true",
  );
  await page.keyboard.press("Enter");
  await expect(answer(page)).toContainText("Greetings from all of us to your grandmother.");
  await expect(answer(page)).not.toContainText("antenna");
  await expect(page.getByRole("region", { name: "Set aside" })).toContainText("Even the antenna, Sven.");
  await answer(page).getByText("Greetings from all of us").click();
  await page.keyboard.press("Control+z");
  await expect(answer(page)).toContainText("Even the antenna, Sven.");
});

test("what else fits is named, and what nobody wrote yet is said so", async ({ page }) => {
  await signIn(page);
  await write(
    "Cara Carder",
    "season card",
    "My season card: is it renewed, or how do I get a new season card?",
  );
  await openNew(page, "Cara Carder");
  await expect(page.getByRole("note").filter({ hasText: /^Not the same as season card/ })).toBeVisible();
  await page.keyboard.type("xylophone");
  await expect(page.getByText("Nothing on the shelf is like that.")).toBeVisible();
  await page.getByRole("button", { name: "Write one and keep it" }).click();
  await page.keyboard.type("We have no xylophone.");
  await expect(answer(page)).toContainText("We have no xylophone.");
  await page.getByRole("button", { name: "Keep this on a shelf" }).click();
  await expect(page).toHaveURL(/\/replies\/new\?case=/);
});

test("what no reply answers is said plainly, and nothing is put first", async ({ page }) => {
  await write("Zora Zither", "zither", "Qwertz zither xylo blorp quux fnord.");
  await signIn(page);
  await openNew(page, "Zora Zither");
  await expect(page.getByText("Nothing on the shelf seems to fit.", { exact: false })).toBeVisible();
  await expect(page.getByRole("region", { name: /reads for this case/ })).toHaveCount(0);
  await page.keyboard.press("Enter");
  await page.keyboard.type("Dear Zora, tell us more.");
  await expect(answer(page)).toContainText("Dear Zora, tell us more.");
});

test("that a colleague answered much the same otherwise is told, with the way there", async ({
  page,
  browser,
}) => {
  const question = "May our dog come on deck with us, and what does a dog pay on the ferry?";
  await write("Osric Wise", "our dog", question);
  const colleague = await (await browser.newContext()).newPage();
  await signIn(colleague, "bram@example.com");
  await openNew(colleague, "Osric Wise");
  await colleague.keyboard.type("roof box");
  await expect(colleague.getByRole("option", { name: /Roof box/ })).toHaveAttribute("aria-selected", "true");
  await colleague.keyboard.press("Enter");
  await colleague.keyboard.press("Control+Enter");
  await expect(said(colleague, "On its way to osric.wise@example.org")).toBeVisible();
  await nextMail("osric.wise@example.org");

  await write("Petra Query", "the dog", question);
  await signIn(page);
  await openNew(page, "Petra Query");
  await page.keyboard.type("dogs aboard");
  await expect(page.getByRole("option", { name: /Dogs aboard/ })).toHaveAttribute("aria-selected", "true");
  const note = page.getByRole("note");
  await expect(note).toContainText("Bram Tessler answered much the same otherwise");
  await expect(note).toContainText("Roof box");
  await note.getByRole("link").click();
  await expect(page.getByRole("heading", { name: "our dog", exact: true })).toBeVisible();
});
