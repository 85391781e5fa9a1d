import { expect, test, type Browser, type Page } from "@playwright/test";
import { choose, nextMail, showCase, rawMail, said, signIn } from "./house";

/** A picture of one dot. */
const dot = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
  "base64",
);

async function as(browser: Browser, email: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(page, email);
  return page;
}

const words = (page: Page) => page.getByRole("textbox", { name: "The words", exact: true });

/** Moves the cursor to the end of the words; the editor hears of it with the next frame. */
async function toEnd(page: Page): Promise<void> {
  await page.keyboard.press("Control+End");
  await page.evaluate(() => new Promise((heard) => requestAnimationFrame(() => setTimeout(heard))));
}

/** Inserts a value where the cursor is, by the list that `{` opens. */
async function value(page: Page, searched: string): Promise<void> {
  await page.keyboard.type("{");
  await expect(page.getByRole("combobox", { name: "Find a value" })).toBeFocused();
  await page.keyboard.type(searched);
  await page.keyboard.press("Enter");
  await expect(words(page)).toBeFocused();
}

/** What stands beside the words: trying on, blanks, passages, files, filing, history. */
const beside = (page: Page) => page.getByRole("complementary", { name: "Beside it" });

/** Puts what the cursor is in under a new condition: the blank contains a choice. */
async function onlyWhen(page: Page, what: string, choice: string): Promise<void> {
  await page.getByRole("button", { name: "stands only when…" }).click();
  await page.getByRole("button", { name: what, exact: true }).click();
  await choose(beside(page).getByRole("combobox", { name: "Value" }), choice);
  await expect(
    beside(page).getByRole("button", { name: `when Which harbour? contains “${choice}”` }),
  ).toBeVisible();
}

async function begin(page: Page, title: string, shelf: string): Promise<void> {
  await page.goto("/shelves");
  await page.getByRole("link", { name: "Write a reply" }).click();
  await page.getByLabel("Title").fill(title);
  await choose(page.getByLabel("Shelf"), shelf);
  await page.getByRole("button", { name: "Go on to its words" }).click();
  await page.waitForURL(/\/replies\/(?!new)/);
  // What was just begun goes on in its words.
  await expect(words(page)).toBeFocused();
}

async function publish(page: Page, remark: string): Promise<void> {
  await page.getByRole("button", { name: "Publish…" }).click();
  await page.getByRole("textbox", { name: "Remark for the history" }).fill(remark);
  await page.keyboard.press("Enter");
  await expect(said(page, /Version \d+ is on the shelf/)).toBeVisible();
}

test("a curator writes a reply with blanks, passages, a picture and a file; an agent's customers get what was meant", async ({
  browser,
}) => {
  test.setTimeout(300_000);
  const maren = await as(browser, "maren@example.com");
  await begin(maren, "Lifts out of order", "On board");

  await maren.keyboard.type("About your case ");
  await value(maren, "case number");
  await maren.keyboard.type(": the lift is out of order at ");
  await value(maren, "Which harbour?");
  await maren.keyboard.type(".");
  await choose(maren.getByRole("combobox", { name: "Kind" }), /choice/);
  await maren.getByRole("textbox", { name: "Choices, a line each" }).fill("Osmer Quay\nTarn Head\nPellick");
  await maren.getByRole("checkbox", { name: "several may be chosen" }).check();

  await words(maren).click();
  await toEnd(maren);
  await maren.keyboard.press("Enter");
  await maren.keyboard.type("At the quay, ");
  await value(maren, "first name");
  await maren.keyboard.type(", take the ramp at gate 2.");
  await maren.keyboard.press("Enter");
  await maren.keyboard.type("At Tarn Head a colleague waits at the blue post.");
  await maren.keyboard.press("Enter");
  await maren.keyboard.type("At Pellick please call us from the car.");
  await onlyWhen(maren, "this paragraph", "Pellick");
  for (const [start, choice] of [
    ["At Tarn Head a colleague", "Tarn Head"],
    ["At the quay", "Osmer Quay"],
  ] as const) {
    await words(maren).getByText(start).click();
    await onlyWhen(maren, "this paragraph", choice);
  }
  // A first name is not sure; what stands for it is said at the chip.
  await expect(maren.getByText(/first name may be missing/).first()).toBeVisible();
  await words(maren).getByText("first name", { exact: true }).click();
  await maren.getByRole("textbox", { name: "If missing" }).fill("please");
  await maren.keyboard.press("Enter");
  await expect(maren.getByText(/first name may be missing/)).toBeHidden();

  await words(maren).getByText("At Pellick please call").click();
  await toEnd(maren);
  await maren.keyboard.press("Enter");
  await maren.getByRole("button", { name: "remove the condition" }).click();
  await maren.getByRole("button", { name: "table", exact: true }).click();
  const cells = ["Harbour", "Lift back", "Phone", "Osmer Quay", "Friday", "0101", "Tarn Head", "Monday"];
  for (const cell of cells) {
    await maren.keyboard.type(cell);
    await maren.keyboard.press("Tab");
  }
  await maren.keyboard.type("0102");
  await maren.getByRole("button", { name: "stands only when…" }).click();
  await expect(maren.getByRole("button", { name: "this row" })).toBeVisible();
  await maren
    .getByRole("group", { name: "What stands only at times" })
    .getByRole("button", { name: "this row" })
    .click();
  await choose(beside(maren).getByRole("combobox", { name: "Value" }), "Tarn Head");

  await words(maren).getByText("About your case").click();
  await maren.keyboard.press("End");
  await maren
    .getByLabel("Picture file")
    .setInputFiles({ name: "gate.png", mimeType: "image/png", buffer: dot });
  await expect(words(maren).getByRole("img")).toBeVisible();
  await expect(
    maren.getByText("Say what the picture shows, for those who do not see it").first(),
  ).toBeVisible();
  await maren.getByRole("textbox", { name: "It shows" }).fill("The ramp at gate 2");
  await maren.keyboard.press("Alt+4");
  await maren.getByLabel("Attach files").setInputFiles({
    name: "Way to the ramp.txt",
    mimeType: "text/plain",
    buffer: Buffer.from("left, left"),
  });
  await expect(maren.getByRole("link", { name: "Way to the ramp.txt" })).toBeVisible();

  // Every branch is seen while it is written.
  await maren.keyboard.press("Alt+1");
  const tried = beside(maren);
  for (const sight of ["gate 2.", "blue post", "call us from the car"])
    await expect(tried.getByRole("article").filter({ hasText: sight }).first()).toBeVisible();
  await expect(tried.getByRole("article").first()).toContainText("With Way to the ramp.txt");
  await publish(maren, "The lifts need work");

  const bram = await as(browser, "bram@example.com");
  await answer(bram, "Dora", ["Osmer Quay", "Tarn Head"]);
  const first = await nextMail("dora@example.com");
  expect(first.text).toContain("the lift is out of order at Osmer Quay and Tarn Head.");
  expect(first.text).toContain("At the quay, Dora, take the ramp at gate 2.");
  expect(first.text).toContain("blue post");
  expect(first.text).not.toContain("call us");
  expect(first.text).toMatch(/Tarn Head +Monday +0102/);
  expect(first.html).toContain(">Monday</td>");
  expect(first.html).toMatch(
    /<img[^>]*src="cid:[^"]+"[^>]*alt="The ramp at gate 2"|<img[^>]*alt="The ramp at gate 2"[^>]*src="cid:/,
  );
  expect(
    first.attachments.map(({ name, contentType, contentId }) => [name, contentType, contentId !== null]),
  ).toEqual(
    expect.arrayContaining([
      ["gate.png", "image/png", true],
      ["Way to the ramp.txt", "text/plain", false],
    ]),
  );
  const raw = await rawMail(first.id);
  expect(raw).toContain("multipart/related");
  const picture = first.attachments.find((one) => one.name === "gate.png");
  expect(first.html).toContain(`cid:${picture?.contentId?.replace(/[<>]/g, "")}`);

  await answer(bram, "Tove", ["Pellick"]);
  const second = await nextMail("tove@example.org");
  expect(second.text).toContain("the lift is out of order at Pellick.");
  expect(second.text).toContain("call us from the car");
  expect(second.text).not.toContain("Tarn Head");
  expect(second.html).not.toContain("Monday");
  expect(second.html).toContain(">Friday</td>");
  expect(second.attachments).toHaveLength(2);
  await maren.context().close();
  await bram.context().close();
});

/** Answers a customer's case with the reply about the lifts. */
async function answer(page: Page, customer: string, harbours: string[]): Promise<void> {
  await showCase(page, customer);
  await page.keyboard.type("lifts out");
  await expect(page.getByRole("option", { name: /Lifts out of order/ })).toHaveAttribute(
    "aria-selected",
    "true",
  );
  await page.keyboard.press("Enter");
  const ours = page.getByRole("textbox", { name: "Our answer" });
  await ours.getByRole("combobox", { name: "Which harbour?: none" }).click();
  const asked = page.getByRole("listbox", { name: "Which harbour?" });
  for (const harbour of harbours) await asked.getByRole("option", { name: harbour }).click();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+Enter");
  await expect(said(page, /On its way to/)).toBeVisible();
}

test("an agent's proposal is compared word by word, published and taken by colleagues", async ({
  browser,
}) => {
  test.setTimeout(300_000);
  const bram = await as(browser, "bram@example.com");
  // An answer under way has taken the version of today.
  await showCase(bram, "Yusuf");
  const underWay = bram.url();
  await bram.keyboard.type("dogs aboard");
  await expect(bram.getByRole("option", { name: /Dogs aboard/ })).toHaveAttribute("aria-selected", "true");
  await bram.keyboard.press("Enter");
  const ours = bram.getByRole("textbox", { name: "Our answer" });
  await expect(ours).toContainText("Dogs are welcome");
  await expect(bram.getByText("saved", { exact: true })).toBeVisible();

  await bram.goto("/replies/dogs");
  await words(bram).click();
  await toEnd(bram);
  await bram.keyboard.press("Enter");
  await bram.keyboard.type("Muzzles are lent at the ticket hall.");
  await bram.getByRole("button", { name: "Propose…" }).click();
  await bram.getByRole("textbox", { name: "Remark for the history" }).fill("Asked every week");
  await bram.keyboard.press("Enter");
  await expect(said(bram, "Proposed.")).toBeVisible();

  const maren = await as(browser, "maren@example.com");
  await maren.goto("/shelves");
  await maren.getByRole("link", { name: "1 waiting to be checked" }).click();
  await expect(maren.getByRole("heading", { name: "Waiting to be checked" })).toBeVisible();
  await maren.getByRole("link", { name: /Dogs aboard/ }).click();
  await expect(maren.locator("ins", { hasText: "Muzzles are lent at the ticket hall." })).toBeVisible();
  await expect(maren.getByText("Asked every week")).toBeVisible();
  await maren.getByRole("button", { name: /^Publish/ }).click();
  await expect(maren.getByText("Nothing waits.", { exact: false })).toBeVisible();

  await bram.goto(underWay);
  await expect(ours).toContainText("Dogs are welcome");
  await expect(ours).not.toContainText("Muzzles");
  await expect(bram.getByText(/newer version/)).toBeVisible();
  await showCase(bram, "Rashid");
  await bram.keyboard.type("dogs aboard");
  await expect(bram.getByRole("option", { name: /Dogs aboard/ })).toHaveAttribute("aria-selected", "true");
  await bram.keyboard.press("Enter");
  await expect(ours).toContainText("Muzzles are lent at the ticket hall.");
  await maren.context().close();
  await bram.context().close();
});

test("nobody reads another's personal shelf: not by address, search, form or data", async ({ browser }) => {
  test.setTimeout(300_000);
  const bram = await as(browser, "bram@example.com");
  await begin(bram, "Ravioli at the harbour", "My own");
  await bram.keyboard.type("My secret lunch place.");
  await publish(bram, "mine");
  const address = new URL(bram.url()).pathname;

  for (const email of ["idris@example.com", "maren@example.com", "sunniva@example.com"]) {
    const other = await as(browser, email);
    const response = await other.goto(address);
    expect(response?.status()).toBe(404);
    await expect(other.getByText("secret lunch")).toBeHidden();
    expect((await other.goto(`${address}/history`))?.status()).toBe(404);
    expect((await other.goto(`/replies/new?from=${address.split("/").at(-1)}`))?.status()).toBe(404);
    await other.goto("/shelves?q=ravioli");
    await expect(other.getByText("Ravioli at the harbour")).toBeHidden();
    await showCase(other, "Wilma");
    await other.keyboard.type("ravioli");
    await expect(other.getByText("Nothing on the shelf is like that.")).toBeVisible();
    await expect(other.getByRole("option", { name: /Ravioli/ })).toBeHidden();
    for (const [path, body] of [
      [`${address}/save`, { revision: 0, baseId: null, content: {} }],
      [`${address}/drop`, {}],
      [`${address}.data`, null],
    ] as const) {
      const answer = await other.evaluate(
        async ([to, sent]) => {
          const got = await fetch(to, {
            ...(sent === null
              ? {}
              : {
                  method: "POST",
                  headers: { "Content-Type": "application/json" },
                  body: JSON.stringify(sent),
                }),
          });
          return { status: got.status, text: await got.text() };
        },
        [path, body] as const,
      );
      expect(answer.status).toBeGreaterThanOrEqual(400);
      expect(answer.text).not.toContain("secret lunch");
    }
    await other.context().close();
  }
  await bram.context().close();
});

test("what is pasted is cleaned, the text form stays in step, and a copied passage brings its condition", async ({
  browser,
}) => {
  test.setTimeout(300_000);
  const maren = await as(browser, "maren@example.com");
  await begin(maren, "Pasted words", "On board");
  await words(maren).evaluate((element) => {
    const data = new DataTransfer();
    data.setData(
      "text/html",
      `<html><head><style>p{color:red}</style></head><body><!--[if gte mso 9]><xml>x</xml><![endif]-->
       <p class="MsoNormal" style="margin:0;font-family:Calibri"><span style="font-weight:700">Bold</span> and <i>slanted</i><script>alert(1)</script></p>
       <p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span>·&nbsp;&nbsp;</span>First</p>
       <p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span>·&nbsp;&nbsp;</span>Second</p>
       <p><a href="javascript:alert(1)">bad</a> <a href="https://example.org/x" onclick="x()">good</a></p></body></html>`,
    );
    element.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await maren.getByRole("checkbox", { name: "text form beside it" }).check();
  const form = maren.getByRole("textbox", { name: "The words as Markdown" });
  await expect(form).toHaveValue(
    /^\*\*Bold\*\* and _slanted_\n\n- First\n- Second\n\nbad \[good\]\(https:\/\/example\.org\/x\)\n*$/,
  );

  // What is typed there stands in the words at once, and a mistake says where.
  await form.fill(
    "One {$case.number} is :passage[only for cars]{#car}.\n\n| a |\n|---|\n| {$case.number :} |\n",
  );
  await expect(words(maren)).toContainText("only for cars");
  await expect(words(maren).getByRole("table")).toBeVisible();
  await expect(maren.getByRole("button", { name: /^Line 5, column \d+: / })).toBeVisible();
  await form.fill("The lane is {$case.number}.");
  await expect(maren.getByRole("button", { name: /^Line 5, column \d+: / })).toBeHidden();
  await expect(words(maren)).toContainText("The lane is");

  // A passage of another reply keeps its condition, and the blank that this asks for.
  await maren.goto("/replies/sailing-put-off");
  await words(maren)
    .getByText("We have kept a place for you")
    .click({ clickCount: 3, position: { x: 6, y: 10 } });
  await maren.keyboard.press("Control+c");
  await begin(maren, "With a condition brought along", "On board");
  await maren.keyboard.press("Control+v");
  await expect(words(maren)).toContainText("We have kept a place for you");
  await maren.getByRole("tab", { name: /Passages/ }).click();
  await expect(
    beside(maren).getByRole("button", { name: /^when Refund or change\? is “change”/ }),
  ).toBeVisible();
  await maren.getByRole("tab", { name: /Blanks/ }).click();
  await expect(beside(maren).getByRole("button", { name: "Refund or change?" })).toBeVisible();
  await maren.context().close();
});

test("from what stands beside it the hand comes back to its place in the words, by keyboard alone", async ({
  browser,
}) => {
  const page = await as(browser, "maren@example.com");
  await begin(page, "Place of the hand", "Openings");
  await page.keyboard.type("Sailing.");
  await page.getByRole("button", { name: "stands only when…" }).press("Enter");
  await page.getByRole("button", { name: "this paragraph", exact: true }).press("Enter");
  // A new condition is filled in next.
  await expect(beside(page).getByRole("combobox").first()).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(words(page)).toBeFocused();
  await page.keyboard.type(" Late");
  await expect(words(page)).toContainText("Sailing. Late");
  await page.getByRole("button", { name: "remove the condition" }).first().press("Enter");
  await expect(words(page)).toBeFocused();
  await page.keyboard.type("!");
  await expect(words(page)).toContainText("Sailing. Late!");
  // The same condition once more, chosen from those that are there.
  await page.getByRole("button", { name: "stands only when…" }).press("Enter");
  await page.getByRole("combobox", { name: "Under a condition that is there" }).press("Enter");
  await page.keyboard.press("Enter");
  await expect(words(page)).toBeFocused();
  await page.keyboard.type("?");
  await expect(words(page)).toContainText("Sailing. Late!?");
});
