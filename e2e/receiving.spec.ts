import { expect, test } from "@playwright/test";
import { createTransport } from "nodemailer";
import { deliverToUs, header, nextMail, showCase, setFaults, signIn } from "./house";

/** A message as an old mail program sends it: 8-bit Latin-1, an encoded subject, parts within parts. */
function oldFashioned(from: string): Buffer {
  const latin = (text: string) => Buffer.from(text, "latin1");
  return Buffer.concat([
    latin(
      [
        `From: =?iso-8859-1?Q?J=F6rg_M=FCller?= <${from}>`,
        "To: desk@example.com",
        "Subject: =?iso-8859-1?Q?Gep=E4ck?= auf der =?iso-8859-1?B?RuRocmU=?=",
        `Message-ID: <old-${Date.now()}@example.net>`,
        "MIME-Version: 1.0",
        'Content-Type: multipart/mixed; boundary="outer"',
        "",
        "--outer",
        'Content-Type: multipart/alternative; boundary="inner"',
        "",
        "--inner",
        "Content-Type: text/plain; charset=iso-8859-1",
        "Content-Transfer-Encoding: 8bit",
        "",
        "Grüße! Darf mein großer Koffer mit in den Salon? Er wiegt ungefähr dreißig Kilo.",
        "",
        "--inner",
        "Content-Type: text/html; charset=iso-8859-1",
        "Content-Transfer-Encoding: quoted-printable",
        "",
        '<p>Gr=FC=DFe! Darf mein <b>gro=DFer</b> Koffer mit?</p><img src=3D"http://tracker.example.org/x.gif"><script>alert(1)</script>',
        "--inner--",
        "--outer",
        'Content-Type: application/pdf; name="=?iso-8859-1?Q?Ma=DFe.pdf?="',
        'Content-Disposition: attachment; filename="=?iso-8859-1?Q?Ma=DFe.pdf?="',
        "Content-Transfer-Encoding: base64",
        "",
        Buffer.from("%PDF-1.4 made up").toString("base64"),
        "--outer--",
        "",
      ].join("\r\n"),
    ),
  ]);
}

test("mail from a plain client becomes a case, is answered, and the answer threads onto it", async ({
  page,
}) => {
  const from = `joerg.${Date.now()}@example.net`;
  const transport = createTransport({
    host: "127.0.0.1",
    port: Number(process.env.INBOUND_SMTP_PORT),
    ignoreTLS: true,
  });
  const raw = oldFashioned(from);
  await transport.sendMail({ envelope: { from, to: ["desk@example.com"] }, raw });
  transport.close();
  const id = /Message-ID: (<[^>]+>)/.exec(raw.toString("latin1"))?.[1];

  await signIn(page);
  await showCase(page, "Jörg");
  await expect(page.getByRole("heading", { name: "Gepäck auf der Fähre" })).toBeVisible();
  const theirs = page.getByRole("article", { name: "From Jörg Müller" });
  await expect(theirs).toContainText("Grüße! Darf mein großer Koffer mit in den Salon?");
  await expect(theirs.getByRole("link", { name: "Maße.pdf" })).toBeVisible();
  const file = await page.request.get(
    (await theirs.getByRole("link", { name: "Maße.pdf" }).getAttribute("href")) ?? "",
  );
  expect(await file.text()).toBe("%PDF-1.4 made up");

  await theirs.getByRole("button", { name: "as it was formatted" }).click();
  const frame = page.frameLocator("iframe[title='The message as it was formatted']");
  await expect(frame.getByText("Koffer mit?")).toBeVisible();
  await expect(frame.locator("script")).toHaveCount(0);
  expect(await frame.locator("img").getAttribute("src")).toMatch(/^data:/);
  const kept = await page.request.get(
    (await theirs.getByRole("link", { name: "raw" }).getAttribute("href")) ?? "",
  );
  expect((await kept.body()).equals(raw)).toBe(true);

  const answer = page.getByRole("textbox", { name: "Our answer" });
  await answer.click();
  await page.keyboard.type("Guten Tag Herr Müller, ja, neben der Treppe.");
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.keyboard.press("Control+Shift+Enter");
  const mail = await nextMail(from);
  expect(header(mail, "in-reply-to")).toBe(id);
  expect(header(mail, "references")).toContain(id);
  expect(mail.subject).toMatch(/^Re: Gepäck auf der Fähre \[SF-\d+\]$/);

  await deliverToUs({
    from: { name: "Jörg Müller", address: from },
    to: "desk@example.com",
    subject: "Aw: something else",
    text: `Danke!\n\nAm 25.11.26 schrieb Maren:\n> ja, neben der Treppe`,
    inReplyTo: mail.messageId ?? "",
  });
  await expect(page.getByRole("article", { name: "From Jörg Müller" })).toHaveCount(2);
  await expect(page.getByText("quoted text")).toBeVisible();
});

test("mail for nobody here is refused with words; mail without a sender is kept, and says so", async ({
  page,
}) => {
  await expect(deliverToUs({ from: "a@example.net", to: "nobody@example.com", text: "x" })).rejects.toThrow(
    /550 No mailbox nobody@example.com here/,
  );
  const transport = createTransport({
    host: "127.0.0.1",
    port: Number(process.env.INBOUND_SMTP_PORT),
    ignoreTLS: true,
  });
  await transport.sendMail({
    envelope: { from: "nameless@example.net", to: ["desk@example.com"] },
    raw: "Subject: no sender\r\n\r\nWho am I?",
  });
  transport.close();
  await signIn(page);
  await showCase(page, "nameless");
  await expect(page.getByRole("article", { name: "From nameless@example.net" })).toContainText(
    "It names no sender; the address that it was delivered from stands for one.",
  );
});

test("a customer writes in from outside, is answered, and a refusal shows with the server's words and a way to try again", async ({
  page,
}) => {
  await signIn(page);
  await page.goto("/outside?who=tandem");
  await page.getByRole("link", { name: /Thea Bramwell/ }).click();
  await page.getByLabel("Subject").fill("one more thing");
  await page.getByLabel("Message", { exact: true }).fill("Does the tandem need a helmet?");
  await page.getByRole("button", { name: "Send", exact: true }).click();
  await expect(page.getByText("Sent. It is a case now")).toBeVisible();

  await setFaults({ mail: "refuses", only: "tandem@example.org" });
  try {
    // What has a subject of its own is a case of its own.
    await showCase(page, "one more thing");
    await expect(page.getByRole("article", { name: "From Thea Bramwell" }).last()).toContainText(
      "Does the tandem need a helmet?",
    );
    await page.keyboard.press("Escape");
    await page.keyboard.type("Only the riders do.");
    await expect(page.getByText("saved", { exact: true })).toBeVisible();
    await page.keyboard.press("Control+Shift+Enter");
    await expect(page.getByText(/Refused: .*550.*No such mailbox/)).toBeVisible({ timeout: 30_000 });
  } finally {
    await setFaults(null);
  }
  await page.getByRole("button", { name: "Try again" }).click();
  const answered = page.getByRole("article", { name: /Our answer by Maren/ });
  await expect(answered).toContainText("delivered");
});
