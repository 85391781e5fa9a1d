import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { callBack } from "../answering/call-back";
import { readOpenCase } from "../answering/open";
import { readMarkdown } from "#core/formats/markdown";
import { saveDraft, type DraftInput } from "../answering/draft";
import { send } from "../answering/send";
import { AnswerTime, Calendar } from "../db/entities/calendars";
import { Case, CaseInState, JunkSender } from "../db/entities/cases";
import { CustomerAddress, Organisation } from "../db/entities/customers";
import { House } from "../db/entities/people";
import { query } from "../db/sql";
import { digestOf } from "../digest";
import { readMail } from "../reading/parse";
import { acceptMail } from "../receiving/accept";
import { testCase, testHouse, type TestHouse } from "../testing";
import { changeCase, changeSchema, undoChange, type Change } from "./changes";
import { whyDue } from "./due";
import { dueSoon } from "./soon";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

type Made = Awaited<ReturnType<typeof testCase>>;
let one: Made;
beforeEach(async () => {
  one = await testCase(house.em());
});

const at = (time: string) => new Date(`2026-11-25T${time}Z`);
const now = at("10:00:00");
const set = (number: number, asked: Change, when = now) =>
  changeCase(house.em(), house.bram, number, changeSchema.parse(asked), when);
const undo = (id: number, when: Date) => undoChange(house.em(), house.bram, id, when);
const caseOf = (number: number) => house.em().findOneOrFail(Case, { number });
const aside = (asideAs: "junk or fraud" | "nothing to answer", reason = "advertising"): Change => ({
  what: "state",
  state: "set aside",
  asideAs,
  reason,
});
const states = async (number: number) =>
  (await house.em().find(CaseInState, { case: { number } }, { orderBy: { id: "asc" } })).map(
    (row) => row.status,
  );

const yes: DraftInput = {
  version: 0,
  language: "en",
  subject: { from: "thread" },
  slips: [{ uid: "s1", versionId: null, language: "en", document: readMarkdown("Yes.").doc, values: {} }],
};

let mails = 0;
async function mail(from: string, { when = now, answers = "", subject = "hello" } = {}) {
  mails += 1;
  const raw = Buffer.from(
    [
      `From: ${from}`,
      ...["To: desk@example.com", `Subject: ${subject}`, `Message-ID: <state-${mails}@example.org>`],
      ...(answers === "" ? [] : [`In-Reply-To: ${answers}`]),
      ...["", `words ${mails}`, ""],
    ].join("\r\n"),
  );
  const read = await readMail({ raw, envelopeFrom: from, trusted: [] });
  return acceptMail(house.em(), read, { content: raw, sha256: digestOf(raw) }, ["desk@example.com"], when);
}

describe("a state that somebody sets", () => {
  test("stops the time, which goes on without the pause when the case is taken up again", async () => {
    await set(one.number, { what: "state", state: "waiting on the customer" });
    expect(await caseOf(one.number)).toMatchObject({ waitingSince: null, answerBy: null });
    await set(one.number, { what: "state", state: "open" }, at("10:30:00"));
    // Written at 09:00, four hours, and half an hour in which it was the customer's turn.
    expect(await caseOf(one.number)).toMatchObject({
      ...{ status: "open", waitingSince: at("09:00:00"), answerBy: at("13:30:00") },
    });
    expect(await states(one.number)).toEqual(["new", "waiting on the customer", "open"]);
  });

  test("waiting on a colleague, the time goes on", async () => {
    await set(one.number, { what: "state", state: "waiting on a colleague", reason: "asked the quay" });
    expect(await caseOf(one.number)).toMatchObject({
      ...{ status: "waiting on a colleague", answerBy: at("13:00:00"), stateReason: "asked the quay" },
    });
  });

  test("is undone exactly, from the record", async () => {
    const done = await set(one.number, aside("nothing to answer", "a thank-you"));
    expect(done.words).toBe(`set SF-${one.number} aside: nothing to answer (a thank-you)`);
    expect(await caseOf(one.number)).toMatchObject({ status: "set aside", asideAs: "nothing to answer" });
    const { history } = await readOpenCase(house.em(), house.bram, one.number, 0, now);
    expect(history[0]).toMatchObject({ what: done.words, undo: done.change });
    await undo(done.change, at("11:00:00"));
    expect(await caseOf(one.number)).toMatchObject({
      ...{ status: "new", asideAs: null, stateReason: null, answerBy: at("13:00:00") },
    });
  });

  test("is refused where it says too little, or nothing new", async () => {
    const wrong = (asked: Change) => expect(set(one.number, asked)).rejects;
    await wrong({ what: "state", state: "set aside" }).toThrow("as what");
    await wrong(aside("junk or fraud", " ")).toThrow("why");
    await set(one.number, { what: "state", state: "settled" });
    await wrong({ what: "state", state: "settled" }).toThrow("settled already");
    expect(changeSchema.safeParse({ what: "state", state: "new" }).success).toBe(false);
  });

  test("a settled case has no time; what nobody waits for has none when it is taken up", async () => {
    await set(one.number, { what: "state", state: "settled" });
    expect(await caseOf(one.number)).toMatchObject({ status: "settled", answerBy: null });
    await saveDraft(house.em(), house.bram, one.number, yes, now);
    const sent = await send(
      house.em(),
      house.bram,
      one.number,
      { version: 1, lastMessage: one.message },
      now,
    );
    expect(sent.ok).toBe(true);
    await set(one.number, { what: "state", state: "open" }, at("11:00:00"));
    expect(await caseOf(one.number)).toMatchObject({ status: "open", waitingSince: null, answerBy: null });
  });

  test("a letter that is called back leaves no pause behind", async () => {
    await saveDraft(house.em(), house.bram, one.number, yes, now);
    const sent = await send(
      house.em(),
      house.bram,
      one.number,
      { version: 1, lastMessage: one.message },
      now,
    );
    if (!sent.ok) throw new Error("not sent");
    await callBack(house.em(), house.bram, sent.message, at("10:00:05"));
    expect(await caseOf(one.number)).toMatchObject({ status: "open", answerBy: at("13:00:00") });
  });
});

describe("junk", () => {
  test("teaches its sender, whose next mail is set aside by itself, until it is taken up", async () => {
    await set(one.number, aside("junk or fraud"));
    const next = await mail(one.address.toUpperCase());
    expect(next.opened).toBe(true);
    expect(await caseOf(next.caseNumber)).toMatchObject({
      ...{ status: "set aside", asideAs: "junk or fraud", answerBy: null },
    });
    const { history } = await readOpenCase(house.em(), house.bram, next.caseNumber, 0, now);
    expect(history.map((entry) => entry.what)).toContain("set aside by itself: its sender is known for junk");
    await set(next.caseNumber, { what: "state", state: "open" });
    expect(await house.em().count(JunkSender, { address: one.address })).toBe(0);
    const last = await mail(one.address, { subject: "another matter" });
    expect(await caseOf(last.caseNumber)).toMatchObject({ status: "new" });
  });

  test("undone, teaches nothing; our own addresses are never learned", async () => {
    await house.em().nativeUpdate(Case, { number: one.number }, { status: "open" });
    const done = await set(one.number, aside("junk or fraud"));
    expect(await house.em().count(JunkSender, { address: one.address })).toBe(1);
    await undo(done.change, at("10:10:00"));
    expect(await house.em().count(JunkSender, { address: one.address })).toBe(0);
    const ours = await mail("desk@example.com");
    await set(ours.caseNumber, aside("junk or fraud"));
    expect(await house.em().count(JunkSender, { address: "desk@example.com" })).toBe(0);
  });

  test("taken up by mistake, is junk again when that is undone, and its sender too", async () => {
    await set(one.number, aside("junk or fraud"));
    const taken = await set(one.number, { what: "state", state: "open" });
    expect(await house.em().count(JunkSender, { address: one.address })).toBe(0);
    await undo(taken.change, at("10:10:00"));
    expect(await caseOf(one.number)).toMatchObject({ status: "set aside", asideAs: "junk or fraud" });
    expect(await house.em().count(JunkSender, { address: one.address })).toBe(1);
  });

  test("that a forwarder brought teaches nothing: the forwarder writes for many", async () => {
    const [made] = await query<{ id: number }>(
      house.em(),
      `insert into forwarders (name, mailbox_id, sender, example, marks, rules)
       select 'Market', id, '@market.example.com', '', '[]', '{}' from mailboxes limit 1 returning id`,
    );
    await query(house.em(), "update cases set forwarder_id = ? where id = ?", [made?.id, one.id]);
    await set(one.number, aside("junk or fraud"));
    expect(await house.em().count(JunkSender, { address: one.address })).toBe(0);
  });

  test("nothing to answer teaches nothing", async () => {
    await set(one.number, aside("nothing to answer"));
    expect(await house.em().count(JunkSender, { address: one.address })).toBe(0);
  });
});

describe("whose a case is", () => {
  test("is set, tells so, and is undone", async () => {
    const done = await set(one.number, { what: "assign", to: house.maren.id });
    expect(done.words).toBe(`gave SF-${one.number} to Maren Test`);
    const read = await caseOf(one.number);
    expect([read.status, read.assignee?.id]).toEqual(["open", house.maren.id]);
    await expect(set(one.number, { what: "assign", to: house.maren.id })).rejects.toThrow("already");
    await expect(set(one.number, { what: "assign", to: 999_999 })).rejects.toThrow("no such colleague");
    await undo(done.change, at("10:10:00"));
    expect((await caseOf(one.number)).assignee).toBeNull();
  });
});

describe("a settled case", () => {
  const days = (count: number) => new Date(now.getTime() + count * 86_400_000);

  test("opens again where its customer writes within the time, and is followed by a new one after it", async () => {
    await set(one.number, { what: "state", state: "settled" });
    const subject = `Re: boat (SF-${one.number})`;
    const soon = await mail(one.address, { when: days(29), subject });
    expect(soon).toMatchObject({ caseNumber: one.number, opened: false });
    expect(await caseOf(one.number)).toMatchObject({ status: "open", waitingSince: days(29) });
    await set(one.number, { what: "state", state: "settled" }, days(30));
    const late = await mail(one.address, { when: days(61), subject });
    expect(late.opened).toBe(true);
    const opened = await readOpenCase(house.em(), house.bram, late.caseNumber, 0, days(61));
    expect(opened.follows).toEqual({ number: one.number, label: `SF-${one.number}` });
    expect(await caseOf(one.number)).toMatchObject({ status: "settled" });
  });
});

describe("when answers are due", () => {
  beforeAll(async () => {
    const em = house.em();
    const office = em.create(Calendar, {
      name: "Office",
      timeZone: "Europe/London",
      hours: { mon: [["09:00", "17:00"]], wed: [["09:00", "17:00"]], thu: [["09:00", "17:00"]] },
      holidays: ["2026-11-26"],
      country: "GB",
      region: "ENG",
    });
    const times = { channels: ["email"], mailboxes: [], topics: [], standings: [], calendar: office };
    em.create(AnswerTime, {
      ...times,
      position: 1,
      standings: ["contract"],
      firstWithin: 30,
      nextWithin: 10,
    });
    em.create(AnswerTime, { ...times, position: 2, topics: ["fares"], firstWithin: 600, nextWithin: 60 });
    await em.flush();
  });
  afterAll(async () => {
    await house.em().nativeDelete(AnswerTime, {});
  });

  test("the first time that a case fits counts, over open hours, and the screen says why", async () => {
    await house.em().nativeUpdate(Case, { number: one.number }, { topic: "fares" });
    await set(one.number, { what: "state", state: "settled" });
    await set(one.number, { what: "state", state: "open" }, now);
    const subject = await caseOf(one.number);
    // Eight hours on Wednesday; Thursday is kept free, Friday to Sunday are closed.
    expect(subject.answerBy).toEqual(new Date("2026-11-30T11:00:00Z"));
    expect(await whyDue(house.em(), subject, now)).toEqual([
      "Wednesday, 25 November 2026: 09:00 to 17:00, 8 h",
      "Monday, 30 November 2026: 09:00 to 11:00, 2 h",
      "Thursday, 26 November 2026: closed, a holiday",
    ]);
  });

  test("a later answer has a time of its own, and so has a customer under contract", async () => {
    const em = house.em();
    const firm = em.create(Organisation, {
      name: "Firm",
      ...{ nameKey: "firm", kind: null, account: null, contractUntil: "2026-12-31" },
    });
    await em.flush();
    const { customer } = await em.findOneOrFail(
      CustomerAddress,
      { address: one.address },
      { populate: ["customer"] },
    );
    customer.organisation = firm;
    await em.flush();
    const subject = `Re: boat (SF-${one.number})`;
    await set(one.number, { what: "state", state: "settled" });
    await mail(one.address, { when: at("10:05:00"), subject });
    expect((await caseOf(one.number)).answerBy).toEqual(at("10:35:00"));
    await saveDraft(house.em(), house.bram, one.number, yes, at("10:06:00"));
    const open = await readOpenCase(house.em(), house.bram, one.number, 0, at("10:06:00"));
    const given = { version: 1, lastMessage: open.lastMessage };
    expect((await send(house.em(), house.bram, one.number, given, at("10:06:00"))).ok).toBe(true);
    await mail(one.address, { when: at("10:20:00"), subject });
    expect((await caseOf(one.number)).answerBy).toEqual(at("10:30:00"));
  });

  test("where no time fits, the team's counts over the hours of the house", async () => {
    const office = await house.em().findOneOrFail(Calendar, { name: "Office" });
    await house.em().nativeUpdate(House, { id: 1 }, { calendar: office });
    const given = await mail(one.address, { when: at("16:00:00"), subject: "something new" });
    expect((await caseOf(given.caseNumber)).answerBy).toEqual(new Date("2026-11-30T12:00:00Z"));
    await house.em().nativeUpdate(House, { id: 1 }, { calendar: null });
  });
});

test("cases of one’s own that are due within the next hours are told of, the soonest first", async () => {
  const em = house.em();
  const numbers = [];
  for (const due of ["12:00:00", "11:00:00", "09:00:00"]) {
    const { number } = await testCase(em);
    await query(em, "update cases set answer_by = ?, assignee_id = ? where number = ?", [
      at(due),
      house.maren.id,
      number,
    ]);
    numbers.push(number);
  }
  await query(em, "update cases set answer_by = ? where number = ?", [at("11:30:00"), one.number]);
  expect((await dueSoon(house.em(), house.maren, now)).map(({ number }) => number)).toEqual([
    numbers[1],
    numbers[0],
  ]);
});
