import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import pg from "pg";
import { readMarkdown } from "#core/formats/markdown";
import { saveDraft } from "../answering/draft";
import { arrive, leave, others } from "../answering/presence";
import { query } from "../db/sql";
import { CHANNEL } from "../events/notify";
import { testCase, testHouse, type TestHouse } from "../testing";
import { neighbours, waitingCases, waitingCount, type WaitingFilter } from "./waiting";

let house: TestHouse;
const cases: Record<"bikes" | "dogs" | "late" | "fee", Awaited<ReturnType<typeof testCase>>> = {} as never;
beforeAll(async () => {
  house = await testHouse();
  const words = {
    bikes: "Where do bicycles stand?\n\n> On Monday you wrote about umbrellas",
    dogs: "Is my dog allowed on deck?",
    late: "100% late_again: where is the ship?",
    fee: "What does a change cost?",
  };
  for (const key of ["bikes", "dogs", "late", "fee"] as const) cases[key] = await testCase(em(), words[key]);
  const set = async (key: keyof typeof cases, changes: string, ...values: unknown[]) =>
    query(em(), `update cases set ${changes} where id = ?`, [...values, cases[key].id]);
  await set("bikes", "topic = 'bicycles', answer_by = '2026-11-25T18:00:00Z'");
  await set("dogs", "assignee_id = ?, answer_by = '2026-11-25T11:00:00Z'", house.bram.id);
  await set("late", "channel = 'chat', answer_by = null");
  await set("fee", "status = 'waiting on the customer', subject = 'fee for changing'");
  await query(em(), "insert into organisations (name, name_key) values ('Tarn Rowers', 'tarn rowers')");
  await query(
    em(),
    "update customers set organisation_id = (select id from organisations limit 1) where id = (select customer_id from cases where id = ?)",
    [cases.dogs.id],
  );
});
afterAll(() => house.close());

const em = () => house.em();
const all: WaitingFilter = { list: "us", whose: "all", channel: null, topic: null, text: "" };
const listed = async (changes: Partial<WaitingFilter>, viewer = house.maren) =>
  (await waitingCases(em(), viewer, { ...all, ...changes })).rows.map((row) => row.number);

describe("the list", () => {
  test("has the least time left first, and what has no time last", async () => {
    expect(await listed({})).toEqual([cases.dogs.number, cases.bikes.number, cases.late.number]);
    expect(await listed({ list: "customer" })).toEqual([cases.fee.number]);
    expect(await listed({ list: "set aside" })).toEqual([]);
    expect(await listed({ list: "settled" })).toEqual([]);
    const before = await listed({});
    const { id, number } = cases.late;
    const into = (state: string) => query(em(), "update cases set status = ? where id = ?", [state, id]);
    await into("settled");
    expect(await listed({ list: "settled" })).toEqual([number]);
    await into("waiting on a colleague");
    expect(await listed({})).toEqual(before);
    await into("new");
    // Bram has one of them.
    expect((await listed({ whose: "nobody's" })).length).toBe(before.length - 1);
  });

  test("tells who, what they ask without what they quote, and until when", async () => {
    const { rows, counts, topics, more } = await waitingCases(em(), house.maren, all);
    expect(rows[1]).toMatchObject({
      label: `SF-${cases.bikes.number}`,
      words: "Where do bicycles stand?",
      answerBy: "2026-11-25T18:00:00.000Z",
      topic: "bicycles",
      organisation: null,
      status: "new",
      assignee: null,
      people: [],
      refused: false,
    });
    expect(rows[0]?.organisation).toBe("Tarn Rowers");
    expect({ counts, topics, more }).toEqual({
      counts: { us: 3, customer: 1, "set aside": 0 },
      topics: ["bicycles"],
      more: false,
    });
  });

  test("is narrowed by whose it is, by channel and topic", async () => {
    expect(await listed({ whose: "mine" }, house.bram)).toEqual([cases.dogs.number]);
    expect(await listed({ whose: "mine" })).toEqual([]);
    expect(await listed({ channel: "chat" })).toEqual([cases.late.number]);
    expect(await listed({ topic: "bicycles" })).toEqual([cases.bikes.number]);
    expect(await listed({ whose: "my team" }, { ...house.maren, teams: [-1] })).toEqual([]);
  });

  test("is searched by words, customers, organisations, subjects and numbers, and signs are only signs", async () => {
    expect(await listed({ text: "bicycles" })).toEqual([cases.bikes.number]);
    expect(await listed({ text: "tarn row" })).toEqual([cases.dogs.number]);
    expect(await listed({ text: `SF-${cases.late.number}` })).toEqual([cases.late.number]);
    expect(await listed({ list: "customer", text: "FEE FOR" })).toEqual([cases.fee.number]);
    expect(await listed({ text: "%" })).toEqual([]);
    expect(await listed({ text: "b_at" })).toEqual([]);
    expect(await listed({ text: "'; drop table cases; --" })).toEqual([]);
  });

  test("says which letters were refused, and who is on a case but oneself", async () => {
    await query(em(), "update messages set state = 'refused' where case_id = ?", [cases.late.id]);
    await arrive(em(), cases.late.id, cases.late.number, house.bram.id);
    const row = async (viewer = house.maren) =>
      (await waitingCases(em(), viewer, { ...all, channel: "chat" })).rows[0];
    expect(await row()).toMatchObject({ refused: true, people: ["Bram Test"] });
    expect(await row(house.bram)).toMatchObject({ people: [] });
    await leave(em(), cases.late.id, cases.late.number, house.bram.id);
    expect(await row()).toMatchObject({ people: [] });
  });
});

describe("colleagues on a case", () => {
  test("are there while they have it open, or have begun an answer", async () => {
    const { id, number } = cases.dogs;
    const seen = () => others(em(), id, house.maren.id);
    expect(await seen()).toEqual([]);
    await arrive(em(), id, number, house.bram.id);
    await arrive(em(), id, number, house.maren.id);
    expect(await seen()).toEqual([{ name: "Bram Test", here: true }]);
    await query(em(), "update case_presence set seen_at = now() - interval '1 minute'");
    expect(await seen()).toEqual([]);
    const slip = {
      uid: "a",
      versionId: null,
      language: "en",
      document: readMarkdown("Yes.").doc,
      values: {},
    };
    const draft = { version: 0, language: "en", subject: { from: "thread" as const }, slips: [slip] };
    await saveDraft(em(), house.bram, number, draft, new Date());
    expect(await seen()).toEqual([{ name: "Bram Test", here: false }]);
    expect((await waitingCases(em(), house.maren, all)).rows[0]?.people).toEqual(["Bram Test"]);
  });
});

test("lists hear of who comes to a case and leaves it, and not of who stays", async () => {
  const { id, number } = cases.bikes;
  const listener = new pg.Client({ connectionString: house.database.url });
  await listener.connect();
  const heard: unknown[] = [];
  listener.on("notification", ({ payload }) => heard.push(JSON.parse(payload ?? "")));
  try {
    await listener.query(`listen ${CHANNEL}`);
    await arrive(em(), id, number, house.bram.id);
    await arrive(em(), id, number, house.bram.id);
    await leave(em(), id, number, house.bram.id);
    // What was told before a statement is here with its answer.
    await listener.query("select 1");
  } finally {
    await listener.end();
  }
  const told = { case: null, kind: "queue", changed: number };
  expect(heard.filter((one) => JSON.stringify(one) === JSON.stringify(told))).toHaveLength(2);
});

describe("the way along the list", () => {
  test("goes by time left among the team's, and begins anew from a case that waits no longer", async () => {
    const { dogs, bikes, late, fee } = cases;
    expect(await neighbours(em(), house.maren, bikes.number)).toEqual({
      previous: dogs.number,
      next: late.number,
      position: 2,
      total: 3,
    });
    expect(await neighbours(em(), house.maren, dogs.number)).toMatchObject({ previous: null, position: 1 });
    expect(await neighbours(em(), house.maren, late.number)).toMatchObject({ next: null, position: 3 });
    expect(await neighbours(em(), house.maren, fee.number)).toEqual({
      previous: null,
      next: dogs.number,
      position: null,
      total: 3,
    });
    expect(await waitingCount(em(), house.maren)).toBe(3);
    expect(await waitingCount(em(), { ...house.maren, teams: [-1] })).toBe(0);
  });
});
