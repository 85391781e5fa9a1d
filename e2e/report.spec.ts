import { expect, test } from "@playwright/test";
import { violations } from "./axe";
import { deliverToUs, showCase, signIn } from "./house";

test("how answers kept their times is shown by team and channel; who stopped the clock, to leads alone", async ({
  page,
}) => {
  const name = `Ada Adverts${Date.now() % 100_000}`;
  await deliverToUs({
    from: `${name} <ada.${Date.now()}@example.org>`,
    to: "desk@example.com",
    subject: "offers",
    text: "Buy one, get one.",
  });
  await signIn(page, "sunniva@example.com");
  await showCase(page, name);
  await page.getByRole("button", { name: "More to do with this case" }).click();
  await page.getByRole("menuitem", { name: "Settle it" }).click();
  await page.getByRole("link", { name: "Report", exact: true }).click();
  const teams = page.getByRole("region", { name: "By team and channel" });
  await expect(teams.getByRole("row", { name: /^Passenger desk email \d+ \d+, / })).toBeVisible();
  const stopped = page.getByRole("region", { name: "Who stopped the clock without an answer" });
  await expect(stopped.getByRole("row", { name: /^Sunniva Holt \d+ [1-9]/ })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "Sign out" }).click();
  await signIn(page, "bram@example.com");
  await page.getByRole("link", { name: "Report", exact: true }).click();
  await expect(teams).toBeVisible();
  await expect(stopped).toHaveCount(0);
});
