import { expect, test } from "@playwright/test";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { mailbox, nextMail, showCase, said, signIn } from "./house";

test("two agents on one case see each other at once, and only one answer goes out", async ({ browser }) => {
  const one = await (await browser.newContext()).newPage();
  const two = await (await browser.newContext()).newPage();
  await signIn(one, "maren@example.com");
  await signIn(two, "bram@example.com");
  await showCase(one, "Kofi");
  await showCase(two, "Kofi");
  await expect(one.getByText("Bram Tessler has this case open too")).toBeVisible();
  await expect(two.getByText("Maren Oduya has this case open too")).toBeVisible();

  for (const page of [one, two]) {
    await page.getByRole("combobox", { name: "Find on the shelf" }).fill("charged twice");
    await expect(page.getByRole("option", { name: /Charged twice/ })).toHaveAttribute(
      "aria-selected",
      "true",
    );
    await page.keyboard.press("Enter");
    await expect(page.getByText("saved", { exact: true })).toBeVisible();
  }
  // Both press send before either page can have heard of the other.
  await Promise.all([one.keyboard.press("Control+Shift+Enter"), two.keyboard.press("Control+Shift+Enter")]);
  const seen = async (words: RegExp) =>
    (await one.getByText(words).count()) + (await two.getByText(words).count());
  await expect.poll(() => seen(/On its way to kofi/)).toBe(1);
  await expect.poll(() => seen(/answered this case meanwhile/)).toBe(1);
  const mail = await nextMail("kofi@example.org");
  expect(mail.text).toContain("I see both payments.");
  await expect(one.getByRole("article", { name: /Our answer by/ })).toHaveCount(1);
  await expect(two.getByRole("article", { name: /Our answer by/ })).toHaveCount(1);
  await one.context().close();
  await two.context().close();
});

test("a process killed between queuing and delivery loses nothing, and is started again", async ({
  page,
}) => {
  await signIn(page);
  await showCase(page, "Freya");
  await page.getByRole("combobox", { name: "Find on the shelf" }).fill("charging");
  await expect(page.getByRole("option", { name: /Electric cars/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Enter");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.keyboard.press("Control+Shift+Enter");
  await expect(said(page, /On its way to freya/)).toBeVisible();
  const to =
    /freya@example\.(?:net|org|com)/.exec(
      (await said(page, /On its way to freya/).textContent()) ?? "",
    )?.[0] ?? "";

  const pid = Number(readFileSync(join(process.env.DATA_DIR ?? "", "run", "jobs.pid"), "utf8"));
  process.kill(pid, "SIGKILL");
  await expect
    .poll(async () => (await page.request.get("/healthz")).status(), { timeout: 120_000 })
    .toBe(200);
  const mail = await nextMail(to);
  expect(mail.text).toContain("On board there are twelve sockets");
  await expect(page.getByRole("article", { name: /Our answer by Maren/ })).toContainText("delivered");
  expect(await mailbox(to)).toHaveLength(1);
});
