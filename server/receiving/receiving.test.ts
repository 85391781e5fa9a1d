import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { createTransport } from "nodemailer";
import type { SMTPServer } from "smtp-server";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Attachment } from "../db/entities/answering";
import { CustomerAddress } from "../db/entities/customers";
import { readOpenCase } from "../answering/open";
import { query } from "../db/sql";
import { digestOf } from "../digest";
import { messageRaw } from "../cases/conversation";
import { testCase, testHouse, type TestHouse } from "../testing";
import { acceptMail } from "./accept";
import { stopReading } from "../reading/pool";
import { listenForMail } from "./listen";
import { receivingCertificate } from "./tls";
import { readMail } from "../reading/parse";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");

interface Given {
  from?: string;
  subject?: string;
  headers?: string[];
  body?: string;
}

function raw({
  from = "Ana Brandt <ana@example.org>",
  subject = "boat",
  headers = [],
  body = "hello",
}: Given = {}): Buffer {
  return Buffer.from(
    [`From: ${from}`, "To: desk@example.com", `Subject: ${subject}`, ...headers, "", body].join("\r\n"),
  );
}

const read = (message: Buffer, envelopeFrom: string | null = null) =>
  readMail({ raw: message, envelopeFrom, trusted: ["mx.example.com"] });

const filed = (content: Buffer) => ({ content, sha256: digestOf(content) });

async function receive(given: Given = {}, at = now) {
  const message = raw(given);
  const mail = await read(message);
  return acceptMail(house.em(), mail, filed(message), ["desk@example.com"], at);
}

describe("reading", () => {
  test("charsets, encoded words and addresses come out right", async () => {
    const mail = await read(
      Buffer.concat([
        Buffer.from(
          "From: =?utf-8?B?5p2O5bCP6b6N?= <li@example.org>\r\nReply-To: other@example.org\r\nSubject: =?iso-8859-1?q?caf=E9?= =?utf-8?q?_=F0=9F=9A=A2?=\r\nContent-Type: text/plain; charset=windows-1252\r\nContent-Transfer-Encoding: 8bit\r\n\r\n",
        ),
        Buffer.from("50 \x80 f\xfcr Gr\xfc\xdfe", "latin1"),
      ]),
    );
    expect(mail).toMatchObject({
      from: { address: "li@example.org" },
      replyTo: "other@example.org",
      subject: "café 🚢",
      text: "50 € für Grüße",
    });
  });

  test("HTML alone is told as text; flowed text is joined again; the language is told where it can be", async () => {
    const html = await read(
      raw({
        headers: ["Content-Type: text/html; charset=utf-8"],
        body: "<p>Hello <b>you</b></p><ul><li>one</li></ul><script>x</script>",
      }),
    );
    expect(html?.text).toContain("Hello you");
    expect(html?.text).not.toContain("x</script>");
    const flowing = await read(
      raw({
        headers: ["Content-Type: text/plain; format=flowed"],
        body: "Guten Tag, wann fährt denn morgen früh das \r\nerste Schiff nach Pellick ab?",
      }),
    );
    expect(flowing).toMatchObject({
      text: "Guten Tag, wann fährt denn morgen früh das erste Schiff nach Pellick ab?",
      language: "de",
    });
  });

  test("what only looks empty shows its words", async () => {
    const body = ["--x", "Content-Type: text/plain", "", "Where is my boat?", "--x--"].join("\r\n");
    const unbound = raw({ headers: ["Content-Type: multipart/mixed"], body });
    const unending = Buffer.from("From: a@example.org\r\nSubject: boat\r\nWhere is my boat?\r\nTell me.");
    const digest = raw({
      headers: ['Content-Type: multipart/digest; boundary="x"'],
      body: ["--x", "", "Subject: inner", "", "Where is my boat?", "--x--"].join("\r\n"),
    });
    for (const message of [unbound, unending, digest]) {
      const mail = await read(message);
      const shown = [
        mail.text,
        ...mail.attachments.map((file) => Buffer.from(file.content).toString()),
      ].join();
      expect(shown).toContain("Where is my boat?");
    }
  });

  test("a message that names no sender is kept under its envelope's, and says so", async () => {
    const nameless = Buffer.from("Subject: x\r\n\r\nhello");
    expect(await read(nameless, "Bounce@example.org")).toMatchObject({
      from: { address: "bounce@example.org" },
      doubts: [{ kind: "envelope" }],
    });
    expect(await read(nameless)).toMatchObject({ from: { address: "unknown-sender@invalid" } });
    const grouped = raw({ from: "undisclosed: Ana <ana@example.org>;" });
    expect(await read(grouped)).toMatchObject({ from: { address: "ana@example.org" }, doubts: [] });
  });

  test("a trusted receiver's findings against the sender are kept, anybody else's are not", async () => {
    const headers = (by: string) => [
      `Authentication-Results: ${by} (a comment; dkim=fail); spf=fail smtp.mailfrom=example.org;`,
      " dkim=pass header.d=example.org; dmarc=fail (p=none) header.from=example.org",
    ];
    expect((await read(raw({ headers: headers("mx.example.com") }))).doubts).toEqual([
      { kind: "authentication", words: "SPF fail (smtp.mailfrom=example.org)" },
      { kind: "authentication", words: "DMARC fail (header.from=example.org)" },
    ]);
    expect((await read(raw({ headers: headers("mx.example.net") }))).doubts).toEqual([]);
  });

  test("characters that no database keeps are replaced, sizes are capped, and the raw message has all", async () => {
    const nul = await receive({
      from: "Nul\u0000 <nul@example.org>",
      subject: "a\u0000b",
      headers: ["Message-ID: <nul\u0000@example.org>"],
      body: "x\u0000y",
    });
    const message = await house.em().findOneOrFail(Message, { id: nul.messageId });
    expect([message.subject, message.text]).toEqual(["a\ufffdb", "x\ufffdy"]);
    const utf16 = Buffer.concat([
      Buffer.from("From: wide@example.org\r\nContent-Type: text/plain; charset=utf-8\r\n\r\n"),
      Buffer.from("wide", "utf16le"),
    ]);
    await acceptMail(house.em(), await read(utf16), filed(utf16), ["desk@example.com"], now);
    const words = Array.from({ length: 200_000 }, (_, index) => `w${index.toString(36)}`).join(" ");
    const many = await receive({ from: "many@example.org", body: words });
    const kept = await house.em().findOneOrFail(Message, { id: many.messageId });
    expect(kept).toMatchObject({ cut: true });
    expect(kept.text).toHaveLength(100_000);
    expect((await messageRaw(house.em(), many.messageId)).content.byteLength).toBeGreaterThan(1_000_000);
  });
});

describe("where a message belongs", () => {
  test("a new sender opens a case, timed by the team, with the raw message kept", async () => {
    const opened = await receive({
      from: '"Brandt, Ana" <new1@example.org>',
      headers: ["Message-ID: <n1@example.org>"],
    });
    const subject = await house.em().findOneOrFail(Case, { id: opened.caseId }, { populate: ["customer"] });
    expect(opened.opened).toBe(true);
    expect(subject).toMatchObject({
      status: "new",
      customer: { firstName: "Ana", lastName: "Brandt" },
    });
    expect(subject.answerBy?.getTime()).toBe(now.getTime() + 240 * 60_000);
    expect((await messageRaw(house.em(), opened.messageId)).content.toString()).toContain(
      "Message-ID: <n1@example.org>",
    );
  });

  test("first what it answers, then the number in its subject, then its sender's open case", async () => {
    const one = await testCase(house.em());
    const two = await testCase(house.em());
    const both = {
      from: one.address,
      subject: `Re: [SF-${two.number}]`,
      headers: [`In-Reply-To: <in-${one.number - 90_000}@example.org>`],
    };
    expect(await receive(both)).toMatchObject({ caseId: one.id, opened: false });
    expect(await receive({ from: two.address, subject: `about sf-${two.number}` })).toMatchObject({
      caseId: two.id,
    });
    const itsSubject = `Re: boat ${two.number - 90_000}`;
    expect(await receive({ from: two.address, subject: itsSubject })).toMatchObject({ caseId: two.id });
    expect(await receive({ from: two.address, subject: "" })).toMatchObject({ caseId: two.id });
    expect(await receive({ from: two.address, subject: "something else" })).toMatchObject({ opened: true });
    await query(house.em(), "update cases set status = 'settled' where id = ?", [two.id]);
    expect(await receive({ from: two.address, subject: itsSubject })).toMatchObject({ opened: true });
  });

  test("a stranger who guesses a case's number does not get into it", async () => {
    const { number, id } = await testCase(house.em());
    const guess = await receive({ from: "stranger@example.net", subject: `SF-${number}` });
    expect(guess).toMatchObject({ opened: true });
    expect(guess.caseId).not.toBe(id);
  });

  test("whoever names a message of ours joins its case, and becomes nobody's customer by that", async () => {
    const { id, number, address } = await testCase(house.em());
    const joined = await receive({
      from: "Jo <forwarded@example.net>",
      headers: [`In-Reply-To: <in-${number - 90_000}@example.org>`],
    });
    expect(joined).toMatchObject({ caseId: id, opened: false });
    expect(await house.em().count(CustomerAddress, { address: "forwarded@example.net" })).toBe(0);
    const open = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(open.recipient).toBe(address);
    expect(open.recipients).toEqual([
      { address, is: "known", news: null },
      {
        address: "forwarded@example.net",
        is: "new",
        news: expect.stringContaining("wrote on this case for the first time"),
      },
    ]);
    expect(open.messages.map((one) => one.stranger)).toEqual([false, true]);
  });

  test("a Message-ID that another sender or another content has is another message", async () => {
    const headers = ["Message-ID: <shared@example.org>"];
    const first = await receive({ from: "one@example.org", headers });
    const other = await receive({ from: "two@example.org", headers });
    const more = await receive({ from: "one@example.org", headers, body: "something more" });
    expect(new Set([first, other, more].map((one) => one.messageId)).size).toBe(3);
    expect(await receive({ from: "one@example.org", headers })).toEqual({ ...first, opened: false });
  });

  test("the same message delivered again is recognised", async () => {
    const given = { from: "twice@example.org", headers: ["Message-ID: <twice@example.org>"] };
    const [first, second] = [await receive(given), await receive(given)];
    expect(second).toMatchObject({ messageId: first.messageId, opened: false });
  });

  test("two first messages of one sender at once make one customer", async () => {
    await Promise.all(
      [1, 2].map((n) =>
        receive({
          from: "both@example.org",
          subject: `s${n}`,
          headers: [`Message-ID: <both${n}@example.org>`],
        }),
      ),
    );
    const rows = await query<{ n: string }>(
      house.em(),
      "select count(*) as n from customer_addresses where address = 'both@example.org'",
    );
    expect(Number(rows[0]?.n)).toBe(1);
  });

  test("a closed or answered case waits for us again; one that waits keeps its time", async () => {
    const { id, address } = await testCase(house.em());
    await receive({ from: address }, new Date("2026-11-25T11:00:00Z"));
    expect((await house.em().findOneOrFail(Case, { id })).answerBy?.toISOString()).toBe(
      "2026-11-25T13:00:00.000Z",
    );
  });
});

describe("the receiving port", () => {
  const folder = mkdtempSync(join(tmpdir(), "plain-shelf-receiving-"));
  const PORT = 20_000 + (process.pid % 20_000);
  let server: SMTPServer;
  beforeAll(async () => {
    server = await listenForMail({
      port: PORT,
      host: "127.0.0.1",
      certificate: await receivingCertificate({ dataDir: folder, inboundTls: null }),
      trusted: [],
    });
  });
  afterAll(async () => {
    await new Promise<void>((resolve) => server.close(() => resolve()));
    await stopReading();
    rmSync(folder, { recursive: true });
  });
  const deliver = (message: object) =>
    createTransport({ host: "127.0.0.1", port: PORT, ignoreTLS: true }).sendMail(message);

  test("takes a message with its attachments, byte for byte", async () => {
    const content = Buffer.from(Array.from({ length: 5000 }, (_, index) => index % 256));
    await deliver({
      from: "files@example.org",
      to: "desk@example.com",
      subject: "files",
      text: "two",
      attachments: [
        { filename: "Überfahrt.bin", content },
        { filename: "a.txt", content: "a" },
      ],
    });
    const message = await house.em().findOneOrFail(Message, { fromAddress: "files@example.org" });
    const files = await house
      .em()
      .find(Attachment, { message }, { populate: ["file"], orderBy: { position: "asc" } });
    expect(files.map((file) => [file.name, file.file.size])).toEqual([
      ["Überfahrt.bin", 5000],
      ["a.txt", 1],
    ]);
    const rows = await query<{ content: Buffer }>(house.em(), "select content from files where id = ?", [
      files[0]?.file.id,
    ]);
    expect(rows[0]?.content.equals(content)).toBe(true);
  });

  test("says clearly what it does not take", async () => {
    await expect(deliver({ from: "a@example.org", to: "nobody@example.com", text: "x" })).rejects.toThrow(
      /550 No mailbox nobody@example\.com here/,
    );
    await expect(
      deliver({ from: "a@example.org", to: "desk@example.com", text: "x".repeat(31 * 1024 * 1024) }),
    ).rejects.toThrow(/552/);
  });

  test("asks the sender to keep the message when the database is away", async () => {
    await query(house.em(), "alter table messages rename to messages_away");
    try {
      await expect(deliver({ from: "keep@example.org", to: "desk@example.com", text: "x" })).rejects.toThrow(
        /451 .*try again/,
      );
    } finally {
      await query(house.em(), "alter table messages_away rename to messages");
    }
    await deliver({ from: "keep@example.org", to: "desk@example.com", text: "x" });
    expect(await house.em().count(Message, { fromAddress: "keep@example.org" })).toBe(1);
  });
});
