import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { createServer } from "node:http";
import express from "express";
import { readMarkdown } from "#core/formats/markdown";
import { saveDraft } from "../answering/draft";
import { readOpenCase } from "../answering/open";
import { send } from "../answering/send";
import { Case, CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Customer } from "../db/entities/customers";
import { Team } from "../db/entities/people";
import { Unusable } from "../errors";
import { deliver } from "../sending/deliver";
import { tryAgain } from "../sending/schedule";
import { removeNumber, saveNumber, shortMessageWays } from "../staff/numbers";
import { testHouse, type TestHouse } from "../testing";
import { beginningOf } from "../receiving/beginning";
import { acceptReceipt, acceptShortMessage } from "./receive";
import { smsEndpoints } from "./endpoints";

const now = new Date("2026-11-25T10:00:00Z");
const due = () => new Date("2026-11-25T10:00:11Z");
const OURS = "+447700900460";
const TOKEN = "a-token-of-sixteen-characters";

let house: TestHouse;
/** What the gateway was handed, and how it answers. */
let handed: { authorization: string; body: Record<string, unknown> }[] = [];
let answer: { status: number; body: object } = { status: 202, body: {} };
const gateway = createServer((request, response) => {
  let text = "";
  request.on("data", (chunk: Buffer) => (text += chunk.toString()));
  request.on("end", () => {
    const body = JSON.parse(text) as Record<string, unknown>;
    handed.push({ authorization: request.headers.authorization ?? "", body });
    response.writeHead(answer.status, { "Content-Type": "application/json" });
    response.end(JSON.stringify(answer.body));
  });
});

beforeAll(async () => {
  await new Promise<void>((resolve) => gateway.listen(0, "127.0.0.1", resolve));
  const address = gateway.address();
  const port = address !== null && typeof address === "object" ? address.port : 0;
  process.env.SMS_GATEWAY_URL = `http://127.0.0.1:${port}/v1/`;
  process.env.SMS_GATEWAY_TOKEN = TOKEN;
  house = await testHouse();
  const { id } = await house.em().findOneOrFail(Team, { name: "Desk" });
  await saveNumber(house.em(), lead(), null, { number: OURS, team: id });
});
afterAll(async () => {
  gateway.close();
  await house.close();
});
beforeEach(() => {
  handed = [];
  answer = { status: 202, body: {} };
});

const lead = () => ({ ...house.maren, role: "lead" as const });
let counted = 0;
const receive = (given: { from?: string; text?: string; id?: string; to?: string } = {}, at = now) => {
  counted += 1;
  return acceptShortMessage(
    house.em(),
    { id: `g${counted}`, from: "+447700900461", to: OURS, text: "is it sailing", ...given },
    at,
  );
};
const caseOf = (id: number) => house.em().findOneOrFail(Case, { id }, { populate: ["customer"] });
const message = (id: number) => house.em().findOneOrFail(Message, { id });

async function answered(words: string, from = "+447700900470"): Promise<{ id: number; caseId: number }> {
  const { caseNumber: number, caseId, messageId } = await receive({ from });
  const draft = {
    version: 0,
    language: "en",
    subject: { from: "thread" as const },
    slips: [{ uid: "s", versionId: null, language: "en", document: readMarkdown(words).doc, values: {} }],
    files: [],
  };
  await saveDraft(house.em(), house.maren, number, draft, now);
  const sent = await send(house.em(), house.maren, number, { version: 1, lastMessage: messageId }, now);
  if (!sent.ok) throw new Error(JSON.stringify(sent.checks));
  return { id: sent.message, caseId };
}

describe("what a phone writes", () => {
  test("opens a case of the team whose number it came to, under its first words, of a customer by that number", async () => {
    const opened = await receive({
      text: "is the 15:40 from Saltgarth going today? the wind is terrible here",
    });
    const subject = await caseOf(opened.caseId);
    expect(subject).toMatchObject({
      channel: "sms",
      subject: "is the 15:40 from Saltgarth going today? the wind is …",
      status: "new",
      customer: { displayName: "+44 7700 900461", phone: "+447700900461" },
    });
    expect(subject.answerBy?.getTime()).toBe(now.getTime() + 240 * 60_000);
  });

  test("joins the open case of its number with that team, once however often it is brought", async () => {
    const first = await receive({ from: "+447700900462" });
    const again = { from: "+447700900462", text: "hello??", id: "same" };
    const second = await receive(again);
    expect(second).toMatchObject({ caseId: first.caseId, opened: false });
    expect(await receive(again)).toMatchObject({ messageId: second.messageId });
    const settle = (at: Date) =>
      house.em().nativeUpdate(Case, { id: first.caseId }, { status: "settled", updatedAt: at });
    await settle(now);
    expect(await receive({ from: "+447700900462" })).toMatchObject({ opened: false });
    // Settled long ago, it is followed by a case of its own.
    await settle(new Date(now.getTime() - 31 * 24 * 60 * 60_000));
    const last = await receive({ from: "+447700900462" });
    expect(last.opened).toBe(true);
    expect((await caseOf(last.caseId)).follows?.id).toBe(first.caseId);
    expect(await house.em().count(Customer, { phone: "+447700900462" })).toBe(1);
  });

  test("that two bring at once makes one customer and one case", async () => {
    const both = await Promise.all([1, 2, 3].map(() => receive({ from: "+447700900463" })));
    expect(new Set(both.map((one) => one.caseId)).size).toBe(1);
  });

  test("is refused where the number is none of ours", async () => {
    await expect(receive({ to: "+447700900999" })).rejects.toThrow(/no number of ours/);
  });

  test.each([
    ["short", "short"],
    [`${"word ".repeat(30)}`, `${"word ".repeat(12).trim()} …`],
    ["x".repeat(200), `${"x".repeat(60)} …`],
  ])("“%.20s” is called %s", (text, name) => expect(beginningOf(text)).toBe(name));
});

describe("an answer", () => {
  test("goes from the number that was written to, as plain words, without a block below", async () => {
    const { id, caseId } = await answered("Yes, **at nine**. See [the timetable](https://example.org/t).");
    const open = await readOpenCase(house.em(), house.maren, (await caseOf(caseId)).number, 0, now);
    expect(open.signature).toBeNull();
    expect(await deliver(house.em(), id, false, due)).toBe("sent");
    expect(handed).toEqual([
      {
        authorization: `Bearer ${TOKEN}`,
        body: {
          id: expect.stringMatching(/^sms-[0-9a-f]{32}$/),
          from: OURS,
          to: "+447700900470",
          text: "Yes, at nine. See the timetable: https://example.org/t.",
        },
      },
    ]);
    expect(await message(id)).toMatchObject({ state: "sent", html: null, subject: "" });
  });

  test("is on the phone once its receipt says so, whoever says it again", async () => {
    const { id } = await answered("Yes.");
    await deliver(house.em(), id, false, due);
    const receipt = { id: (await message(id)).messageId ?? "", state: "delivered" as const };
    expect(await acceptReceipt(house.em(), receipt, due())).toBe(true);
    expect(await acceptReceipt(house.em(), { ...receipt, state: "failed" }, due())).toBe(true);
    expect(await message(id)).toMatchObject({ state: "sent", deliveredAt: due() });
    expect(await acceptReceipt(house.em(), { id: "nobody’s", state: "delivered" }, due())).toBe(false);
  });

  test("that failed later waits for us again, and goes anew under another id", async () => {
    const { id, caseId } = await answered("Yes.", "+447700900480");
    await deliver(house.em(), id, false, due);
    const first = (await message(id)).messageId ?? "";
    await acceptReceipt(house.em(), { id: first, state: "failed", problem: "switched off" }, due());
    expect(await message(id)).toMatchObject({ state: "refused", refusal: "switched off" });
    expect(await caseOf(caseId)).toMatchObject({ status: "open" });
    await tryAgain(house.em(), house.maren, id, due());
    expect(await deliver(house.em(), id, false, due)).toBe("sent");
    expect(handed.at(-1)?.body.id).not.toBe(first);
    const kinds = await house.em().find(CaseEvent, { case: caseId }, { orderBy: { id: "asc" } });
    expect(kinds.map((one) => one.kind)).toEqual([
      ...["opened", "queued", "sent", "refused", "tried again", "sent"],
    ]);
  });

  test.each([
    [422, "takes none", "refused", /takes none/],
    [503, "later", "try later", /later/],
    [401, "who are you", "try later", /who are you/],
    [500, null, "try later", /answers 500/],
  ])("that the gateway answers with %i is kept with its words", async (status, problem, outcome, words) => {
    const { id } = await answered("Yes.");
    answer = { status, body: problem === null ? {} : { problem } };
    expect(await deliver(house.em(), id, false, due)).toBe(outcome);
    expect((await message(id)).refusal).toMatch(words);
  });

  test("says what is missing where the team has no number", async () => {
    const { caseNumber, messageId } = await receive({ from: "+447700900471" });
    const [number] = (await shortMessageWays(house.em(), lead())).numbers;
    await removeNumber(house.em(), lead(), number?.id ?? 0);
    const slips = [
      { uid: "s", versionId: null, language: "en", document: readMarkdown("x").doc, values: {} },
    ];
    const draft = { version: 0, language: "en", subject: { from: "thread" as const }, slips, files: [] };
    await saveDraft(house.em(), house.maren, caseNumber, draft, now);
    await expect(
      send(house.em(), house.maren, caseNumber, { version: 1, lastMessage: messageId }, now),
    ).rejects.toThrow(/Desk has no number/);
    await saveNumber(house.em(), lead(), null, { number: OURS, team: number?.team.id ?? 0 });
  });
});

describe("the numbers", () => {
  test("are given by leads, each once, written as everywhere", async () => {
    const [team] = await house.em().find(Team, {});
    const give = (number: string, id: number | null = null) =>
      saveNumber(house.em(), lead(), id, { number, team: team?.id ?? 0 });
    await expect(give("12")).rejects.toThrow(Unusable);
    await expect(give("+44 7700 900 460")).rejects.toThrow(/number of Desk already/);
    await expect(saveNumber(house.em(), house.bram, null, { number: OURS, team: 1 })).rejects.toThrow();
    const id = await give("+49 (1555) 123-4567");
    await give("+49 1555 1234568", id);
    expect((await shortMessageWays(house.em(), lead())).numbers.map((one) => one.shown)).toContain(
      "+49 15551 234568",
    );
    await removeNumber(house.em(), lead(), id);
    await expect(removeNumber(house.em(), lead(), id)).rejects.toThrow(/no such number/);
  });
});

test("a gateway signs in by its token, and is told what it says wrong", async () => {
  const app = express();
  app.use(
    "/sms",
    smsEndpoints(() => house.em()),
  );
  const server = app.listen(0, "127.0.0.1");
  await new Promise<void>((resolve) => server.once("listening", resolve));
  const address = server.address();
  const base = `http://127.0.0.1:${address !== null && typeof address === "object" ? address.port : 0}/sms`;
  const post = async (path: string, body: object, token = TOKEN) => {
    const response = await fetch(base + path, {
      method: "POST",
      headers: { "Content-Type": "application/json", Authorization: `Bearer ${token}` },
      body: JSON.stringify(body),
    });
    return [response.status, (await response.json()) as unknown];
  };
  const whole = { id: "e1", from: "+447700900475", to: OURS, text: "hello" };
  expect(await post("/messages", whole, "another")).toEqual([
    401,
    { problem: "The gateway’s token is missing or wrong" },
  ]);
  expect(await post("/messages", whole)).toEqual([200, { case: expect.any(Number) as unknown }]);
  expect(await post("/messages", { ...whole, from: "0770" })).toEqual([
    400,
    { problem: "from: is no number as in +447400123456 (ITU-T E.164)" },
  ]);
  expect(await post("/messages", { ...whole, to: "+447700900999" })).toEqual([
    404,
    { problem: "+447700900999 is no number of ours" },
  ]);
  expect(await post("/receipts", { id: "x", state: "delivered" })).toEqual([200, { known: false }]);
  server.close();
});
