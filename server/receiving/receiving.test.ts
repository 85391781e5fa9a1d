import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { createTransport } from "nodemailer";
import type { SMTPServer } from "smtp-server";
import { Case, Message } from "../db/entities/cases";
import { Attachment } from "../db/entities/answering";
import { query } from "../db/sql";
import { bookingReferenceIn } from "../details/bookings";
import { messageRaw } from "../cases/conversation";
import { testCase, testHouse, type TestHouse } from "../testing";
import { acceptMail } from "./accept";
import { listenForMail } from "./listen";
import { parseMail } from "./parse";

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

async function receive(given: Given = {}, at = now) {
  const message = raw(given);
  const mail = await parseMail(message);
  if (!mail) throw new Error("no sender");
  return acceptMail(house.em(), mail, message, ["desk@example.com"], at);
}

describe("reading", () => {
  test("charsets, encoded words and addresses come out right", async () => {
    const mail = await parseMail(
      Buffer.concat([
        Buffer.from(
          "From: =?utf-8?B?5p2O5bCP6b6N?= <li@example.org>\r\nReply-To: other@example.org\r\nSubject: =?iso-8859-1?q?caf=E9?= =?utf-8?q?_=F0=9F=9A=A2?=\r\nContent-Type: text/plain; charset=windows-1252\r\nContent-Transfer-Encoding: 8bit\r\n\r\n",
        ),
        Buffer.from("50 \x80 f\xfcr Gr\xfc\xdfe", "latin1"),
      ]),
    );
    expect(mail).toMatchObject({
      from: { address: "other@example.org" },
      subject: "café 🚢",
      text: "50 € für Grüße",
    });
  });

  test("HTML alone is told as text; flowed text is joined again; the language is told where it can be", async () => {
    const html = await parseMail(
      raw({
        headers: ["Content-Type: text/html; charset=utf-8"],
        body: "<p>Hello <b>you</b></p><ul><li>one</li></ul><script>x</script>",
      }),
    );
    expect(html?.text).toContain("Hello you");
    expect(html?.text).not.toContain("x</script>");
    const flowing = await parseMail(
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

  test("a booking reference is found among other words", () => {
    expect(bookingReferenceIn("my ref is QW7-K2M, thanks")).toBe("QW7-K2M");
    expect(bookingReferenceIn("call 020-794 or ABC-DEF or 123-456")).toBeNull();
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
      status: "waiting for us",
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
    expect(await receive({ from: two.address, subject: "something else" })).toMatchObject({ caseId: two.id });
    await query(house.em(), "update cases set status = 'closed' where id = ?", [two.id]);
    expect(await receive({ from: two.address, subject: "something else" })).toMatchObject({ opened: true });
  });

  test("a stranger who guesses a case's number does not get into it", async () => {
    const { number, id } = await testCase(house.em());
    const guess = await receive({ from: "stranger@example.net", subject: `SF-${number}` });
    expect(guess).toMatchObject({ opened: true });
    expect(guess.caseId).not.toBe(id);
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
  const PORT = 20_000 + (process.pid % 20_000);
  let server: SMTPServer;
  beforeAll(async () => {
    server = await listenForMail(PORT, "127.0.0.1");
  });
  afterAll(() => new Promise<void>((resolve) => server.close(() => resolve())));
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
      deliver({ envelope: { from: "a@example.org", to: "desk@example.com" }, raw: "Subject: x\r\n\r\nx" }),
    ).rejects.toThrow(/554 .*no sender/);
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
