import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { saveDraft } from "../answering/draft";
import { readOpenCase } from "../answering/open";
import { send } from "../answering/send";
import { Case } from "../db/entities/cases";
import { AskedQuestion } from "../db/entities/changes";
import { Message } from "../db/entities/messages";
import { testCase, testHouse, type TestHouse } from "../testing";
import { askingHere, hashOfToken } from "./asking";
import { openQuestion, pressByLink } from "./press";
import { listQuestions, removeQuestion, saveQuestion } from "./questions";

process.env.PUBLIC_URL ||= "https://shelf.example.com";

let house: TestHouse;
const now = new Date("2026-11-25T10:00:00Z");
const later = new Date("2026-11-26T10:00:00Z");
const question = {
  ...{ key: "how", words: "How was it?", kind: "scale" as const, options: [], takesRemark: true, days: 30 },
  ...{ setsStatus: "waiting" as const, setsTopic: "praise" },
};

beforeAll(async () => {
  house = await testHouse();
  await saveQuestion(house.em(), house.maren, null, question);
});
afterAll(() => house.close());

let made: Awaited<ReturnType<typeof testCase>>;
let token: string;
/** A letter that asks was sent. */
beforeEach(async () => {
  made = await testCase(house.em());
  token = await askOn(made.number);
});

async function askOn(number: number): Promise<string> {
  const open = await readOpenCase(house.em(), house.bram, number, 0, now);
  const content = [
    {
      type: "paragraph" as const,
      attrs: { passages: [] },
      content: [{ type: "token" as const, attrs: { name: "ask.how", fn: null, options: {} } }],
    },
  ];
  const version = await saveDraft(
    house.em(),
    house.bram,
    number,
    {
      ...{ version: 0, language: "en", subject: { from: "thread" as const } },
      slips: [{ uid: "a", versionId: null, language: "en", document: { type: "doc", content }, values: {} }],
    },
    now,
  );
  const sent = await send(
    house.em(),
    house.bram,
    number,
    { version, lastMessage: open.lastMessage, seen: open.seen },
    now,
  );
  if (!sent.ok) throw new Error(sent.checks.map((check) => check.message).join());
  const { text, html } = await house.em().findOneOrFail(Message, { id: sent.message });
  const found = /https:\/\/shelf\.example\.com\/q\/([\w-]+\.[\w-]+)/.exec(text)?.[1] ?? "";
  expect(html).toContain(`/q/${found}`);
  return found;
}

const press = (answer: string, remark = "", at = later, by = token) =>
  pressByLink(house.em(), by, { answer, remark }, at);
const caseNow = () => house.em().findOneOrFail(Case, { id: made.id });

test("what is pressed comes back to the case as a message of its own kind, and is a token of the next letter", async () => {
  expect((await caseNow()).status).toBe("waiting on the customer");
  await press("4", "Good soup.");
  const open = await readOpenCase(house.em(), house.bram, made.number, 0, later);
  expect(open.messages.at(-1)).toMatchObject({
    ...{ kind: "pressed", direction: "in", written: "How was it? 4 of 5\n\nGood soup." },
  });
  expect(open).toMatchObject({ status: "open", topic: "praise" });
  expect(open.context.answer).toEqual({ how: 4 });
  expect(open.history[0]?.what).toBe("pressed an answer: 4 of 5");
  expect((await listQuestions(house.em(), house.maren))[0]?.answers).toContainEqual({
    words: "4 of 5",
    times: 1,
  });
});

test("looking, however often, changes nothing; once pressed it is pressed", async () => {
  const before = await house.em().findOneOrFail(AskedQuestion, { case: made.id });
  for (let times = 0; times < 5; times += 1)
    expect(await openQuestion(house.em(), token, later)).toMatchObject({
      ...{ words: "How was it?", answer: null, expired: false, house: "Test Ferries" },
    });
  expect(await house.em().findOneOrFail(AskedQuestion, { case: made.id })).toMatchObject({
    ...{ id: before.id, answeredAt: null, answer: null },
  });
  expect((await caseNow()).status).toBe("waiting on the customer");
  const both = await Promise.allSettled([press("5"), press("1")]);
  expect(both.map((one) => one.status).sort()).toEqual(["fulfilled", "rejected"]);
  await expect(press("2")).rejects.toThrow("answered already");
  expect(await house.em().count(Message, { case: made.id, kind: "pressed" })).toBe(1);
  expect((await openQuestion(house.em(), token, later)).answer).toMatch(/^[15] of 5$/);
});

test("no answer of it, and one that comes too late, change nothing", async () => {
  await expect(press("6")).rejects.toThrow("Choose one of the answers");
  await expect(press("5", "x".repeat(2001))).rejects.toThrow("too long");
  const expired = new Date("2026-12-26T10:00:00Z");
  await expect(press("5", "", expired)).rejects.toThrow("too late");
  expect(await openQuestion(house.em(), token, expired)).toMatchObject({ expired: true });
  expect(await house.em().count(Message, { case: made.id, kind: "pressed" })).toBe(0);
});

test("links are not guessed: another secret, another proof, half a link", async () => {
  const [secret = "", proof = ""] = token.split(".");
  const turned = `${secret.slice(0, -1)}${secret.endsWith("A") ? "B" : "A"}`;
  for (const wrong of [`${turned}.${proof}`, `${secret}.${"A".repeat(12)}`, secret, "", `${token}x`])
    await expect(openQuestion(house.em(), wrong, later)).rejects.toThrow("no such question");
  expect(hashOfToken(token)).toMatch(/^[0-9a-f]{64}$/);
  expect(token).not.toBe(await askOn((await testCase(house.em())).number));
});

test("a link before it is sent is as long as the one that goes, and leads nowhere", async () => {
  const ask = askingHere({ questions: [{ id: 1, ...question }] }, "sms");
  const link = ask.how as string;
  expect(link).toHaveLength(`https://shelf.example.com/q/${token}`.length);
  await expect(openQuestion(house.em(), link.split("/q/")[1] ?? "", later)).rejects.toThrow();
  expect(askingHere({ questions: [{ id: 1, ...question }] }, "chat")).toEqual({ how: true });
});

test("who may, and what stays once it was asked", async () => {
  await expect(saveQuestion(house.em(), house.bram, null, question)).rejects.toThrow("curator");
  await expect(saveQuestion(house.em(), house.maren, null, question)).rejects.toThrow("Another question");
  const [known] = await listQuestions(house.em(), house.maren);
  const change = (input: object) =>
    saveQuestion(house.em(), house.maren, known?.id ?? 0, { ...question, ...input });
  await change({ words: "How was your trip?" });
  await expect(change({ kind: "yes_no" })).rejects.toThrow("asked already");
  await change({});
  const other = await saveQuestion(house.em(), house.maren, null, {
    ...{ ...question, key: "which", kind: "choice", options: ["a", "a", "b"] },
  });
  await expect(removeQuestion(house.em(), house.bram, other)).rejects.toThrow("curator");
  await removeQuestion(house.em(), house.maren, other);
  await expect(removeQuestion(house.em(), house.maren, other)).rejects.toThrow("no such question");
});
