import { expect, test, type Page } from "@playwright/test";
import { violations } from "./axe";
import { showCase, setFaults, signIn } from "./house";

/** What the browser complains of on a page from now on, each with the address that it was on. */
function complaints(page: Page): string[] {
  const errors: string[] = [];
  page.on("console", (message) => {
    if (message.type() === "error") errors.push(`${page.url()}: ${message.text()}`);
  });
  page.on("pageerror", (error) => errors.push(error.message));
  return errors;
}

// Each has a case of its own: what the first begins is not the second’s draft.
for (const [colorScheme, customer] of [
  ["light", "Low Tide"],
  ["dark", "Maeve"],
] as const) {
  test(`every screen is free of accessibility findings and console errors, ${colorScheme}`, async ({
    browser,
  }) => {
    const page = await (
      await browser.newContext({ colorScheme, viewport: { width: 1280, height: 800 } })
    ).newPage();
    test.setTimeout(300_000);
    const errors = complaints(page);
    await page.goto("/sign-in");
    expect(await violations(page)).toEqual([]);
    await signIn(page);
    for (const path of [
      "/waiting",
      "/waiting?list=customer",
      "/waiting?text=zzzz",
      "/keys",
      "/outside",
      "/outside/ottoline%40example.net",
      "/shelves",
      "/shelves?q=refnud",
      "/shelves?q=zzzz",
      "/shelves/proposals",
      "/shelves/arrange",
      "/replies/new",
      "/replies/sailing-put-off",
      "/replies/sailing-put-off/history",
      "/setup/signatures",
      "/setup/facts",
      "/setup/facts/dog_fee",
      "/setup/usual",
      "/setup/stationery",
    ]) {
      await page.goto(path);
      await expect(page.getByRole("main")).toBeVisible();
      expect({ path, found: await violations(page) }).toEqual({ path, found: [] });
    }
    for (const panel of ["Blanks", "Passages", "Files", "Filing", "History"]) {
      await page.goto("/replies/sailing-put-off");
      await page.getByRole("tab", { name: panel }).click();
      expect({ panel, found: await violations(page) }).toEqual({ panel, found: [] });
    }
    await showCase(page, customer);
    expect(await violations(page)).toEqual([]);
    await page.getByRole("combobox", { name: "Find on the shelf" }).fill("put off");
    await expect(page.getByRole("option", { name: /put off by weather/ })).toHaveAttribute(
      "aria-selected",
      "true",
    );
    await page.keyboard.press("Enter");
    await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText("is put off because of");
    expect(await violations(page)).toEqual([]);
    await page.getByRole("button", { name: "remove" }).nth(1).click();
    expect(errors).toEqual([]);
    await page.context().close();
  });
}

test("the example of the stationery waits for its paper", async ({ page }) => {
  const errors = complaints(page);
  let deliver: () => void = () => undefined;
  const late = new Promise<void>((resolve) => (deliver = resolve));
  await page.route("**/paper", async (route) => {
    await late;
    await route.continue();
  });
  await signIn(page);
  await page.goto("/setup/stationery", { waitUntil: "commit" });
  const footer = page.getByRole("textbox", { name: "Footer" });
  await footer.fill("Seen on late paper");
  await expect(footer).toHaveText("Seen on late paper");
  deliver();
  await expect(page.frameLocator("iframe").getByText("Seen on late paper")).toBeVisible();
  expect(errors).toEqual([]);
});

test("what has no first name, no booking and three questions is answered without a gap", async ({ page }) => {
  await signIn(page);
  await showCase(page, "Ravenscroft");
  await expect(page.getByText("No booking is named in this case.")).toBeVisible();
  const strip = page.getByRole("combobox", { name: "Find on the shelf" });
  for (const [query, title, key] of [
    ["food", /The café, food/, "Enter"],
    ["dogs aboard", /Dogs aboard/, "Shift+Enter"],
    ["wheelchair", /Wheelchair/, "Shift+Enter"],
  ] as const) {
    await strip.fill(query);
    await expect(page.getByRole("option", { name: title })).toHaveAttribute("aria-selected", "true");
    await page.keyboard.press(key);
  }
  const answer = page.getByRole("textbox", { name: "Our answer" });
  await expect(answer).toContainText("Hello there,");
  await expect(answer.getByRole("combobox", { name: "Which harbours?: none" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("option", { name: "Osmer Quay", exact: true })).toBeVisible();
  await page.keyboard.press("Enter");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(answer).toContainText("Osmer Quay and Tarn Head");
  await expect(answer).toContainText("The lift at Tarn Head is being rebuilt");
  await expect(page.getByText("Nothing to see to.")).toBeVisible();
});

test("names with markup, braces and quotes stay names", async ({ page }) => {
  await signIn(page);
  await showCase(page, "Bobbins");
  await page.getByRole("combobox", { name: "Find on the shelf" }).fill("name put right");
  await expect(page.getByRole("option", { name: /Name put right/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText("Hello {$case.number},");
  await page.keyboard.type("Ana Maria");
  await expect(page.getByText("Nothing to see to.")).toBeVisible();
});

test("a greeting by another name, a promise without attachment and a doubled sign-off are pointed at", async ({
  page,
}) => {
  await signIn(page);
  await showCase(page, "Edda");
  await page.keyboard.press("Escape");
  await page.keyboard.type("Dear Halvard Moe, the form is attached. TODO");
  const look = page.getByRole("complementary", { name: "Second look" });
  await expect(look).toContainText("The greeting says “Halvard Moe”");
  await expect(look).toContainText("Halvard Moe is another customer of ours.");
  await expect(look).toContainText("It says “attached”, and nothing is attached.");
  await expect(look).toContainText("“TODO” looks unfinished.");
});

test("the booking system may be broken: the case opens all the same and says so", async ({ page }) => {
  await setFaults({ bookings: "broken", only: "MA1-R7A" });
  try {
    await signIn(page);
    await page.goto("/outside/luca%40example.net");
    await page.getByLabel("Message", { exact: true }).fill("Now about MA1-R7A instead, please.");
    await page.getByLabel("Subject").fill("another booking");
    await page.getByRole("button", { name: "Send", exact: true }).click();
    await expect(page.getByText("Sent. It is a case now")).toBeVisible();
    await showCase(page, "another booking");
    await expect(page.getByText("The booking system answers 500")).toBeVisible();
    await page.keyboard.press("Escape");
    await page.keyboard.type("We look it up by hand.");
    await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText("We look it up by hand.");
  } finally {
    await setFaults(null);
  }
});

test("requests from elsewhere change nothing, and pages allow no foreign script", async ({
  page,
  request,
}) => {
  const response = await request.post("/sign-in", {
    form: { email: "maren@example.com", password: "kittiwake" },
    headers: { Origin: "https://elsewhere.example.org" },
  });
  expect(response.status()).toBe(403);
  await signIn(page);
  const home = await page.request.get("/waiting");
  const policy = home.headers()["content-security-policy"] ?? "";
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+'/);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(home.headers()["x-content-type-options"]).toBe("nosniff");
  const cookies = await page.context().cookies();
  expect(cookies[0]).toMatchObject({ httpOnly: true, sameSite: "Lax" });
  await page.goto("/cases/999999");
  await expect(page.getByRole("heading", { name: "Not here" })).toBeVisible();
});

test("signing in and filtering work before any script has loaded", async ({ browser }) => {
  const page = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
  await page.goto("/sign-in");
  await page.getByLabel("Email").fill("nobody@example.com");
  await page.getByLabel("Password").fill("wrong wrong");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toContainText("do not match");
  await page.getByLabel("Email").fill("nele@example.com");
  await page.getByLabel("Password").fill("kittiwake");
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.getByRole("searchbox", { name: "Find a case" }).fill("gas bottles");
  await page.getByRole("button", { name: "Show" }).click();
  await expect(page.getByRole("link", { name: /Saltgarth Holiday Park/ })).toBeVisible();
  await page.context().close();
});
