import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { simpleParser } from "mailparser";
import { SMTPServer } from "smtp-server";
import { readMarkdown } from "#core/formats/markdown";
import { uploadFile } from "../replies/uploads";
import { saveDraft } from "../answering/draft";
import { send } from "../answering/send";
import { Message } from "../db/entities/messages";
import { Person } from "../db/entities/people";
import { Conflict, NotAllowed } from "../errors";
import { readSteps } from "../house/steps";
import { choosePassword } from "../people/links";
import { invite, resetPassword } from "../staff/colleagues";
import { testCase, testHouse, type TestHouse } from "../testing";
import { query } from "../db/sql";
import { CLAIM, closeMailServer, deliver } from "./deliver";
import { noticeJob, sendNotice } from "./notice";
import { mailWays, sendTestLetter } from "./outgoing";
import { queueLostDeliveries, tryAgain } from "./schedule";

const PORT = 41_000 + (process.pid % 10_000);
let house: TestHouse;
let answer: { code: number; words: string } | null = null;
let received: Buffer[] = [];

const server = new SMTPServer({
  disabledCommands: ["AUTH", "STARTTLS"],
  onRcptTo(_address, _session, callback) {
    callback(answer ? Object.assign(new Error(answer.words), { responseCode: answer.code }) : null);
  },
  onData(stream, _session, callback) {
    const chunks: Buffer[] = [];
    stream.on("data", (chunk: Buffer) => chunks.push(chunk));
    stream.on("end", () => {
      received.push(Buffer.concat(chunks));
      callback();
    });
  },
});

beforeAll(async () => {
  process.env.SMTP_URL = `smtp://127.0.0.1:${PORT}`;
  house = await testHouse();
  await new Promise<void>((resolve) => server.listen(PORT, "127.0.0.1", resolve));
});
afterAll(async () => {
  closeMailServer();
  await new Promise<void>((resolve) => server.close(() => resolve()));
  await house.close();
});
beforeEach(() => {
  answer = null;
  received = [];
});

const now = new Date("2026-11-25T10:00:00Z");
const due = () => new Date("2026-11-25T10:00:11Z");

async function queued(words: string, withFile = false): Promise<{ id: number; number: number }> {
  const { number, message } = await testCase(house.em());
  const draft = {
    version: 0,
    language: "en",
    subject: { from: "thread" as const },
    slips: [{ uid: "s", versionId: null, language: "en", document: readMarkdown(words).doc, values: {} }],
  };
  const files: number[] = [];
  if (withFile) {
    const upload = { name: "Überfahrt.txt", type: "text/plain", content: Buffer.from("file") };
    files.push(Number((await uploadFile(house.em(), house.maren, upload, false)).id));
  }
  await saveDraft(house.em(), house.maren, number, { ...draft, files }, now);
  const sent = await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now);
  if (!sent.ok) throw new Error(JSON.stringify(sent.checks));
  return { id: sent.message, number };
}

const state = async (id: number) => house.em().findOneOrFail(Message, { id }, { populate: ["raw"] });

describe("delivery", () => {
  test("puts text, HTML, files and thread on the wire as the letter says", async () => {
    const { id } = await queued("Grüße, **Ana**. The form is attached.\n\n- one\n- two", true);
    expect(await deliver(house.em(), id, false, due)).toBe("sent");
    const raw = received[0] ?? Buffer.from("");
    const mail = await simpleParser(raw, { skipTextToHtml: true });
    expect(mail).toMatchObject({
      from: { value: [{ name: "Maren Test, Desk", address: "desk@example.com" }] },
      subject: expect.stringMatching(/^Re: boat \d+ \[SF-\d+\]$/),
    });
    expect(mail.text).toContain("Grüße, Ana. The form is attached.\n\n- one\n- two");
    expect(mail.html).toContain("<strong>Ana</strong>");
    expect(mail.attachments.map((file) => [file.filename, file.content.toString()])).toEqual([
      ["Überfahrt.txt", "file"],
    ]);
    expect(mail.inReplyTo).toMatch(/^<in-/);
    expect(raw.toString()).toMatch(/content-type: text\/plain;[^:]*format=flowed/i);
    const stored = await state(id);
    expect(stored).toMatchObject({ state: "sent", attempts: 1, messageId: mail.messageId });
    expect(stored.raw).not.toBeNull();
  });

  test("waits until it is due, and happens once however often it is asked for", async () => {
    const { id } = await queued("Yes.");
    expect(await deliver(house.em(), id, false, () => now)).toBe("nothing to do");
    expect(await deliver(house.em(), id, false, due)).toBe("sent");
    expect(await deliver(house.em(), id, false, due)).toBe("nothing to do");
    expect(received).toHaveLength(1);
  });

  test("asked for by several processes at once goes once; the others are told that it is under way", async () => {
    const { id } = await queued("Yes.");
    const outcomes = await Promise.all([1, 2, 3].map(() => deliver(house.em(), id, false, due)));
    expect(outcomes.filter((one) => one === "sent")).toHaveLength(1);
    expect(received).toHaveLength(1);
  });

  test("whose process was killed is queued again, one that is under way is not", async () => {
    const lost = await queued("Yes.");
    const held = await queued("No.");
    await query(house.em(), "update pgboss.job set state = 'active' where name = 'send'");
    const later = new Date(due().getTime() + 60_000);
    await house.em().transactional(async (em) => {
      await query(em, "select pg_try_advisory_xact_lock(?, ?)", [CLAIM, held.id]);
      expect(await queueLostDeliveries(house.em(), later, false)).toBe(0);
      await queueLostDeliveries(house.em(), later, true);
    });
    const jobs = await query<{ id: number }>(
      house.em(),
      "select (data->>'message')::int as id from pgboss.job where name = 'send' and state = 'created'",
    );
    expect(jobs.map((job) => job.id)).toContain(lost.id);
    expect(jobs.map((job) => job.id)).not.toContain(held.id);
  });

  test("that died on the way goes again under the same Message-ID", async () => {
    const { id } = await queued("Yes.");
    await house.em().nativeUpdate(Message, { id }, { state: "sending" });
    expect(await deliver(house.em(), id, false, due)).toBe("sent");
    expect((await simpleParser(received[0] ?? "")).messageId).toBe((await state(id)).messageId);
  });

  test("that is refused is kept with the server's words, and can be tried again", async () => {
    const { id } = await queued("Yes.");
    answer = { code: 550, words: "No such mailbox" };
    expect(await deliver(house.em(), id, false, due)).toBe("refused");
    expect(await state(id)).toMatchObject({
      state: "refused",
      refusal: expect.stringContaining("550 No such mailbox"),
    });
    answer = null;
    await tryAgain(house.em(), house.maren, id, due());
    await expect(tryAgain(house.em(), house.maren, id, due())).rejects.toThrow(Conflict);
    expect(await deliver(house.em(), id, false, due)).toBe("sent");
    expect((await state(id)).refusal).toBeNull();
  });

  test("that fails for now is due again; on the last try it counts as refused", async () => {
    const { id } = await queued("Yes.");
    answer = { code: 451, words: "Busy" };
    expect(await deliver(house.em(), id, false, due)).toBe("try later");
    expect(await state(id)).toMatchObject({
      state: "due",
      attempts: 1,
      refusal: expect.stringContaining("451 Busy"),
    });
    expect(await deliver(house.em(), id, true, due)).toBe("refused");
  });
});

describe("a letter of the program's own", () => {
  const lead = () => ({ ...house.maren, role: "lead" as const });
  const read = async () => simpleParser(received.at(-1) ?? Buffer.from(""));

  test("brings a colleague the link by which they choose a password, while it is good", async () => {
    const input = {
      ...{ name: "Ida Strand", firstName: "Ida", email: "ida@example.com", role: "agent" as const },
      team: house.maren.teamId,
    };
    const { link } = await invite(house.em(), lead(), input, "https://shelf.example.com", now);
    const [{ data } = { data: null }] = await query<{ data: unknown }>(
      house.em(),
      "select data from pgboss.job where name = 'notice'",
    );
    const job = noticeJob.parse(data);
    await sendNotice(house.em(), job, now);
    const mail = await read();
    expect(mail.text).toContain(link.url);
    expect(mail.text).toContain("Wednesday, 2 December 2026 at 10:00");
    expect(mail.subject).toBe("Your place at Test Ferries");
    expect(mail.headers.get("auto-submitted")).toBe("auto-generated");
    // One that is good no more is not sent.
    await sendNotice(house.em(), job, new Date("2026-12-09T10:00:00Z"));
    await choosePassword(
      house.em(),
      link.url.slice(link.url.lastIndexOf("/") + 1),
      "three kittiwakes",
      { browser: null, address: null },
      now,
    );
    await sendNotice(house.em(), job, now);
    expect(received).toHaveLength(1);
  });

  test("that is refused says so, and so is tried again", async () => {
    const [person] = await house.em().find(Person, { email: "bram@example.com" });
    if (!person) throw new Error("Bram is not there");
    const { url } = await resetPassword(house.em(), lead(), person.id, "https://shelf.example.com", now);
    const id = Number(/welcome\/(\d+)/.exec(url)?.[1]);
    answer = { code: 451, words: "not now" };
    await expect(
      sendNotice(house.em(), { link: id, base: "https://shelf.example.com" }, now),
    ).rejects.toThrow("not now");
    answer = null;
    await sendNotice(house.em(), { link: id, base: "https://shelf.example.com" }, now);
    expect((await read()).subject).toBe("Another password for Plain Shelf");
  });

  test("to try the mail with goes to the lead who asks, and tells the server's words where it is not taken", async () => {
    await expect(sendTestLetter(house.em(), house.bram, now)).rejects.toThrow(NotAllowed);
    answer = { code: 550, words: "no relaying here" };
    await expect(sendTestLetter(house.em(), lead(), now)).rejects.toThrow("no relaying here");
    const mailStep = async () => (await readSteps(house.em())).find((step) => step.name === "mail")?.state;
    expect(await mailStep()).toBe("open");
    answer = null;
    expect(await sendTestLetter(house.em(), lead(), now)).toBe("maren@example.com");
    expect((await read()).from?.text).toContain("desk@example.com");
    expect(await mailStep()).toBe("done");
  });

  test("has its ways told without what signs in there", async () => {
    await expect(mailWays(house.em(), house.bram)).rejects.toThrow(NotAllowed);
    const ways = await mailWays(house.em(), lead());
    expect(ways.out).toEqual({ host: "127.0.0.1", port: PORT, encrypted: "where it can" });
    expect(ways.in.addresses).toEqual([{ team: "Desk", address: "desk@example.com" }]);
    expect(ways.latest).not.toBeNull();
  });
});
