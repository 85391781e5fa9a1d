import { expect, test } from "@playwright/test";
import { answerReady, choose, header, nextMail, showCase, rawMail, said, signIn } from "./house";

test("the oldest case is answered by keyboard alone, and the customer reads what was meant", async ({
  page,
}) => {
  await page.goto("/sign-in");
  await page.keyboard.type("maren@example.com");
  await page.keyboard.press("Tab");
  await page.keyboard.type("kittiwake");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("navigation", { name: "Lists" })).toBeVisible();
  await expect(page.getByRole("link", { name: /Abram Locke/ })).toBeVisible();
  await page.keyboard.press("Enter");
  await answerReady(page);
  await expect(page.getByRole("heading", { name: "sunrise" })).toBeVisible();

  await page.keyboard.type("timetable");
  await expect(page.getByRole("option", { name: /Timetable and how to read it/ })).toHaveAttribute(
    "aria-selected",
    "true",
  );
  const preview = page.getByRole("region", { name: /reads for this case/ });
  await expect(preview).toContainText("These are the first and last sailings");
  await page.keyboard.press("Enter");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  await expect(answer).toContainText("Hello Abram,");
  await expect(page.getByText("Nothing to see to.")).toBeVisible();
  await page.keyboard.press("Control+Enter");

  await expect(said(page, /On its way to bram2@example/)).toBeVisible();
  await expect(page.getByRole("heading", { name: "facture" })).toBeVisible();

  const mail = await nextMail("bram2@example.com");
  expect(mail.subject).toMatch(/^Re: sunrise \[SF-\d+\]$/);
  expect(mail.from).toBe('"Maren Oduya, Passenger desk" <desk@example.com>');
  expect(mail.text).toContain(
    "Hello Abram,\n\nthank you for writing.\n\nThese are the first and last sailings, every day:\n\nFrom",
  );
  expect(mail.text).toMatch(/Osmer Quay +Tarn Head +06:15 +20:40/);
  expect(mail.text).toContain("our timetable page <https://www.example.org/timetable>");
  expect(mail.text.match(/Maren Oduya/g)).toHaveLength(1);
  expect(mail.html).toContain('<a href="https://www.example.org/timetable">our timetable page</a>');
  expect(mail.html).toContain(">Osmer Quay</td>");
  expect(header(mail, "references")).toBe(header(mail, "in-reply-to"));
  const raw = await rawMail(mail.id);
  expect(raw).toContain("multipart/alternative");
  expect(raw).toContain("format=flowed");

  await page.keyboard.press("Alt+ArrowUp");
  await page.goto("/waiting?list=customer&text=sunrise");
  await page.getByRole("link", { name: /Abram Locke/ }).click();
  await expect(page.getByRole("article", { name: /Our answer by Maren Oduya/ })).toContainText("delivered");
  await page.getByText("History").click();
  await expect(
    page.getByText("Maren Oduya sent an answer with “Timetable and how to read it”"),
  ).toBeVisible();

  await page.goto("/outside/bram2%40example.com");
  await page.getByRole("link", { name: /sunrise/ }).click();
  await expect(page.frameLocator("iframe").getByText("These are the first and last sailings")).toBeVisible();
  await page.getByRole("button", { name: "source" }).click();
  await expect(page.getByText("Message-ID:", { exact: false })).toBeVisible();
});

test("blanks are filled in place, passages follow them, and nothing leaves with a gap", async ({ page }) => {
  await signIn(page);
  await showCase(page, "Ottoline");
  await page.keyboard.type("put off");
  await expect(page.getByRole("option", { name: /Sailing put off by weather/ })).toHaveAttribute(
    "aria-selected",
    "true",
  );
  await page.keyboard.press("Enter");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  const choice = answer.getByRole("combobox", { name: "Refund or change?" });
  await expect(choice).toBeFocused();
  await expect(
    answer.getByRole("button", { name: /Folded: stands when Refund or change\? is “change”/ }).first(),
  ).toBeVisible();
  await choose(choice, "change");
  await expect(answer).toContainText("We have kept a place for you on the Second Tide");
  await expect(
    answer.getByRole("button", { name: /Folded: stands when Refund or change\? is “refund”/ }),
  ).toBeVisible();

  const lane = answer.getByRole("spinbutton", { name: "lane" });
  await expect(page.getByRole("complementary", { name: "Second look" })).toContainText("Lane is empty");
  await page.keyboard.press("Control+Enter");
  await expect(lane).toBeFocused();
  await page.keyboard.type("4");
  await expect(page.getByRole("complementary", { name: "Second look" })).toContainText("Nothing to see to.");

  await page.keyboard.press("Control+z");
  await expect(lane).toHaveValue("");
  await lane.fill("4");
  await page.keyboard.press("Control+Enter");
  await expect(said(page, /On its way to/)).toBeVisible();
  const mail = await nextMail("ottoline@example.net");
  expect(mail.text).toContain("The 07:40 from Tarn Head on");
  expect(mail.text).toContain("please be in lane 4");
  expect(mail.text).not.toContain("We pay");
  expect(mail.html).not.toContain("{$");
});

test("a letter is called back within its ten seconds, and is the draft again", async ({ page }) => {
  await signIn(page);
  await showCase(page, "Halvard");
  await page.keyboard.type("roof box");
  await expect(page.getByRole("option", { name: /Roof box/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+Shift+Enter");
  await expect(said(page, /On its way to halvard/)).toBeVisible();
  await page.keyboard.press("Alt+z");
  await expect(said(page, "Called back. It is your draft again.")).toBeVisible();
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText(
    "Everything that stands out counts",
  );
  await page.getByText("History").click();
  await expect(page.getByText("Maren Oduya called the answer back")).toBeVisible();
});

test("a draft is there again after the browser goes, word for word", async ({ page, context }) => {
  await signIn(page);
  await showCase(page, "Greta");
  const answer = page.getByRole("textbox", { name: "Our answer" });
  await page.keyboard.type("seasick");
  await expect(page.getByRole("option", { name: /Seasickness/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Enter");
  await answer.getByText("thank you for writing.").click();
  await page.keyboard.press("End");
  await page.keyboard.type(" Poor twins!");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  const url = page.url();
  await page.close();
  const again = await context.newPage();
  await again.goto(url);
  await expect(again.getByRole("textbox", { name: "Our answer" })).toContainText(
    "thank you for writing. Poor twins!",
  );
});
