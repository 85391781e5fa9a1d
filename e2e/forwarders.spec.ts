import { expect, test, type Page } from "@playwright/test";
import { violations } from "./axe";
import { answerReady, deliverToUs, nextMail, showCase, signIn } from "./house";

const form = (buyer: string, order: string, words: string) =>
  `Dear seller,\n\nfrom: ${buyer}\nsale: ${order}\nuntil: 24 December 2099, 12:00\n\nThey ask:\n${words}\n\nYours, the fair\n`;

/** Chooses words in the example and marks them. */
async function mark(page: Page, words: string, as: string): Promise<void> {
  const made = page.getByRole("form", { name: "Another forwarder" });
  const example = made.getByLabel("One of its messages");
  await example.evaluate((area: HTMLTextAreaElement, chosen) => {
    const from = area.value.indexOf(chosen);
    area.focus();
    area.setSelectionRange(from, from + chosen.length);
  }, words);
  await made.getByRole("button", { name: as, exact: true }).click();
}

test("a forwarder is made by an example, tried and switched on; its buyers are answered its way, within its rules", async ({
  page,
}) => {
  const market = {
    from: "The Fair <no-reply@fair.example.net>",
    to: "desk@example.com",
    subject: "A question for you",
  };
  await deliverToUs({ ...market, text: form("Ina Past", "F-1", "Is there a bar?") });
  await signIn(page, "sunniva@example.com");
  await page.goto("/setup/forwarders");
  await page.getByText("Another forwarder").click();
  const made = page.getByRole("form", { name: "Another forwarder" });
  await made.getByLabel("Name").fill("The Fair");
  await made.getByLabel("Its mail comes from").fill("@fair.example.net");
  await made.getByRole("button", { name: "Take its latest mail" }).click();
  await expect(made.getByLabel("One of its messages")).toHaveValue(/from: Ina Past/);
  await made.getByRole("button", { name: "Add the forwarder" }).click();
  await expect(made.getByText(/Nothing is marked/).first()).toBeVisible();
  await mark(page, "Ina Past", "the buyer’s name");
  await mark(page, "F-1", "the order reference");
  await mark(page, "24 December 2099, 12:00", "the deadline");
  await mark(page, "Is there a bar?", "the text");
  expect(await violations(page)).toEqual([]);
  await made.getByRole("button", { name: "Add the forwarder" }).click();
  const fair = page.getByRole("region", { name: "The Fair" });
  await fair.getByRole("button", { name: "Try it on past mail" }).click();
  await expect(fair.getByRole("listitem")).toContainText("Ina Past · F-1");
  await fair.getByRole("button", { name: "Switch it on" }).click();
  await expect(fair.getByText("It is on.")).toBeVisible();
  expect(await violations(page)).toEqual([]);

  await deliverToUs({
    ...market,
    replyTo: "uwe-9@relay.fair.example.net",
    text: form("Uwe Buyer", "F-2", "How long is the ramp?"),
  });
  await page.goto("/waiting?whose=all&text=Uwe Buyer");
  await page.getByRole("link", { name: /Uwe Buyer/ }).click();
  await answerReady(page);
  await expect(
    page.getByText("Came by The Fair, order F-2, wants an answer by 24 December 2099, 12:00"),
  ).toBeVisible();
  await expect(page.getByRole("article", { name: "From Uwe Buyer" })).toContainText("How long is the ramp?");
  await page.keyboard.press("Escape");
  await page.keyboard.type("Twelve metres, see www.example.com/ramp.");
  await expect(page.getByRole("complementary", { name: "Second look" })).toContainText(
    "The Fair lets no links through: take “www.example.com/ramp” out.",
  );
  for (const _letter of ", see www.example.com/ramp.") await page.keyboard.press("Backspace");
  await page.keyboard.type(".");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.keyboard.press("Control+Shift+Enter");
  const mail = await nextMail("uwe-9@relay.fair.example.net");
  expect(mail.text).toContain("Twelve metres.");
  expect(`${mail.text}${mail.html}`).not.toMatch(/www\.|@example|\+44/);

  // One of another form is told, not guessed.
  await deliverToUs({ ...market, subject: "New form", text: "Buyer Ola asks: how wide is it?" });
  await showCase(page, "New form");
  await expect(page.getByText(/It does not fit the form of The Fair/)).toBeVisible();
});
