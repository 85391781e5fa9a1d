import { expect, test, type Page } from "@playwright/test";
import { z } from "zod";
import { deliverToUs, insertTable } from "./house";

/** An empty house to a delivered first answer, with the keyboard alone. */
const OWN_PASSWORD = "three kittiwakes";
const env = z
  .object({
    EMPTY_PORT: z.string(),
    EMPTY_STANDINS_PORT: z.string(),
    EMPTY_INBOUND_SMTP_PORT: z.string(),
    EMPTY_PASSWORD: z.string().min(1),
  })
  .parse(process.env);

test.use({ baseURL: `http://127.0.0.1:${env.EMPTY_PORT}` });

/** Presses Tab until something is in focus, as somebody does who sees where it is. */
async function tabTo(
  page: Page,
  role: Parameters<Page["getByRole"]>[0],
  name: string | RegExp,
): Promise<void> {
  const wanted = page.getByRole(role, { name, exact: true });
  await expect(wanted.first()).toBeVisible();
  for (let presses = 0; presses < 60; presses += 1) {
    const found = await wanted.evaluateAll((all) => all.includes(document.activeElement as HTMLElement));
    if (found) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab does not come to ${String(name)}`);
}

async function press(page: Page, role: "button" | "link", name: string | RegExp): Promise<void> {
  await tabTo(page, role, name);
  await page.keyboard.press("Enter");
}

async function fill(page: Page, name: string | RegExp, words: string): Promise<void> {
  await tabTo(page, "textbox", name);
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type(words);
}

async function heading(page: Page, name: string): Promise<void> {
  await expect(page.getByRole("heading", { name, level: 1 })).toBeVisible();
}

async function mailOf(
  address: string,
): Promise<{ subject: string; text: string; from: string; html: string | null }> {
  const outside = `http://127.0.0.1:${env.EMPTY_STANDINS_PORT}`;
  const listed = z.array(z.object({ id: z.string() }));
  const opened = z.object({
    subject: z.string(),
    text: z.string(),
    from: z.string(),
    html: z.nullable(z.string()),
  });
  let id = "";
  await expect
    .poll(
      async () => {
        const mails = listed.parse(await (await fetch(`${outside}/mailboxes/${address}`)).json());
        id = mails[0]?.id ?? "";
        return mails.length;
      },
      { timeout: 60_000, message: `mail for ${address}` },
    )
    .toBeGreaterThan(0);
  return opened.parse(await (await fetch(`${outside}/messages/${id}`)).json());
}

test("an empty house becomes a working desk, by the keyboard alone", async ({ page, browser }) => {
  await page.goto("/");
  await expect(page.getByLabel("Email")).toBeFocused();
  await page.keyboard.type("lead@example.com");
  await page.keyboard.press("Tab");
  await page.keyboard.type(env.EMPTY_PASSWORD);
  await page.keyboard.press("Enter");

  // The printed password is changed before anything else.
  await expect(page.getByLabel("Password you signed in with")).toBeFocused();
  await page.keyboard.type(env.EMPTY_PASSWORD);
  await page.keyboard.press("Tab");
  await page.keyboard.type("short");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/At least 10 characters; several/)).toBeVisible();
  await fill(page, "Password you signed in with", env.EMPTY_PASSWORD);
  await fill(page, "Your own password", OWN_PASSWORD);
  await page.keyboard.press("Enter");

  // Setup leads through what is needed, in order.
  await heading(page, "First steps");
  await expect(page.getByRole("listitem").filter({ hasText: "The house" })).toHaveAttribute(
    "aria-current",
    "step",
  );
  await press(page, "link", "Name the house");
  await fill(page, "Name", "Lantern Repairs");
  await fill(page, "Letters before a case’s number", "lr");
  await press(page, "button", "Save");

  await heading(page, "First steps");
  await press(page, "link", "Set up the team");
  await fill(page, "Name", "Bench");
  await fill(page, "Address", "bench@example.com");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Saved.", { exact: true }).first()).toBeVisible();
  await press(page, "link", "First steps");

  await press(page, "link", "Invite a colleague");
  await fill(page, "Name", "Ida Strand");
  await fill(page, "Email", "ida@example.com");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Link to choose a password")).toBeVisible();
  await press(page, "link", "First steps");

  await press(page, "link", "Add a shelf");
  await fill(page, "Name", "Repairs");
  await fill(page, "Mark", "R");
  await page.keyboard.press("Enter");
  await expect(page.getByText("The shelf is added.", { exact: true })).toBeVisible();

  // Three replies of ours to begin with; the answer is changed.
  for (const title of ["Greeting", "Sign-off", "We are looking into it"]) {
    await page.goto("/replies/new");
    await press(page, "button", title);
    await press(page, "button", "Go on to its words");
    await expect(page.getByRole("textbox", { name: "The words" })).toBeVisible();
    await press(page, "button", "Publish…");
    await page.keyboard.press("Enter");
    await expect(page.getByText(/Version 1 is on the shelf/).first()).toBeVisible();
  }

  await page.goto("/setup");
  await heading(page, "First steps");
  await press(page, "link", "Check the mail");
  await press(page, "button", "Send a test letter");
  await expect(page.getByText("The mail server took it.")).toBeVisible();
  expect(await mailOf("lead@example.com")).toMatchObject({ subject: "A test letter from Plain Shelf" });
  await press(page, "link", "First steps");
  await expect(page.getByText("Everything is ready.")).toBeVisible();

  // A customer writes, who did not exist before.
  await press(page, "link", "Outside");
  await fill(page, "Name", "Odile Brandt");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Odile Brandt" })).toBeVisible();
  await fill(page, "Subject", "My lamp");
  await fill(page, "Message", "Hello, my brass lamp does not light any more. Can you look at it?");
  await press(page, "button", "Send");
  await expect(page.getByText(/Sent\. It is a case now/)).toBeVisible();

  // She is answered, with the greeting and the sign-off that the house just wrote.
  await press(page, "link", /^Waiting/);
  await expect(page.getByRole("link", { name: /Odile Brandt/ })).toBeVisible();
  await expect(page.getByText(/booking/i)).toHaveCount(0);
  await tabTo(page, "link", /Odile Brandt/);
  await page.keyboard.press("Enter");
  // It fits so well that it could be sent from here; the case is opened all the same.
  await press(page, "link", "Open the case");
  await expect(page.getByRole("combobox", { name: "Find on the shelf" })).toBeFocused();
  await page.keyboard.type("looking");
  await expect(page.getByRole("option", { name: /We are looking into it/ })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText("We are looking into it");
  await page.keyboard.press("ControlOrMeta+Enter");
  const letter = await mailOf("odile.brandt@example.org");
  expect(letter.text).toContain("We are looking into it");
  expect(letter.text).toMatch(/your case is LR-\d+/);
  expect(letter.from).toContain("bench@example.com");

  // The colleague comes by the link of her mail.
  const invitation = await mailOf("ida@example.com");
  const [link = ""] = /http\S+\/welcome\/\S+/.exec(invitation.text) ?? [];
  const hers = await (await browser.newContext()).newPage();
  await hers.goto(link);
  await expect(hers.getByLabel("Password")).toBeFocused();
  await hers.keyboard.type("four kittiwakes");
  await hers.keyboard.press("Enter");
  await expect(hers.getByRole("navigation", { name: "Lists" })).toBeVisible();
  await hers.goto(link);
  await expect(hers.getByText("This link is not good any more.")).toBeVisible();
});

const names = ["Ada", "Bea", "Cleo", "Dora", "Ella", "Fenna", "Gro", "Hedda", "Ida", "Jorun"].map(
  (first) => `${first} Wick`,
);
const addressOf = (name: string) => `${name.toLowerCase().replace(" ", ".")}@example.net`;

async function write(name: string): Promise<void> {
  await deliverToUs(
    {
      from: `${name} <${addressOf(name)}>`,
      to: "bench@example.com",
      subject: `lamp of ${name}`,
      text: "Good day. My lamp flickers. What do I do?",
    },
    env.EMPTY_INBOUND_SMTP_PORT,
  );
}

async function signInAsLead(page: Page): Promise<void> {
  await page.goto("/sign-in");
  await page.keyboard.type("lead@example.com");
  await page.keyboard.press("Tab");
  await page.keyboard.type(OWN_PASSWORD);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("navigation", { name: "Lists" })).toBeVisible();
}

const answer = (page: Page) => page.getByRole("textbox", { name: "Our answer" });

test("ten cases are answered in a row without the mouse", async ({ page }) => {
  for (const name of names) await write(name);
  await signInAsLead(page);
  await expect(page.getByRole("link", { name: /Jorun Wick/ })).toBeVisible({ timeout: 60_000 });

  // The first is found by its customer's name.
  await expect(async () => {
    await page.keyboard.press("/");
    await expect(page.getByRole("searchbox", { name: "Find a case" })).toBeFocused({ timeout: 1000 });
  }).toPass();
  await page.keyboard.type("Ada");
  await expect(page.getByRole("link", { name: /Dora Wick/ })).toHaveCount(0);
  await page.keyboard.press("Enter");

  const answered: string[] = [];
  for (let count = 0; count < names.length; count += 1) {
    await expect(page.getByRole("combobox", { name: "Find on the shelf" })).toBeFocused();
    const to = (await page.getByRole("main").locator("dd").first().textContent()) ?? "";
    const name = names.find((one) => to.includes(one)) ?? "";
    expect(answered).not.toContain(name);
    expect(name).not.toBe("");
    await page.keyboard.press("Escape");
    await expect(answer(page)).toBeFocused();
    await expect(page.getByText("In the answer", { exact: true })).toBeVisible();
    if (count === 1) await withTableAndLink(page);
    else if (count === 2) await undoneFiveSteps(page);
    else await page.keyboard.type(`Please turn the wick of lamp ${count} down.`);
    await page.keyboard.press("Alt+g");
    await expect(answer(page)).toContainText("Hello");
    const here = page.url();
    await page.keyboard.press("ControlOrMeta+Enter");
    await expect(page).not.toHaveURL(here);
    answered.push(name);
  }
  expect(answered[0]).toBe("Ada Wick");
  expect([...answered].sort()).toEqual([...names].sort());
  for (const [count, name] of answered.entries()) {
    const { text, html } = await mailOf(addressOf(name));
    expect(text).toMatch(new RegExp(`^Hello ${name.split(" ")[0] ?? ""},`));
    if (count === 1) {
      expect(html).toMatch(/<table[\s\S]*Wick[\s\S]*<\/table>/);
      expect(html).toContain('<a href="https://example.org/wicks">https://example.org/wicks</a>');
    } else if (count === 2) expect(text).toContain("Once more.");
    else expect(text).toContain(`wick of lamp ${count} down`);
  }
});

/** A table from the formatting bar, and below it an address that the mail makes a link. */
async function withTableAndLink(page: Page): Promise<void> {
  await page.keyboard.press("Alt+F10");
  await insertTable(page);
  await page.keyboard.type("Wick");
  for (let row = 0; row < 3; row += 1) await page.keyboard.press("ArrowDown");
  await page.keyboard.type("Look at https://example.org/wicks for more.");
  await expect(answer(page)).toContainText("for more.");
}

/** Adds a reply, what stands around it, and words, and moves the reply there and back: five steps, all taken back from the shelf. */
async function undoneFiveSteps(page: Page): Promise<void> {
  await page.keyboard.type("Once more.");
  const slips = () =>
    answer(page)
      .getByRole("region")
      .evaluateAll((all) => all.map((slip) => slip.getAttribute("aria-label")));
  const before = await slips();
  const search = page.getByRole("combobox", { name: "Find on the shelf" });
  await page.keyboard.press("Escape");
  await expect(search).toBeFocused();
  await page.keyboard.type("looking");
  await expect(page.getByRole("option", { name: /We are looking into it/ })).toBeVisible();
  await page.keyboard.press("Shift+Enter");
  await expect.poll(slips).toEqual([...before, "We are looking into it"]);
  await page.keyboard.press("Escape");
  await expect(answer(page)).toBeFocused();
  await page.keyboard.press("Alt+g");
  await expect(answer(page)).toContainText("Kind regards");
  const whole = await slips();
  await page.keyboard.type(" Soon.");
  await expect(answer(page)).toContainText("Soon.");
  await page.keyboard.press("Alt+Shift+ArrowUp");
  await expect.poll(slips).not.toEqual(whole);
  await page.keyboard.press("Alt+Shift+ArrowDown");
  await expect.poll(slips).toEqual(whole);
  await page.keyboard.press("Escape");
  await expect(search).toBeFocused();
  for (let step = 0; step < 5; step += 1) await page.keyboard.press("ControlOrMeta+z");
  await expect.poll(slips).toEqual(before);
  await expect(answer(page)).toContainText("Once more.");
  await expect(answer(page)).not.toContainText("Soon.");
  await page.keyboard.press("Escape");
  await expect(answer(page)).toBeFocused();
}
