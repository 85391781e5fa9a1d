import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { callBack } from "../answering/call-back";
import { forwardMessage } from "../answering/forward";
import { readOpenCase } from "../answering/open";
import { Attachment, Draft } from "../db/entities/answering";
import { Case } from "../db/entities/cases";
import { Customer, CustomerAddress } from "../db/entities/customers";
import { Message } from "../db/entities/messages";
import { storeFile } from "../files/store";
import { acceptMail } from "../receiving/accept";
import { readMail } from "../reading/parse";
import { testCase, testHouse, type TestHouse } from "../testing";
import { beginCase } from "./begin";
import { changeCase, changeSchema, joinedInto, undoChange, type Change } from "./changes";
import { findCases } from "./find";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const later = new Date("2026-11-25T11:00:00Z");
type Made = Awaited<ReturnType<typeof testCase>>;
let one: Made;
let two: Made;
beforeEach(async () => {
  one = await testCase(house.em());
  two = await testCase(house.em());
});

const change = (number: number, asked: Change, at = now) =>
  changeCase(house.em(), house.bram, number, changeSchema.parse(asked), at);
const undo = (id: number, at = later) => undoChange(house.em(), house.bram, id, at);
const caseOf = (number: number) =>
  house.em().findOneOrFail(Case, { number }, { populate: ["customer", "joinedTo"] });
const read = (number: number) => readOpenCase(house.em(), house.bram, number, 0, later);
const wordsOn = async (number: number) => (await read(number)).messages.map((said) => said.id);

/** How a case stands, as a screen tells it. */
async function standing(number: number) {
  const { status, waitingSince, answerBy, customer, joinedTo } = await caseOf(number);
  return {
    ...{ status, waitingSince, answerBy, customer: customer.id, joinedTo: joinedTo?.number ?? null },
    messages: await wordsOn(number),
  };
}

/** Another message on a case. @returns its id */
async function say(
  { id, address }: Made,
  at: Date,
  more: Partial<Pick<Message, "direction" | "state" | "text" | "kind">> = {},
): Promise<number> {
  const em = house.em();
  const message = em.create(Message, {
    case: em.getReference(Case, id),
    ...{ direction: "in", channel: "email", state: "received", fromName: null, fromAddress: address },
    ...{ toAddress: "desk@example.com", subject: "boat", text: "and my car?", html: null, at, ...more },
  });
  await em.flush();
  return message.id;
}

/** Puts a file to a message. */
async function attach(message: number, name: string): Promise<void> {
  await house.em().transactional(async (em) => {
    const file = await storeFile(em, Buffer.from(name));
    const given = { message: em.getReference(Message, message), file, name, contentType: "text/plain" };
    em.create(Attachment, { ...given, contentId: null });
  });
}

describe("joining", () => {
  test("the other's messages come here in order of time, it leads here, and undoing puts both back", async () => {
    const more = await say(two, new Date("2026-11-25T08:00:00Z"));
    const before = [await standing(one.number), await standing(two.number)];
    const done = await change(one.number, { what: "join", other: two.number });
    expect(done).toMatchObject({
      number: one.number,
      words: `joined SF-${two.number} to SF-${one.number}`,
    });
    expect(await wordsOn(one.number)).toEqual([more, one.message, two.message]);
    expect(await standing(one.number)).toMatchObject({
      waitingSince: new Date("2026-11-25T08:00:00Z"),
      answerBy: new Date("2026-11-25T12:00:00Z"),
    });
    expect(await standing(two.number)).toMatchObject({
      status: "settled",
      joinedTo: one.number,
      messages: [],
    });
    expect(await joinedInto(house.em(), two.number)).toBe(one.number);
    expect((await read(one.number)).history[0]).toMatchObject({
      who: "Bram Test",
      what: done.words,
      undo: done.change,
    });
    expect(await undo(done.change)).toEqual({ number: two.number });
    expect([await standing(one.number), await standing(two.number)]).toEqual(before);
    expect((await read(one.number)).history.map((entry) => entry.undo)).toEqual([null, null]);
    await expect(undo(done.change)).rejects.toThrow("undone already");
  });

  test("what came since stays where it came, and the case stands as its messages say", async () => {
    const { change: id } = await change(one.number, { what: "join", other: two.number });
    const since = await say(one, later);
    await change(one.number, {
      what: "move message",
      message: since,
      to: (await testCase(house.em())).number,
    });
    await undo(id);
    expect(await standing(one.number)).toMatchObject({ status: "new", messages: [one.message] });
    expect(await wordsOn(two.number)).toEqual([two.message]);
  });

  test("mail that names a joined case's number comes to the one that it was joined to", async () => {
    await change(one.number, { what: "join", other: two.number });
    const raw = Buffer.from(
      `From: ${two.address}\r\nTo: desk@example.com\r\nSubject: about SF-${two.number}\r\n\r\nhello`,
    );
    const mail = await readMail({ raw, envelopeFrom: null, trusted: [] });
    expect(await acceptMail(house.em(), mail, null, ["desk@example.com"], later)).toMatchObject({
      caseNumber: one.number,
    });
  });

  test("an answer that was begun goes along, unless its writer has begun one there", async () => {
    const em = house.em();
    const begin = (made: Made, person: number) =>
      em.create(Draft, {
        ...{ case: em.getReference(Case, made.id), person, language: "en", subject: { from: "thread" } },
      } as never);
    begin(two, house.bram.id);
    begin(two, house.maren.id);
    begin(one, house.maren.id);
    await em.flush();
    await change(one.number, { what: "join", other: two.number });
    expect(await house.em().count(Draft, { case: one.id })).toBe(2);
    expect(await house.em().count(Draft, { case: two.id, person: house.maren.id })).toBe(1);
  });

  test("refused: itself, nobody, one that was joined already, one that a letter is leaving from", async () => {
    await expect(change(one.number, { what: "join", other: one.number })).rejects.toThrow("name another one");
    await expect(change(one.number, { what: "join", other: 1 })).rejects.toThrow("no case 1");
    await say(two, now, { direction: "out", state: "due" });
    await expect(change(one.number, { what: "join", other: two.number })).rejects.toThrow("is leaving");
    const three = await testCase(house.em());
    await change(one.number, { what: "join", other: three.number });
    await expect(change(three.number, { what: "join", other: two.number })).rejects.toThrow("look there");
  });
});

describe("splitting and moving", () => {
  test("from a message on, the words are a case of their own; undone, it is closed and the words are back", async () => {
    const ours = await say(one, new Date("2026-11-25T09:30:00Z"), { direction: "out", state: "sent" });
    const car = await say(one, new Date("2026-11-25T09:40:00Z"));
    const last = await say(one, new Date("2026-11-25T09:50:00Z"));
    const before = await standing(one.number);
    const done = await change(one.number, { what: "split", message: car });
    expect(await standing(done.number)).toMatchObject({
      ...{ status: "new", messages: [car, last], customer: before.customer },
      waitingSince: new Date("2026-11-25T09:40:00Z"),
    });
    expect(await standing(one.number)).toMatchObject({
      ...{ status: "waiting on the customer", waitingSince: null, messages: [one.message, ours] },
    });
    expect(await undo(done.change)).toEqual({ number: one.number });
    expect(await standing(one.number)).toEqual(before);
    expect(await standing(done.number)).toMatchObject({ status: "settled", messages: [] });
    await expect(change(one.number, { what: "split", message: one.message })).rejects.toThrow(
      "first message",
    );
    await expect(change(one.number, { what: "split", message: two.message })).rejects.toThrow(
      "not on this case",
    );
  });

  test("one message goes to another case, with its files, and back", async () => {
    const car = await say(one, later);
    await attach(car, "claim.txt");
    const before = [await standing(one.number), await standing(two.number)];
    const done = await change(one.number, { what: "move message", message: car, to: two.number });
    expect((await read(two.number)).messages.at(-1)?.files).toMatchObject([{ name: "claim.txt" }]);
    expect(await wordsOn(one.number)).toEqual([one.message]);
    await undo(done.change);
    expect([await standing(one.number), await standing(two.number)]).toEqual(before);
    await expect(
      change(two.number, { what: "move message", message: two.message, to: one.number }),
    ).rejects.toThrow("join the case instead");
  });

  test("a case goes to another customer, known or new, and back", async () => {
    const { customer } = await caseOf(one.number);
    const other = (await caseOf(two.number)).customer;
    const done = await change(one.number, { what: "move", address: two.address.toUpperCase() });
    expect((await read(one.number)).customer).toMatchObject({ id: other.id });
    expect((await read(one.number)).recipients.find(({ address }) => address === one.address)).toMatchObject({
      is: "new",
    });
    const again = await change(one.number, { what: "move", address: "nobody.knows@example.net" });
    expect((await caseOf(one.number)).customer.displayName).toBe("nobody.knows@example.net");
    await expect(undo(done.change)).rejects.toThrow("moved again since");
    await undo(again.change);
    await undo(done.change);
    expect((await caseOf(one.number)).customer.id).toBe(customer.id);
    await expect(change(one.number, { what: "move", address: one.address })).rejects.toThrow("already");
    await expect(change(one.number, { what: "move", address: "desk@example.com" })).rejects.toThrow(
      "of ours",
    );
  });

  test("a message that went on is not fetched back from where it is not", async () => {
    const car = await say(one, later);
    const three = await testCase(house.em());
    const done = await change(one.number, { what: "move message", message: car, to: two.number });
    await change(two.number, { what: "move message", message: car, to: three.number });
    await expect(undo(done.change)).rejects.toThrow("went on to another case");
    expect(await wordsOn(three.number)).toContain(car);
  });
});

test("cases are found by number, subject and customer; untyped, the same customer's", async () => {
  const found = async (text: string) =>
    (await findCases(house.em(), one.number, text)).map(({ number }) => number);
  expect(await found(`SF-${two.number}`)).toEqual([two.number]);
  expect(await found("")).toEqual([]);
  const { number } = await beginCase(
    house.em(),
    house.bram,
    { address: one.address, subject: "Your cabin key" },
    now,
  );
  expect(await found("")).toEqual([number]);
  expect(await found("cabin k")).toContain(number);
});

describe("a mail that nobody asked for", () => {
  test("is a case of the writer's team that waits for nobody until it is sent", async () => {
    const { number } = await beginCase(
      house.em(),
      house.bram,
      { address: "found.glove@example.net", subject: "Your glove" },
      now,
    );
    expect(await read(number)).toMatchObject({
      ...{ subject: "Your glove", status: "set aside", answerBy: null, messages: [] },
      recipient: "found.glove@example.net",
      history: [{ who: "Bram Test", what: "wrote to the customer" }],
    });
    const owner = { address: "found.glove@example.net", channel: "email" as const };
    expect(await house.em().count(CustomerAddress, owner)).toBe(1);
    expect(await house.em().count(Customer, { displayName: "found.glove@example.net" })).toBe(1);
    await expect(
      beginCase(house.em(), house.bram, { address: "desk@example.com", subject: "x" }, now),
    ).rejects.toThrow("mailbox of ours");
  });
});

describe("forwarding", () => {
  const forward = (to: string, confirmed = false, withFiles = true) =>
    forwardMessage(
      house.em(),
      house.bram,
      one.message,
      { to, words: "Please look.", withFiles, confirmed },
      now,
    );

  test("to a colleague it goes at once, with who wrote what when; the case waits as it did", async () => {
    const before = await standing(one.number);
    const gone = await forward("maren@example.com");
    if (!gone.ok) throw new Error(gone.ask);
    const letter = await house.em().findOneOrFail(Message, { id: gone.message });
    expect(letter).toMatchObject({ kind: "forwarded", toAddress: "maren@example.com", html: null });
    expect(letter.subject).toMatch(/^Fwd: boat/);
    expect(letter.text).toContain(`Please look.\n\n-- Forwarded message --\nFrom: Ana`);
    expect(letter.text).toMatch(/Date: 25 November 2026 at 09:00\n.*\n\ndo i get my money back$/s);
    expect(await standing(one.number)).toEqual({ ...before, messages: [one.message, gone.message] });
    expect(await callBack(house.em(), house.bram, gone.message, now)).toBe(one.number);
    expect(await standing(one.number)).toEqual(before);
    await expect(callBack(house.em(), house.bram, gone.message, now)).rejects.toThrow("too late");
  });

  test("somebody new is asked about first; a mailbox of ours is refused; files go only where wanted", async () => {
    await attach(one.message, "t.txt");
    expect(await forward("assessor@example.net")).toEqual({
      ok: false,
      ask: expect.stringContaining("assessor@example.net is new on this case"),
    });
    await expect(forward("desk@example.com")).rejects.toThrow("mailbox of ours");
    const filesOf = async (withFiles: boolean) => {
      const gone = await forward("assessor@example.net", true, withFiles);
      return house.em().count(Attachment, { message: gone.ok ? gone.message : 0 });
    };
    expect([await filesOf(true), await filesOf(false)]).toEqual([1, 0]);
  });
});
