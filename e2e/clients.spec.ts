import { expect, test, type Page } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { z } from "zod";
import { nextMail, rawMail, showCase, signIn } from "./house";

const PYTHON = "/usr/bin/python3";
const port = () => String(process.env.INBOUND_SMTP_PORT);
const script = (name: string) => join(import.meta.dirname, "python", name);

/** What Python's parser finds in a message. */
const found = z.object({
  subject: z.string(),
  from: z.array(z.tuple([z.string(), z.string()])),
  to: z.array(z.string()),
  in_reply_to: z.string().nullable(),
  references: z.array(z.string()),
  date: z.string(),
  structure: z.array(z.string()),
  text: z.string().nullable(),
  html: z.string().nullable(),
  defects: z.array(z.string()),
});

/** Answers the case of a customer. @returns what arrived, as Python's parser reads it */
async function answered(page: Page, name: string, address: string, words: string) {
  await signIn(page);
  await showCase(page, name);
  await page.keyboard.press("Escape");
  await page.keyboard.type(words);
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.keyboard.press("Control+Shift+Enter");
  const { id } = await nextMail(address);
  const said = execFileSync(PYTHON, [script("read.py")], { input: await rawMail(id), encoding: "utf8" });
  return found.parse(JSON.parse(said));
}

test("what Python’s smtplib delivers is a case, and Python reads its answer without a defect", async ({
  page,
}) => {
  const address = "py.script@example.net";
  const message = {
    subject: "Fähre am Freitag – noch Plätze? 🚢",
    text: "Guten Tag,\nsind am Freitag noch Plätze frei?\n",
    html: "<p>Guten Tag, sind am <b>Freitag</b> noch Plätze frei?</p>",
    file: "Fährschein: Grün\n",
  };
  const sent = execFileSync(
    PYTHON,
    [script("deliver.py"), port(), `Pýthon Škript <${address}>`, "desk@example.com"],
    {
      input: JSON.stringify(message),
      encoding: "utf8",
    },
  );
  const { id } = z.object({ id: z.string() }).parse(JSON.parse(sent));
  const read = await answered(page, "Pýthon", address, "Ja, für Sie und Ihr Gepäck.");
  await page.goto("/waiting?whose=all&list=customer&text=Pýthon");
  await page.getByRole("link", { name: /Pýthon Škript/ }).click();
  await expect(page.getByRole("heading", { level: 1, name: message.subject })).toBeVisible();
  const theirs = page.getByRole("article", { name: "From Pýthon Škript" }).last();
  await expect(theirs).toContainText("sind am Freitag noch Plätze frei?");
  await expect(theirs.getByRole("link", { name: "Fährschein.txt" })).toBeVisible();
  expect(read).toMatchObject({
    subject: expect.stringMatching(/^Re: Fähre am Freitag – noch Plätze\? 🚢 \[SF-\d+\]$/),
    from: [["Maren Oduya, Fahrgastservice", "desk@example.com"]],
    to: [address],
    in_reply_to: id,
    references: [id],
    defects: [],
  });
  expect(read.structure.slice(0, 3)).toEqual(["multipart/alternative", "text/plain", "text/html"]);
  expect(read.text).toContain("Ja, für Sie und Ihr Gepäck.");
  expect(read.html).toContain("Ja, für Sie und Ihr Gepäck.");
  expect(Math.abs(Date.parse(read.date) - Date.now())).toBeLessThan(10 * 60_000);
});

test("what swaks delivers is a case, and is answered", async ({ page }) => {
  const address = "swaks@example.net";
  execFileSync("/usr/bin/swaks", [
    ...["--server", "127.0.0.1", "--port", port(), "--from", address, "--to", "desk@example.com"],
    ...["--header", "Subject: plain as plain", "--header", `From: Swen Aks <${address}>`],
    ...["--body", "Is the gangway steep?", "--silent", "2"],
  ]);
  const read = await answered(page, "Swen Aks", address, "Only at low water.");
  expect(read).toMatchObject({
    to: [address],
    defects: [],
    subject: expect.stringContaining("plain as plain"),
  });
  expect(read.text).toContain("Only at low water.");
});
