import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import getPort from "get-port";
import { once } from "node:events";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer as createHttpServer } from "node:http";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createTransport, type SendMailOptions } from "nodemailer";
import { SMTPServer } from "smtp-server";
import { noFaults, type Faults } from "./faults";
import { startStandins } from "./start";

const folder = mkdtempSync(join(tmpdir(), "outside-"));
/** What the program's own receiver was given. */
const received: { from: string; to: string[]; raw: string }[] = [];
let refuses = false;
const program = new SMTPServer({
  disabledCommands: ["AUTH", "STARTTLS"],
  logger: false,
  onData(stream, session, callback) {
    let raw = "";
    stream.setEncoding("utf8");
    stream.on("data", (chunk: string) => (raw += chunk));
    stream.once("end", () => {
      if (refuses) return callback(new Error("No such mailbox here"));
      const from = session.envelope.mailFrom;
      received.push({
        from: from === false ? "" : from.address,
        to: session.envelope.rcptTo.map((one) => one.address),
        raw,
      });
      callback(null, "Taken in");
    });
  },
});

/** What the gateway brought to the program, and how that answers. */
const brought: { path: string; token: string; body: Record<string, unknown> }[] = [];
let programAnswers = 200;
const gatewayed = { url: "", token: "the-token-of-both" };
const web = createHttpServer((request, response) => {
  let text = "";
  request.on("data", (chunk: Buffer) => (text += chunk.toString()));
  request.on("end", () => {
    const body = JSON.parse(text) as Record<string, unknown>;
    brought.push({ path: request.url ?? "", token: request.headers.authorization ?? "", body });
    response.writeHead(programAnswers, { "Content-Type": "application/json" });
    response.end(JSON.stringify(programAnswers === 200 ? {} : { problem: "No number of ours" }));
  });
});

let [base, smtpPort, httpPort] = ["", 0, 0];
let stop: () => Promise<void>;

async function start(): Promise<void> {
  const address = program.server.address();
  if (address === null || typeof address === "string") throw new Error("No port");
  stop = await startStandins({
    httpPort,
    smtpPort,
    programSmtpPort: address.port,
    program: gatewayed,
    folder,
  });
}

beforeAll(async () => {
  program.listen(0, "127.0.0.1");
  await once(program.server, "listening");
  web.listen(0, "127.0.0.1");
  await once(web, "listening");
  const ours = web.address();
  if (ours !== null && typeof ours === "object") gatewayed.url = `http://127.0.0.1:${ours.port}`;
  [httpPort, smtpPort] = [await getPort({ host: "127.0.0.1" }), await getPort({ host: "127.0.0.1" })];
  base = `http://127.0.0.1:${httpPort}`;
  await start();
});
afterAll(async () => {
  await stop();
  await new Promise<void>((done) => program.close(() => done()));
  web.close();
  rmSync(folder, { recursive: true });
});
beforeEach(async () => {
  refuses = false;
  await put(noFaults);
});

function put(faults: Partial<Faults>): Promise<Response> {
  return fetch(`${base}/faults`, {
    method: "PUT",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ ...noFaults, bookingDelay: 0, ...faults }),
  });
}

async function json<T>(path: string): Promise<T> {
  return (await (await fetch(`${base}${path}`)).json()) as T;
}

async function deliver(message: SendMailOptions): Promise<string> {
  const transport = createTransport({ host: "127.0.0.1", port: smtpPort, ignoreTLS: true });
  try {
    return (await transport.sendMail({ from: "desk@example.com", ...message })).response;
  } finally {
    transport.close();
  }
}

interface Listed {
  id: string;
  subject: string;
  from: string;
  to: string[];
}

describe("a mailbox outside", () => {
  test("holds what was delivered, the latest first, whatever the case of its address", async () => {
    await deliver({ to: "Ines@example.org", subject: "first", text: "one" });
    await deliver({ to: ["ines@example.org", "otto@example.net"], subject: "second", text: "two" });
    const list = await json<Listed[]>("/mailboxes/INES@example.org");
    expect(list.map(({ subject }) => subject)).toEqual(["second", "first"]);
    expect(list[0]).toMatchObject({ from: "desk@example.com", to: ["ines@example.org", "otto@example.net"] });
    const addresses = await json<{ address: string; messages: number }[]>("/mailboxes");
    expect(addresses).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ address: "ines@example.org", messages: 2 }),
        expect.objectContaining({ address: "otto@example.net", messages: 1 }),
      ]),
    );
    expect(await json("/mailboxes/nobody@example.org")).toEqual([]);
  });

  test("opens a message as a reader shows it: soft line ends joined, files by name, headers as they came", async () => {
    await deliver({
      to: "flow@example.org",
      subject: "Grüße",
      raw: [
        "From: desk@example.com",
        "To: flow@example.org",
        "Subject: =?utf-8?q?Gr=C3=BC=C3=9Fe?=",
        "Content-Type: text/plain; charset=utf-8; format=flowed",
        "",
        "The ship sails ",
        "at nine.",
        "",
      ].join("\r\n"),
    });
    const [flowed] = await json<Listed[]>("/mailboxes/flow@example.org");
    expect(flowed?.subject).toBe("Grüße");
    expect(await json(`/messages/${flowed?.id}`)).toMatchObject({
      text: "The ship sails at nine.",
      html: null,
      attachments: [],
    });
    await deliver({
      to: "files@example.org",
      subject: "papers",
      html: "<p>Here</p>",
      attachments: [{ filename: "map.txt", content: "north is up" }],
    });
    const [withFile] = await json<Listed[]>("/mailboxes/files@example.org");
    const opened = await json<{
      html: string;
      headers: { name: string; value: string }[];
      attachments: object[];
    }>(`/messages/${withFile?.id}`);
    expect(opened.html).toContain("<p>Here</p>");
    expect(opened.attachments).toEqual([
      { name: "map.txt", contentType: "text/plain", size: 11, contentId: null },
    ]);
    expect(opened.headers).toContainEqual({ name: "subject", value: "papers" });
    const file = await fetch(`${base}/messages/${withFile?.id}/attachments/0`);
    expect([await file.text(), file.headers.get("content-disposition")]).toEqual([
      "north is up",
      "attachment; filename=map.txt",
    ]);
    const raw = await (await fetch(`${base}/messages/${withFile?.id}/raw`)).text();
    expect(raw).toMatch(/^From: desk@example\.com\r\n/m);
  });

  test("has no message or file that was not delivered, and none outside its folder", async () => {
    const [known] = await json<Listed[]>("/mailboxes/files@example.org");
    for (const path of [
      "/messages/none",
      "/messages/none/raw",
      "/messages/..%2F..%2Fbookings/raw",
      `/messages/${known?.id}/attachments/7`,
      `/messages/${known?.id}/attachments/x`,
      "/messages/none/attachments/0",
    ])
      expect({ path, status: (await fetch(`${base}${path}`)).status }).toEqual({ path, status: 404 });
  });

  test("is there again after the outside was started anew", async () => {
    await stop();
    await start();
    const list = await json<Listed[]>("/mailboxes/ines@example.org");
    expect(list.map(({ subject }) => subject)).toEqual(["second", "first"]);
  });
});

describe("faults", () => {
  test("a busy mail server asks to come again, one that refuses says that nobody is there", async () => {
    await put({ mail: "busy" });
    await expect(deliver({ to: "late@example.org", subject: "s", text: "t" })).rejects.toMatchObject({
      responseCode: 451,
    });
    await put({ mail: "refuses" });
    await expect(deliver({ to: "late@example.org", subject: "s", text: "t" })).rejects.toMatchObject({
      responseCode: 550,
    });
    expect(await json("/mailboxes/late@example.org")).toEqual([]);
  });

  test("may be for one address alone", async () => {
    await put({ mail: "refuses", only: "Late@example.org" });
    await put({ mail: "busy", only: "busy@example.org" });
    await expect(deliver({ to: "late@example.org", subject: "s", text: "t" })).rejects.toThrow("550");
    await expect(deliver({ to: "busy@example.org", subject: "s", text: "t" })).rejects.toThrow("451");
    expect(await deliver({ to: "other@example.org", subject: "s", text: "t" })).toMatch(/Kept as/);
    await put({ only: "late@example.org" });
    await put({ only: "busy@example.org" });
    expect(await deliver({ to: "late@example.org", subject: "s", text: "t" })).toMatch(/Kept as/);
  });

  test("a server that is down takes nothing from anybody", async () => {
    await put({ mail: "down" });
    await expect(deliver({ to: "late@example.org", subject: "s", text: "t" })).rejects.toThrow("421");
    await put({});
    expect(await deliver({ to: "late@example.org", subject: "s", text: "t" })).toMatch(/Kept as/);
  });

  test("one that returns mail takes it, and reports to its envelope's sender that it was given up", async () => {
    await put({ mail: "bounces", only: "gone@example.org" });
    const before = received.length;
    const id = "<letter-1@example.com>";
    const envelope = { from: "desk+l1@example.com", to: ["gone@example.org", "there@example.org"] };
    await deliver({ envelope, to: envelope.to, messageId: id, subject: "s", text: "t" });
    expect(await json("/mailboxes/gone@example.org")).toEqual([]);
    expect(await json("/mailboxes/there@example.org")).toHaveLength(1);
    while (received.length === before) await new Promise((resolve) => setImmediate(resolve));
    const report = received.at(-1);
    expect(report).toMatchObject({ from: "", to: ["desk+l1@example.com"] });
    expect(report?.raw).toContain("Final-Recipient: rfc822; gone@example.org");
    expect(report?.raw).toContain(`Message-ID: ${id}`);
    await put({ only: "gone@example.org" });
  });

  test.each([{ mail: "lost" }, { bookingDelay: -1 }, { bookingDelay: 60_001 }, { more: 1 }])(
    "%j is refused, and changes nothing",
    async (faults) => {
      const answer = await put(faults as Partial<Faults>);
      expect(answer.status).toBe(400);
      expect(((await answer.json()) as { problem: string }).problem).not.toBe("");
      expect(await json("/faults")).toEqual(noFaults);
    },
  );
});

describe("the booking system", () => {
  test("knows what its file has, and no more", async () => {
    writeFileSync(join(folder, "bookings.json"), JSON.stringify({ "AB1-CD2": { ship: "Kittiwake" } }));
    expect(await json("/bookings/AB1-CD2")).toEqual({ ship: "Kittiwake" });
    for (const reference of ["ZZ9-ZZ9", "constructor", "__proto__"])
      expect((await fetch(`${base}/bookings/${reference}`)).status).toBe(404);
  });

  test("may be broken for one booking alone", async () => {
    await put({ bookings: "broken", only: "AB1-CD2" });
    expect((await fetch(`${base}/bookings/AB1-CD2`)).status).toBe(500);
    expect((await fetch(`${base}/bookings/ZZ9-ZZ9`)).status).toBe(404);
    await put({ bookings: "wrong", only: "AB1-CD2" });
    expect(await json("/bookings/AB1-CD2")).not.toHaveProperty("ship");
    await put({ only: "AB1-CD2" });
    expect(await json("/bookings/AB1-CD2")).toHaveProperty("ship");
  });
});

describe("the gateway for short messages", () => {
  const from = "+447700900460";
  const hand = (body: object, token = gatewayed.token) =>
    fetch(`${base}/sms/messages`, {
      method: "POST",
      headers: { "Content-Type": "application/json", Authorization: `Bearer ${token}` },
      body: JSON.stringify(body),
    });
  const receiptOf = async (id: string) => {
    for (;;) {
      const found = brought.find((one) => one.path === "/sms/receipts" && one.body.id === id);
      if (found) return found;
      await new Promise((resolve) => setImmediate(resolve));
    }
  };

  test("takes a message once, puts it on the phone and says so", async () => {
    const message = { id: "sms-1", from, to: "+447700900461", text: "Gate 2" };
    expect((await hand(message)).status).toBe(202);
    expect((await hand(message)).status).toBe(202);
    expect(await receiptOf("sms-1")).toMatchObject({
      token: "Bearer the-token-of-both",
      body: { id: "sms-1", state: "delivered" },
    });
    expect(await json("/phones/%2B447700900461")).toEqual([
      expect.objectContaining({ other: from, text: "Gate 2", written: false }),
    ]);
    expect(await json("/phones")).toEqual([
      expect.objectContaining({ number: "+447700900461", messages: 1 }),
    ]);
  });

  test("fails, refuses, is down or wants another token, each with its words", async () => {
    const message = { id: "sms-2", from, to: "+447700900462", text: "x" };
    expect((await hand(message, "wrong")).status).toBe(401);
    expect((await hand({ ...message, to: "desk" })).status).toBe(400);
    await put({ sms: "refuses" });
    expect((await hand(message)).status).toBe(422);
    await put({});
    await put({ sms: "down", only: "+447700900462" });
    expect((await hand(message)).status).toBe(503);
    expect((await hand({ ...message, id: "sms-3", to: "+447700900463" })).status).toBe(202);
    await put({ only: "+447700900462" });
    await put({ sms: "fails" });
    expect((await hand(message)).status).toBe(202);
    expect((await receiptOf("sms-2")).body).toMatchObject({
      state: "failed",
      problem: expect.stringMatching(/not reachable/) as unknown,
    });
    expect(await json("/phones/%2B447700900462")).toEqual([]);
  });

  test("hands in what a phone writes, and tells the phone where it is not taken", async () => {
    const write = (text: string) =>
      fetch(`${base}/phones/%2B447700900464/messages`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify({ to: from, text }),
      });
    expect((await write("is it sailing")).status).toBe(200);
    expect(brought.at(-1)).toMatchObject({
      path: "/sms/messages",
      body: { from: "+447700900464", to: from, text: "is it sailing" },
    });
    programAnswers = 404;
    const refused = await write("again");
    expect([refused.status, await refused.json()]).toEqual([502, { problem: "No number of ours" }]);
    programAnswers = 200;
    expect((await write("")).status).toBe(400);
    expect(await json("/phones/%2B447700900464")).toHaveLength(1);
  });
});

describe("a customer writes", () => {
  const write = (address: string, letter: object) =>
    fetch(`${base}/mailboxes/${encodeURIComponent(address)}/messages`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(letter),
    });

  test("and the program's receiver gets it, as an answer where it is one", async () => {
    received.length = 0;
    const answer = await write("ines@example.org", {
      fromName: "Inês, Duarte",
      to: "desk@example.com",
      subject: "Re: second",
      text: "Thank you",
      inReplyTo: "<a@example.com>",
      references: "<b@example.com> <a@example.com>",
    });
    expect([answer.status, (await answer.json()) as object]).toEqual([
      200,
      expect.objectContaining({ answer: expect.stringContaining("Taken in") as unknown }),
    ]);
    expect(received).toEqual([
      expect.objectContaining({ from: "ines@example.org", to: ["desk@example.com"] }),
    ]);
    expect(received[0]?.raw).toContain("In-Reply-To: <a@example.com>");
    expect(received[0]?.raw).toContain("References: <b@example.com> <a@example.com>");
  });

  test("what the receiver refuses is told in its words", async () => {
    refuses = true;
    const answer = await write("ines@example.org", { to: "desk@example.com", subject: "s", text: "t" });
    expect(answer.status).toBe(502);
    expect(((await answer.json()) as { problem: string }).problem).toContain("No such mailbox here");
  });

  test.each([
    ["nobody", { to: "desk@example.com", subject: "s", text: "t" }],
    ["ines@example.org", { to: "desk", subject: "s", text: "t" }],
    ["ines@example.org", { to: "desk@example.com", subject: "s", text: "" }],
    ["ines@example.org", { to: "desk@example.com", subject: "s", text: "t", cc: "x" }],
  ])("from %s, %j cannot be sent", async (address, letter) => {
    received.length = 0;
    expect((await write(address, letter)).status).toBe(400);
    expect(received).toEqual([]);
  });
});

test("a port that is taken stops the start with an error", async () => {
  const taken = createServer().listen(0, "127.0.0.1");
  await once(taken, "listening");
  const address = taken.address();
  if (address === null || typeof address === "string") throw new Error("No port");
  const other = mkdtempSync(join(tmpdir(), "outside-"));
  await expect(
    startStandins({
      httpPort: address.port,
      smtpPort: await getPort({ host: "127.0.0.1" }),
      programSmtpPort: 1,
      program: gatewayed,
      folder: other,
    }),
  ).rejects.toThrow(/EADDRINUSE/);
  taken.close();
  rmSync(other, { recursive: true });
});
