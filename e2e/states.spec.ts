import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { choose, deliverToUs, fromMenu, said, showCase, signIn } from "./house";

test("a case goes through every state, is given to a colleague, and junk is set aside by itself until it is undone", async ({
  page,
}) => {
  // What is learned of a sender stays: each time it is another one.
  const from = `Rune Stated <rune.${Date.now()}@example.org>`;
  const write = (subject: string, text: string) =>
    deliverToUs({ from, to: "desk@example.com", subject, text });
  await write("a prize", "You have won a ferry. Send us your card number.");
  await signIn(page);
  await showCase(page, "Rune Stated");
  const address = page.url();
  const side = page.getByRole("region", { name: "Their side" });
  await expect(side.getByText("new, nobody’s")).toBeVisible();
  const left = side.getByText(/ left$|^by tomorrow /);
  await expect(left).toBeVisible();

  await fromMenu(page, "It waits on a colleague");
  await expect(side.getByText("waiting on a colleague, nobody’s")).toBeVisible();
  await expect(left).toBeVisible();
  await fromMenu(page, "It waits on the customer");
  await expect(side.getByText("waiting on the customer, nobody’s")).toBeVisible();
  await expect(left).toBeHidden();
  await fromMenu(page, "Take it up again");
  await expect(left).toBeVisible();

  await fromMenu(page, "Give it to somebody …");
  const giving = page.getByRole("dialog", { name: /^Give SF-\d+ to somebody$/ });
  await giving.getByRole("combobox", { name: "To whom" }).click();
  await page.keyboard.type("bram");
  await page.getByRole("option", { name: /Bram/ }).click();
  expect(await violations(page)).toEqual([]);
  await giving.getByRole("button", { name: "Give it to them" }).click();
  await expect(side.getByText(/^open, Bram .*’s$/)).toBeVisible();
  await fromMenu(page, "It is mine");
  await expect(side.getByText("open, Maren Oduya’s")).toBeVisible();

  await fromMenu(page, "Settle it");
  await expect(side.getByText("settled, Maren Oduya’s")).toBeVisible();
  await fromMenu(page, "Take it up again");

  await fromMenu(page, "Set it aside …");
  const aside = page.getByRole("dialog", { name: /^Set SF-\d+ aside$/ });
  await aside.getByRole("radio", { name: "junk or fraud" }).click();
  await expect(aside.getByRole("button", { name: "Set it aside" })).toBeDisabled();
  await aside.getByRole("radio", { name: "it wants money or secrets" }).click();
  expect(await violations(page)).toEqual([]);
  await aside.getByRole("button", { name: "Set it aside" }).click();
  await expect(said(page, /^Set SF-\d+ aside: junk or fraud \(it wants money or secrets\)\.$/)).toBeVisible();
  await expect(side.getByText(/^set aside as junk or fraud: it wants money or secrets/)).toBeVisible();

  // What the sender writes next comes to nobody's list of what waits.
  await write("another prize", "You have won a harbour.");
  await page.goto("/waiting?list=set+aside&whose=all&text=another+prize");
  await expect(page.getByRole("link", { name: /another prize/ }).first()).toBeVisible();
  await page
    .getByRole("link", { name: /another prize/ })
    .first()
    .click();
  await expect(side.getByText(/^set aside as junk or fraud/)).toBeVisible();
  await page.getByText("History").click();
  await expect(side.getByText("set aside by itself: its sender is known for junk").last()).toBeVisible();

  await page.goto(address);
  await page.getByText("History").click();
  await side.getByRole("button", { name: "Undo" }).first().click();
  await expect(said(page, "It is as it was.")).toBeVisible();
  await expect(side.getByText("open, Maren Oduya’s")).toBeVisible();
  await write("a true question", "Does the bar take coins?");
  await page.goto("/waiting?whose=all&text=a+true+question");
  await expect(page.getByRole("link", { name: /a true question/ }).first()).toBeVisible();
});

test("a lead keeps business hours and answer-by times, and a case says why it is due when it is", async ({
  page,
}) => {
  await signIn(page, "sunniva@example.com");
  await page.goto("/setup/answer-times");
  await page.getByRole("button", { name: "Other hours" }).click();
  const hours = page.getByRole("form", { name: "Other hours" });
  await hours.getByLabel("Name").fill("Quay");
  await hours.getByLabel("Saturday").fill("25-30");
  await hours.getByRole("button", { name: "Add these hours" }).click();
  await expect(hours.getByText(/^Write hours as 09:00–12:00/)).toBeVisible();
  await hours.getByLabel("Saturday").fill("9-12, 13-15");
  await choose(hours.getByRole("combobox", { name: "Closed on the public holidays of" }), "United Kingdom");
  await choose(hours.getByRole("combobox", { name: "and of its region" }), "Scotland");
  expect(await violations(page)).toEqual([]);
  await hours.getByRole("button", { name: "Add these hours" }).click();
  const quay = page.getByRole("form", { name: "Quay" });
  await expect(quay.getByLabel("Saturday")).toHaveValue("09:00–12:00, 13:00–15:00");
  await expect(quay.getByText(/^Closed next: /)).toContainText("Christmas Day");

  await page.getByRole("button", { name: "Another answer-by time" }).click();
  const another = page.getByRole("form", { name: "Another answer-by time" });
  await another.getByRole("combobox", { name: "Topic" }).click();
  await page.getByRole("option", { name: "lost property", exact: true }).click();
  await page.keyboard.press("Escape");
  await choose(another.getByRole("combobox", { name: "Counted over" }), "Quay");
  await another.getByRole("button", { name: "Add it" }).click();
  const first = page.getByRole("form", { name: "Answer-by time 1" });
  await expect(first.getByRole("combobox", { name: "Topic" })).toHaveText("lost property");
  await expect(first.getByText(/^Written now, it is due/)).toBeVisible();
  await quay.getByRole("button", { name: "Remove" }).click();
  await expect(page.getByText(/^Answers are counted by these hours/)).toBeVisible();
  await first.getByRole("button", { name: "Remove" }).click();
  await expect(page.getByRole("form", { name: /^Answer-by time / })).toHaveCount(2);
  await quay.getByRole("button", { name: "Remove" }).click();
  await expect(quay).toBeHidden();

  await showCase(page, "season card for my father");
  await page.getByRole("region", { name: "Their side" }).locator("time").first().hover();
  await expect(
    page
      .getByRole("tooltip")
      .getByText(/08:00 to |09:00 to /)
      .first(),
  ).toBeVisible();
});
