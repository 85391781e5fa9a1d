import { afterAll, beforeAll, expect, test } from "@jest/globals";
import pg from "pg";
import { House } from "../db/entities/people";
import { query } from "../db/sql";
import { testHouse, type TestHouse } from "../testing";
import { ownTokens, settingsOf } from "./settings";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const doc = JSON.stringify({ type: "doc", content: [] });

test("are read once for as long as nothing of them changes", async () => {
  const first = await settingsOf(house.em());
  expect(await settingsOf(house.em())).toBe(first);
});

test.each([
  ["house", "update house set name = 'Other Ferries'"],
  [
    "fields",
    "insert into fields (key, label, type, example, position) values ('berth', 'berth', 'text', '\"A1\"', 9)",
  ],
  ["teams", "update teams set mailbox = 'Elsewhere@example.com' where id = (select min(id) from teams)"],
  ["signatures", `insert into signatures (person_id, document) select min(id), '${doc}' from people`],
  ["signatures", "delete from signatures"],
])("a change of %s is seen, whoever made it", async (_table, sql) => {
  const before = await settingsOf(house.em());
  const other = new pg.Client({ connectionString: house.em().config.get("clientUrl") });
  await other.connect();
  try {
    await other.query(sql);
  } finally {
    await other.end();
  }
  const after = await settingsOf(house.em());
  expect(after).not.toEqual(before);
  expect(await settingsOf(house.em())).toBe(after);
});

test("a change of two at once is seen whole", async () => {
  await house.em().transactional(async (inner) => {
    (await inner.findOneOrFail(House, { id: 1 })).name = "Third Ferries";
    await query(
      inner,
      "update teams set mailbox = 'third@example.com' where id = (select min(id) from teams)",
    );
  });
  const { house: read, mailboxes } = await settingsOf(house.em());
  expect(read.name).toBe("Third Ferries");
  expect(mailboxes.has("third@example.com")).toBe(true);
});

test("what a transaction sees of its own is not kept when that is undone", async () => {
  const before = await settingsOf(house.em());
  await house
    .em()
    .transactional(async (inner) => {
      await query(inner, "update house set name = 'Never'");
      expect((await settingsOf(inner)).house.name).toBe("Never");
      throw new Error("undone");
    })
    .catch((error: unknown) => expect(String(error)).toContain("undone"));
  expect((await settingsOf(house.em())).house).toEqual(before.house);
  await query(house.em(), "update house set language = 'da'");
  expect((await settingsOf(house.em())).house).toEqual({ ...before.house, language: "da" });
});

test("of a fact's values the latest that has begun holds", async () => {
  const em = house.em();
  await query(em, "insert into house_facts (key, label, type) values ('hatch', 'hatch', 'text')");
  await query(
    em,
    `insert into house_fact_values (fact_id, valid_from, value)
     select id, v.at::timestamptz, v.value::jsonb from house_facts, (values
       ('2026-01-01T00:00:00Z', '"old"'), ('2026-06-01T00:00:00Z', '"new"')) v(at, value) where key = 'hatch'`,
  );
  const at = async (instant: string) => (await ownTokens(house.em(), new Date(instant))).facts.hatch;
  expect(await at("2025-12-31T23:59:59Z")).toBeUndefined();
  expect(await at("2026-01-01T00:00:00Z")).toBe("old");
  expect(await at("2026-05-31T23:59:59Z")).toBe("old");
  expect(await at("2026-06-01T00:00:00Z")).toBe("new");
});
