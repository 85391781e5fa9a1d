import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { readFolder } from "#core/formats/folder";
import { noticeSchema, stateWordsSchema, type NoticeInput } from "#core/forms/notice";
import { callBack } from "../answering/call-back";
import { saveDraft } from "../answering/draft";
import { readOpenCase } from "../answering/open";
import { send } from "../answering/send";
import { changeCase, undoChange } from "../cases/changes";
import { doneSchema, sayDone } from "../cases/done";
import { timeSpent } from "../cases/time-spent";
import { SentLetter } from "../db/entities/answering";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Notice } from "../db/entities/notices";
import { makePromise } from "../promises/promises";
import { houseRanker } from "../ranking/house-ranker";
import { caseRecord } from "../record/timeline";
import { importLibrary } from "../replies/import";
import { buildMime } from "../sending/mime";
import { testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { declineNotice, noticesOf } from "./of-case";
import { listNotices, orderNotices, removeNotice, saveNotice, saveStateWords } from "./notices";

let house: TestHouse;
const lead = () => ({ ...house.maren, role: "lead" as const });
const now = new Date("2026-11-25T10:00:00Z");
const minutes = (count: number) => new Date(now.getTime() + count * 60_000);

beforeAll(async () => {
  house = await testHouse();
  const em = house.em();
  const reply = (id: string, text: string) => ({
    path: `news/${id}.md`,
    text: `---\nid: ${id}\ntitle: ${id}\nchannels: [email]\n---\n${text}\n`,
  });
  const { library } = readFolder([
    { path: "library.yaml", text: "shelves:\n  - { id: news, name: News, mark: N }\n" },
    reply("moved-on", "Your case {$case.number} is {$case.state}."),
    reply("told-all", "{$case.done} By {$case.next_date :date length=long}: {$case.promised}."),
    reply("blanks", "{$blank.what}"),
  ]);
  await importLibrary(em, library, () => Promise.reject(new Error("no files")), new Date("2026-01-01"));
  await em.flush();
  await houseRanker(house.em()).ready();
});
afterAll(() => house.close());
beforeEach(async () => {
  await house.em().nativeDelete(Notice, {});
});

const keep = (changes: Partial<NoticeInput> = {}, id: number | null = null) =>
  saveNotice(house.em(), lead(), id, {
    ...{ reply: "moved-on", on: "state" as const, into: [], mailboxes: [], channels: [] },
    ...{ way: "queued" as const, minutes: 10, ...changes },
  });
const into = (number: number, state: "settled" | "waiting on a colleague" | "open", at = now) =>
  changeCase(house.em(), house.bram, number, { what: "state", state, asideAs: null, reason: "" }, at);
const given = <T>(one: T | undefined): T => {
  if (one === undefined) throw new Error("There is none");
  return one;
};
const waiting = (caseId: number) => noticesOf(house.em(), caseId);
const outOf = (caseId: number) =>
  house.em().find(Message, { case: caseId, direction: "out" }, { orderBy: { id: "asc" } });

describe("a notice that goes by itself", () => {
  test("is composed like a letter, on behalf of who changed the case, and goes after its minutes", async () => {
    await keep();
    const { number, id, address } = await testCase(house.em());
    const { notice } = await into(number, "settled");
    expect(notice).toMatchObject({ title: "moved-on", state: "queued", dueAt: minutes(10).toISOString() });
    const [message] = await outOf(id);
    expect(message).toMatchObject({
      ...{ kind: "notice", state: "due", toAddress: address, fromName: "Bram Test, Desk" },
      text: expect.stringContaining(`Your case SF-${number} is closed.`),
    });
    expect(message?.text).toMatch(/^Hello Ana,/);
    expect(message?.text).toContain("Safe travels,");
    const letter = await house.em().findOneOrFail(SentLetter, { message: message?.id ?? 0 });
    expect(letter.proof?.map((run) => run.text).join("")).toBe(message?.text);
    expect(letter.gap).toBe(false);
    const mime = (await buildMime(house.em(), given(message))).toString();
    expect(mime).toContain("Auto-Submitted: auto-generated");
    expect(mime).toMatch(/^In-Reply-To: /m);
    expect(await waiting(id)).toMatchObject([{ state: "queued", message: message?.id, who: "Bram Test" }]);
  });

  test("leaves the case as it was changed: it answers nobody, and takes nobody's time", async () => {
    await keep();
    const { number, id, message } = await testCase(house.em());
    await into(number, "waiting on a colleague");
    const subject = await house.em().findOneOrFail(Case, { number });
    expect(subject).toMatchObject({ status: "waiting on a colleague", assignee: null });
    expect(subject.waitingSince).not.toBeNull();
    expect(await timeSpent(house.em(), id)).toEqual([]);
    const open = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(open.letters).toBe(0);
    // A colleague who read the case before it went may answer all the same.
    const slip = { uid: "a", versionId: null, language: "en", values: {} };
    const document = {
      type: "doc" as const,
      content: [
        {
          type: "paragraph" as const,
          attrs: { passages: [] },
          content: [{ type: "text" as const, text: "Yes." }],
        },
      ],
    };
    const draft = { version: 0, language: "en", subject: { from: "thread" as const } };
    await saveDraft(house.em(), house.maren, number, { ...draft, slips: [{ ...slip, document }] }, now);
    expect(
      await send(house.em(), house.maren, number, { version: 1, lastMessage: message }, now),
    ).toMatchObject({ ok: true });
  });

  test("is called back by whoever sees it, and is offered then", async () => {
    await keep();
    const { number, id } = await testCase(house.em());
    const { notice } = await into(number, "settled");
    expect(await callBack(house.em(), house.maren, notice?.message ?? 0, minutes(5))).toBe(number);
    expect(await outOf(id)).toMatchObject([{ state: "called back" }]);
    expect(await waiting(id)).toMatchObject([{ state: "offered", message: null }]);
    expect(await house.em().findOneOrFail(Case, { number })).toMatchObject({ status: "settled" });
    const { entries } = await caseRecord(house.em(), house.bram, number);
    expect(entries).toContainEqual(expect.objectContaining({ what: "called the notice “moved-on” back" }));
  });

  test("is not called back once it is too late", async () => {
    await keep();
    const { number } = await testCase(house.em());
    const { notice } = await into(number, "settled");
    await expect(callBack(house.em(), house.maren, notice?.message ?? 0, minutes(11))).rejects.toThrow(
      "too late",
    );
  });

  test("is taken back with the change that is undone, and by the next one of its kind", async () => {
    await keep();
    const { number, id } = await testCase(house.em());
    const first = await into(number, "waiting on a colleague");
    await into(number, "settled", minutes(1));
    expect((await outOf(id)).map(({ state }) => state)).toEqual(["called back", "due"]);
    const third = await into(number, "open", minutes(2));
    await undoChange(house.em(), house.bram, third.change, minutes(3));
    expect((await outOf(id)).map(({ state }) => state)).toEqual([
      "called back",
      "called back",
      "called back",
    ]);
    expect(await waiting(id)).toEqual([]);
    expect(first.notice?.state).toBe("queued");
  });

  test("that has left is not taken back with its change", async () => {
    await keep();
    const { number, id } = await testCase(house.em());
    const { change } = await into(number, "settled");
    await undoChange(house.em(), house.bram, change, minutes(20));
    expect(await outOf(id)).toMatchObject([{ state: "due" }]);
  });

  test.each([
    ["told-all", /case|done/i],
    ["blanks", /what/i],
  ])("is held with the reason where %s cannot be filled", async (reply, why) => {
    await keep({ reply });
    const { number, id } = await testCase(house.em());
    const { notice } = await into(number, "settled");
    expect(notice).toMatchObject({ state: "held", message: null });
    expect(notice?.why).toMatch(why);
    expect(await outOf(id)).toEqual([]);
    expect(await waiting(id)).toMatchObject([{ state: "held", why: notice?.why }]);
    const { entries } = await caseRecord(house.em(), house.bram, number);
    expect(entries).toContainEqual(
      expect.objectContaining({ what: `the notice “${reply}” did not go by itself: ${notice?.why}` }),
    );
  });

  test("goes to nobody who sent junk", async () => {
    await keep();
    const { number, id } = await testCase(house.em());
    const aside = { what: "state" as const, state: "set aside" as const, asideAs: "junk or fraud" as const };
    const { notice } = await changeCase(house.em(), house.bram, number, { ...aside, reason: "spam" }, now);
    expect(notice).toBeNull();
    expect(await outOf(id)).toEqual([]);
  });
});

describe("a notice that is offered", () => {
  test("waits on the case until it is declined", async () => {
    await keep({ way: "offered" });
    const { number, id } = await testCase(house.em());
    expect((await into(number, "settled")).notice).toMatchObject({ state: "offered", message: null });
    const [notice] = await waiting(id);
    expect(notice).toMatchObject({ on: "state", reply: "moved-on", who: "Bram Test" });
    const open = await readOpenCase(house.em(), house.maren, number, 0, now);
    expect(open.notices).toHaveLength(1);
    expect(open.noticeReplies).toMatchObject([{ key: "moved-on", language: "en" }]);
    await declineNotice(house.em(), house.maren, notice?.id ?? 0, now);
    expect(await waiting(id)).toEqual([]);
    await expect(declineNotice(house.em(), house.maren, notice?.id ?? 0, now)).rejects.toThrow(
      "Somebody saw to that notice already",
    );
    await expect(declineNotice(house.em(), house.maren, 999_999, now)).rejects.toThrow("no such notice");
  });

  test("is seen to by a letter that says it, and waits again where that is called back", async () => {
    await keep({ way: "offered" });
    const { number, id, message } = await testCase(house.em());
    await into(number, "waiting on a colleague");
    const open = await readOpenCase(house.em(), house.bram, number, 0, now);
    const document = given(open.noticeReplies[0]).document;
    const slip = {
      uid: "a",
      versionId: await testVersion(house.em(), "moved-on"),
      language: "en",
      values: {},
    };
    const draft = { version: 0, language: "en", subject: { from: "thread" as const } };
    await saveDraft(house.em(), house.bram, number, { ...draft, slips: [{ ...slip, document }] }, now);
    const sent = await send(house.em(), house.bram, number, { version: 1, lastMessage: message }, now);
    expect(await waiting(id)).toEqual([]);
    await callBack(house.em(), house.bram, sent.ok ? sent.message : 0, now);
    expect(await waiting(id)).toMatchObject([{ state: "offered" }]);
  });
});

describe("what a notice is for", () => {
  test("is its change, and its state or topic", async () => {
    await keep({ way: "offered", into: ["open"] });
    await keep({ way: "offered", on: "topic", into: ["refund"] });
    const { number, id } = await testCase(house.em());
    expect((await into(number, "settled")).notice).toBeNull();
    const topic = (to: string) =>
      changeCase(house.em(), house.bram, number, { what: "topic", topic: to }, now);
    expect((await topic("freight")).notice).toBeNull();
    expect((await topic("refund")).notice).toMatchObject({ state: "offered" });
    expect(await waiting(id)).toHaveLength(1);
  });

  test("is an owner that a case comes to, not that it is nobody's", async () => {
    await keep({ way: "offered", on: "owner" });
    const { number } = await testCase(house.em());
    const give = (to: number | null) =>
      changeCase(house.em(), house.bram, number, { what: "assign", to, team: null, note: "" }, now);
    expect((await give(house.maren.id)).notice).toMatchObject({ state: "offered" });
    expect((await give(null)).notice).toBeNull();
  });

  test("is a promise, whose words and day it says with what was done", async () => {
    await keep({ on: "promise", reply: "told-all" });
    const { number, id } = await testCase(house.em());
    await sayDone(house.em(), house.bram, number, { words: "We asked the harbour." }, now);
    const promise = { words: "a new pass", by: "2026-12-01" };
    const { notice } = await makePromise(house.em(), house.bram, number, promise, now);
    expect(notice).toMatchObject({ state: "queued" });
    expect((await outOf(id))[0]?.text).toContain("We asked the harbour. By December 1, 2026: a new pass.");
  });
});

describe("what was done", () => {
  test("is said, said otherwise and taken away, each on the record once", async () => {
    const { number } = await testCase(house.em());
    for (const words of ["We looked.", "We looked.", ""])
      await sayDone(house.em(), house.bram, number, { words }, now);
    const { entries } = await caseRecord(house.em(), house.bram, number);
    expect(entries.flatMap((one) => ("what" in one && one.kind === "notice" ? [one.what] : []))).toEqual([
      "said what was done: “We looked.”",
      "took away what was said to be done",
    ]);
    await expect(sayDone(house.em(), house.bram, 1, { words: "x" }, now)).rejects.toThrow("no case");
    expect(doneSchema.safeParse({ words: "x".repeat(301) }).success).toBe(false);
  });
});

describe("setting notices", () => {
  test("is for leads alone", async () => {
    const refused = "This is for a lead";
    await expect(listNotices(house.em(), house.maren)).rejects.toThrow(refused);
    await expect(saveStateWords(house.em(), house.maren, noWords)).rejects.toThrow(refused);
    await expect(removeNotice(house.em(), house.bram, 1)).rejects.toThrow(refused);
    await expect(orderNotices(house.em(), house.bram, [1])).rejects.toThrow(refused);
    await expect(saveNotice(house.em(), house.bram, null, input)).rejects.toThrow(refused);
  });

  test("keeps, changes, orders and takes out", async () => {
    const one = await keep({ into: ["settled", "settled"], minutes: 5 });
    const two = await keep({ on: "owner", into: ["settled"] });
    await orderNotices(house.em(), lead(), [two, one]);
    await keep({ reply: "told-all", way: "offered" }, one);
    const listed = await listNotices(house.em(), lead());
    expect(listed.notices).toMatchObject([
      { id: two, on: "owner", into: [], idle: null },
      { id: one, reply: "told-all", way: "offered", into: [] },
    ]);
    await removeNotice(house.em(), lead(), two);
    await expect(removeNotice(house.em(), lead(), two)).rejects.toThrow("no such notice");
    await expect(keep({}, two)).rejects.toThrow("no such notice");
  });

  test("refuses a reply that is no answer on the shelf, and a mailbox that there is not", async () => {
    await expect(keep({ reply: "hello" })).rejects.toThrow("Choose an answer");
    await expect(keep({ reply: "nowhere" })).rejects.toThrow("Choose an answer");
    await expect(keep({ mailboxes: [9999] })).rejects.toThrow("no such mailbox");
    for (const bad of [{ minutes: 0 }, { minutes: 1441 }, { minutes: 2.5 }, { reply: "" }, { on: "x" }])
      expect(noticeSchema.safeParse({ ...input, ...bad }).success).toBe(false);
  });

  test("names states as the house calls them, from the next letter on", async () => {
    await keep();
    await saveStateWords(house.em(), lead(), { ...noWords, settled: { en: "all done", de: "" } });
    const { number, id } = await testCase(house.em());
    await into(number, "settled");
    expect((await outOf(id))[0]?.text).toContain("is all done.");
    expect((await listNotices(house.em(), lead())).stateWords).toEqual({ settled: { en: "all done" } });
    await saveStateWords(house.em(), lead(), noWords);
    expect((await listNotices(house.em(), lead())).stateWords).toEqual({});
  });
});

const input: NoticeInput = {
  ...{ reply: "moved-on", on: "state", into: [], mailboxes: [], channels: [], way: "queued", minutes: 10 },
};
const none = {};
const noWords = stateWordsSchema.parse({
  ...{ new: none, open: none, settled: none, "set aside": none },
  ...{ "waiting on the customer": none, "waiting on a colleague": none },
});
