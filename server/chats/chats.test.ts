import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { createServer, type Server } from "node:http";
import { WebSocket } from "ws";
import express from "express";
import { readMarkdown } from "#core/formats/markdown";
import { ChatLine, type LineState, type Reaching } from "#core/chat/line";
import { readOpenCase } from "../answering/open";
import { Chat } from "../db/entities/chats";
import { Case, CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Customer, CustomerAddress } from "../db/entities/customers";
import { Person } from "../db/entities/people";
import { closeHub, onEvent, openHub } from "../events/hub";
import { eventually, testHouse, testVersion, type TestHouse } from "../testing";
import { deliver } from "../sending/deliver";
import {
  atDesk,
  endAtDesk,
  handOver,
  readAtDesk,
  readDesk,
  sayAtDesk,
  takeAtMost,
  typingAtDesk,
} from "./desk";
import { isAnybodyThere, openDoor } from "./door";
import { endSilent } from "./end";
import { chatEndpoints } from "./endpoints";
import { piecesAfter } from "./pieces";
import { chatSockets } from "./socket";
import { beginChat, chatOf, chatState, endInWindow, sayInWindow, tellRead } from "./window";

const now = new Date("2026-11-25T10:00:00Z");
const after = (seconds: number) => new Date(now.getTime() + seconds * 1000);

let house: TestHouse;
let server: Server;
let base = "";
let letGo = (): void => undefined;

beforeAll(async () => {
  house = await testHouse();
  await openHub(house.database.url);
  const app = express();
  app.use(
    "/chat",
    chatEndpoints(() => house.em()),
  );
  server = createServer(app);
  letGo = chatSockets(server, () => house.em());
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const address = server.address();
  base = `127.0.0.1:${address !== null && typeof address === "object" ? address.port : 0}`;
});
afterAll(async () => {
  letGo();
  server.closeAllConnections();
  await new Promise<void>((resolve) => server.close(() => resolve()));
  await closeHub();
  await house.close();
});
beforeEach(async () => {
  await house.em().nativeUpdate(Chat, {}, { state: "ended", endedAt: now });
  await house.em().nativeUpdate(Person, {}, { chatLimit: 0, chatSeenAt: null });
});

const begin = (text = "can I still take my bike", more: { email?: string; name?: string } = {}, at = now) =>
  beginChat(house.em(), { name: "Jo Lind", email: "", text, page: "", language: "en", ...more }, at);
const own = (text: string) => [
  { uid: "s", versionId: null, language: "en", document: readMarkdown(text).doc, values: {} },
];
let keys = 0;
const say = (number: number, text: string, viewer = house.bram) =>
  sayAtDesk(house.em(), viewer, number, { key: `k${++keys}`, language: "en", slips: own(text) }, now);
async function talking(
  more: { email?: string } = {},
): Promise<{ token: string; chat: number; number: number }> {
  await takeAtMost(house.em(), house.bram, 3, now);
  const begun = await begin("can I still take my bike", more);
  const chat = await house.em().findOneOrFail(Chat, { id: begun.chat }, { populate: ["case"] });
  return { ...begun, number: chat.case.number };
}
const texts = async (chat: number) => (await piecesAfter(house.em(), chat, 0)).map((one) => one.text);
const caseOf = (number: number) =>
  house.em().findOneOrFail(Case, { number }, { populate: ["customer", "assignee"] });

describe("at the door", () => {
  test("nobody is there until somebody takes chats and has them open", async () => {
    expect(await isAnybodyThere(house.em(), now)).toBe(false);
    await takeAtMost(house.em(), house.bram, 1, now);
    expect(await isAnybodyThere(house.em(), now)).toBe(true);
    expect(await isAnybodyThere(house.em(), after(60))).toBe(false);
    await expect(takeAtMost(house.em(), house.bram, 9, now)).rejects.toThrow(/0 to 8/);
  });

  test("whoever waits longest comes to whom of us has the fewest, and no more than they take", async () => {
    const first = await begin("one");
    const second = await begin("two", {}, after(1));
    const third = await begin("three", {}, after(2));
    expect((await chatState(house.em(), second.chat)).place).toBe(2);
    await takeAtMost(house.em(), house.bram, 1, after(3));
    await takeAtMost(house.em(), house.maren, 1, after(3));
    const states = await Promise.all([first, second, third].map(({ chat }) => chatState(house.em(), chat)));
    expect(states.map((one) => [one.state, one.with, one.place])).toEqual([
      ["open", "Bram", null],
      ["open", "Maren", null],
      ["waiting", null, 1],
    ]);
    await endInWindow(house.em(), first.chat, after(4));
    expect(await chatState(house.em(), third.chat)).toMatchObject({ state: "open", with: "Bram" });
  });

  test("nobody is told of a row that is as it was; all who wait are, when one before them leaves", async () => {
    const told: number[] = [];
    const stop = onEvent(({ kind, chat }) => {
      if (kind === "chat" && chat?.what === "state") told.push(chat.id);
    });
    const heard = (id: number) =>
      eventually(
        () => Promise.resolve(told),
        (ids) => ids.includes(id),
      );
    const first = await begin("one");
    const second = await begin("two", {}, after(1));
    await heard(second.chat);
    told.length = 0;
    expect(await openDoor(house.em(), after(2))).toBe(0);
    await endInWindow(house.em(), first.chat, after(3));
    await heard(second.chat);
    stop();
    expect(told).toEqual([first.chat, second.chat]);
    expect((await chatState(house.em(), second.chat)).place).toBe(1);
  });

  test("a chat whose agent is gone is handed over with what was said, before all others", async () => {
    const { chat, number } = await talking();
    await say(number, "Yes, it is luggage.");
    const later = after(120);
    await begin("somebody else", {}, after(60));
    await takeAtMost(house.em(), house.maren, 1, later);
    expect(await chatState(house.em(), chat)).toMatchObject({ state: "open", with: "Maren" });
    const [only] = (await readDesk(house.em(), house.maren, later)).chats;
    expect(only?.chat).toMatchObject({ number, handedOver: true });
    expect(only?.chat.pieces.map((one) => one.text)).toEqual([
      "can I still take my bike",
      "Yes, it is luggage.",
    ]);
    await expect(say(number, "still me")).rejects.toThrow(/Maren Test’s now/);
  });
});

describe("a talk", () => {
  test("is a case of a customer of its own, whatever they say of themselves", async () => {
    const { number, chat } = await talking({ email: "ana1@example.org" });
    const subject = await caseOf(number);
    expect(subject).toMatchObject({
      channel: "chat",
      status: "new",
      subject: "can I still take my bike",
      assignee: { id: house.bram.id },
      customer: { displayName: "Jo Lind", firstName: "Jo", lastName: "Lind" },
    });
    expect(await house.em().count(CustomerAddress, { channel: "email", customer: subject.customer })).toBe(0);
    expect(await texts(chat)).toEqual(["can I still take my bike"]);
  });

  test("keeps pieces in one row for both sides, each once, and is answered by whom it is with", async () => {
    const { number, chat } = await talking();
    expect(await sayInWindow(house.em(), chat, { key: "a", text: "hello?" }, now)).toBe(2);
    expect(await sayInWindow(house.em(), chat, { key: "a", text: "hello?" }, now)).toBe(2);
    const answer = { key: "b", language: "en", slips: own("Here, **Jo**.") };
    expect(await sayAtDesk(house.em(), house.bram, number, answer, now)).toEqual({ ok: true, piece: 3 });
    expect(await sayAtDesk(house.em(), house.bram, number, answer, now)).toEqual({ ok: true, piece: 3 });
    expect(await texts(chat)).toEqual(["can I still take my bike", "hello?", "Here, Jo."]);
    expect(await caseOf(number)).toMatchObject({ status: "waiting on the customer" });
    await expect(say(number, "mine?", house.maren)).rejects.toThrow(/Bram Test’s now/);
    const sent = await house.em().findOneOrFail(Message, { chat, piece: 3 });
    expect(sent).toMatchObject({ state: "sent", html: null, subject: "" });
    expect(await deliver(house.em(), sent.id, false, () => after(60))).toBe("nothing to do");
  });

  test("many say at once has no gap and nothing twice", async () => {
    const { number, chat } = await talking();
    await Promise.all(
      Array.from({ length: 12 }, (_, at) =>
        at % 3 === 0
          ? say(number, `ours ${at}`)
          : sayInWindow(house.em(), chat, { key: `w${at}`, text: `theirs ${at}` }, now),
      ),
    );
    const pieces = await piecesAfter(house.em(), chat, 0);
    expect(pieces.map((one) => one.n)).toEqual(Array.from({ length: 13 }, (_, at) => at + 1));
    expect(new Set(pieces.map((one) => one.text)).size).toBe(13);
  });

  test("takes a reply of the shelf with its blanks; what stops a letter stops a piece, and leaves nothing behind", async () => {
    const { number, chat } = await talking();
    const late = await testVersion(house.em(), "late");
    const { open } = (await readDesk(house.em(), house.bram, now)).chats[0] ?? {};
    expect(open?.signature).toBeNull();
    const slips = (values: Record<string, number>) => [
      {
        uid: "s",
        versionId: late,
        language: "en",
        document: readMarkdown("The ship is {$blank.hours :integer} hours late.").doc,
        values,
      },
    ];
    const ask = (key: string, values: Record<string, number>) =>
      sayAtDesk(house.em(), house.bram, number, { key, language: "en", slips: slips(values) }, now);
    expect(await ask("x", {})).toEqual({
      ok: false,
      problem: expect.stringMatching(/^Hours is empty/) as unknown,
    });
    expect((await readOpenCase(house.em(), house.bram, number, 0, now)).draft).toBeNull();
    expect(await ask("x", { hours: 2 })).toEqual({ ok: true, piece: 2 });
    expect((await texts(chat)).at(-1)).toBe("The ship is 2 hours late.");
  });

  test("says what has arrived and what was read, on both sides", async () => {
    const { number, chat, token } = await talking();
    await say(number, "Yes.");
    const window = await chatOf(house.em(), token);
    await tellRead(house.em(), window, { got: 2, read: 0 }, after(1));
    await tellRead(house.em(), window, { got: 1, read: 99 }, after(2));
    expect(await house.em().findOneOrFail(Message, { chat, piece: 2 })).toMatchObject({
      deliveredAt: after(1),
      readAt: after(2),
    });
    await readAtDesk(house.em(), house.bram, number, 1);
    await readAtDesk(house.em(), house.bram, number, 99);
    expect((await chatState(house.em(), chat)).readTo).toBe(1);
    await typingAtDesk(house.em(), house.bram, number);
  });

  test("is handed to a colleague who takes chats, on the record", async () => {
    const { number, chat } = await talking();
    await expect(handOver(house.em(), house.bram, number, house.maren.id, now)).rejects.toThrow(
      /takes no chats/,
    );
    await takeAtMost(house.em(), house.maren, 2, now);
    await handOver(house.em(), house.bram, number, house.maren.id, now);
    expect(await chatState(house.em(), chat)).toMatchObject({ with: "Maren" });
    expect(await house.em().count(CaseEvent, { case: { number }, kind: "handed over" })).toBe(1);
  });
});

describe("at its end", () => {
  test("the whole talk goes by mail, and what is still open is answered there", async () => {
    const { number, chat } = await talking({ email: "jo@example.org" });
    await say(number, "It is luggage.");
    await sayInWindow(house.em(), chat, { key: "z", text: "and if the ship is full?" }, now);
    await endAtDesk(house.em(), house.bram, number, after(5));
    await endAtDesk(house.em(), house.bram, number, after(6));
    const subject = await caseOf(number);
    expect(subject).toMatchObject({ status: "open", channel: "email" });
    const mails = await house.em().find(Message, { case: subject, channel: "email" });
    expect(mails).toHaveLength(1);
    expect(mails[0]).toMatchObject({ toAddress: "jo@example.org", state: "due" });
    expect(mails[0]?.text).toContain("Bram: It is luggage.\n10:00 AM Jo Lind: and if the ship is full?");
    expect(await chatState(house.em(), chat)).toMatchObject({ state: "ended", mailedTo: "jo@example.org" });
    const open = await readOpenCase(house.em(), house.bram, number, 0, now);
    expect(open.recipient).toBe("jo@example.org");
    await expect(sayInWindow(house.em(), chat, { key: "late", text: "x" }, now)).rejects.toThrow(/ended/);
    await expect(say(number, "late")).rejects.toThrow(/ended/);
  });

  test("a talk that was answered is closed; an address that another customer has stays theirs", async () => {
    await house.em().transactional((em) => {
      const customer = em.create(Customer, {
        displayName: "Ana",
        firstName: "Ana",
        lastName: null,
        nameKey: null,
        language: null,
        timeZone: null,
        phone: null,
        since: null,
        organisation: null,
      });
      em.create(CustomerAddress, { channel: "email", address: "theirs@example.org", customer });
    });
    const { number } = await talking({ email: "theirs@example.org" });
    const mine = (await readDesk(house.em(), house.bram, now)).chats.find(
      (one) => one.chat.number === number,
    );
    expect(mine?.chat).toMatchObject({ email: "theirs@example.org", emailOf: "Ana" });
    await say(number, "Yes.");
    await endAtDesk(house.em(), house.bram, number, after(5));
    const subject = await caseOf(number);
    expect(subject.status).toBe("settled");
    expect(subject.customer.displayName).toBe("Jo Lind");
    expect(await house.em().count(CustomerAddress, { customer: subject.customer, channel: "email" })).toBe(0);
    const open = await readOpenCase(house.em(), house.bram, number, 0, now);
    expect([open.recipient, open.recipients.map((one) => [one.address, one.is])]).toEqual([
      null,
      [["theirs@example.org", "new"]],
    ]);
  });

  test("a window that is gone for long ends it", async () => {
    const { chat } = await talking();
    expect(await endSilent(house.em(), after(60))).toBe(0);
    expect(await endSilent(house.em(), after(16 * 60))).toBe(1);
    expect((await house.em().findOneOrFail(Chat, { id: chat })).endedBy).toBe("silence");
    await atDesk(house.em(), house.bram, after(16 * 60));
    expect(await openDoor(house.em(), after(16 * 60))).toBe(0);
  });
});

/** The program as windows reach it: by connections that a test may cut, and by requests. */
function reaching(token: string, open: Set<WebSocket>, withSockets = true): Reaching {
  return {
    connect: withSockets
      ? ({ onOpen, onMessage, onClose }) => {
          const socket = new WebSocket(`ws://${base}/chat/socket`);
          open.add(socket);
          socket.on("open", onOpen);
          socket.on("message", (data: Buffer) => onMessage(data.toString()));
          socket.on("error", () => undefined);
          socket.on("close", (code) => {
            open.delete(socket);
            onClose(code);
          });
          return socket;
        }
      : null,
    async ask(path, init) {
      const response = await fetch(`http://${base}${path}`, {
        ...init,
        headers: { "Content-Type": "application/json", Authorization: `Bearer ${token}` },
      });
      return { status: response.status, body: await response.json() };
    },
    now: () => Date.now(),
    after(milliseconds, work) {
      const timer = setTimeout(work, milliseconds);
      return () => clearTimeout(timer);
    },
  };
}

/** Waits until a line is so. */
function reached(line: ChatLine, holds: (state: LineState) => boolean): Promise<void> {
  return new Promise((resolve) => {
    const look = () => {
      if (!holds(line.state)) return;
      stop();
      resolve();
    };
    const stop = line.listen(look);
    look();
  });
}

describe("a window", () => {
  test("loses and doubles nothing over 20 dropped connections among 500 pieces", async () => {
    const { token, chat, number } = await talking();
    await atDesk(house.em(), house.bram, new Date());
    const open = new Set<WebSocket>();
    const line = new ChatLine(token, reaching(token, open));
    line.start();
    let dropped = 0;
    for (let at = 0; at < 40; at += 1) {
      for (let more = at * 12; more < at * 12 + 11 + (at % 2); more += 1)
        line.say(`w${more}`, `theirs ${more}`);
      await say(number, `ours ${at}`);
      if (at % 2 === 1) {
        await reached(line, ({ isReached }) => isReached && open.size > 0);
        for (const socket of open) socket.terminate();
        dropped += 1;
      }
      // A hand types no faster than a window may say things.
      if (at % 8 === 7) await reached(line, ({ talk }) => talk.unsent.length === 0);
    }
    await reached(line, ({ talk }) => talk.pieces.length >= 501);
    line.stop();
    expect(dropped).toBe(20);
    const shown = line.state.talk.pieces.map((one) => one.text);
    expect(shown).toHaveLength(501);
    expect(new Set(shown).size).toBe(501);
    expect(line.state.talk.pieces.map((one) => one.n)).toEqual(shown.map((_, at) => at + 1));
    expect((await piecesAfter(house.em(), chat, 500)).map((one) => one.n)).toEqual([501]);
    for (const [side, length] of [
      ["ours", 40],
      ["theirs", 460],
    ] as const) {
      const said = shown
        .filter((text) => text.startsWith(`${side} `))
        .map((text) => Number(text.split(" ")[1]));
      expect(said).toHaveLength(length);
      expect(said).toEqual([...said].sort((a, b) => a - b));
    }
  }, 120_000);

  test("goes on by requests where no WebSocket can be had", async () => {
    const { token, number } = await talking();
    const line = new ChatLine(token, reaching(token, new Set(), false));
    line.start();
    line.say("r1", "by request");
    await reached(line, ({ talk }) => talk.pieces.length >= 2);
    await say(number, "Heard.");
    await reached(line, ({ talk }) => talk.pieces.length >= 3);
    expect(line.state.chat).toMatchObject({ state: "open", with: "Bram" });
    line.read();
    await line.end();
    await reached(line, ({ chat }) => chat?.state === "ended");
    line.say("r2", "too late");
    await reached(line, ({ talk }) => talk.unsent[0]?.problem != null);
    expect(line.state.talk.unsent).toMatchObject([
      { key: "r2", problem: expect.stringMatching(/ended/) as unknown },
    ]);
    line.stop();
  }, 60_000);

  test("is told what cannot be read, and that a token is nobody’s", async () => {
    const socket = new WebSocket(`ws://${base}/chat/socket`);
    const heard: string[] = [];
    const closed = new Promise<number>((resolve) => socket.on("close", resolve));
    socket.on("message", (data: Buffer) => heard.push(data.toString()));
    await new Promise((resolve) => socket.once("open", resolve));
    socket.send("{");
    socket.send(JSON.stringify({ t: "say", key: "a", text: "hello" }));
    socket.send(JSON.stringify({ t: "hello", token: "x".repeat(32), after: 0 }));
    expect(await closed).toBe(4404);
    expect(heard.map((text) => (JSON.parse(text) as { problem: string }).problem)).toEqual([
      "That cannot be read",
      "Say hello first",
      "There is no such chat",
    ]);
    const elsewhere = new WebSocket(`ws://${base}/chat/socket`, { origin: "https://other.example.net" });
    const refused = await new Promise<string>((resolve) =>
      elsewhere.once("error", (error) => resolve(error.message)),
    );
    expect(refused).toContain("403");
  });
});
