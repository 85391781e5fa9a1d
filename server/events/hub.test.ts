import { afterAll, beforeAll, expect, jest, test } from "@jest/globals";
import { query } from "../db/sql";
import { eventually, testHouse, type TestHouse } from "../testing";
import { closeHub, onEvent, openHub } from "./hub";
import { CHANNEL, notify, type LiveEvent } from "./notify";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  await openHub(house.database.url);
});
afterAll(async () => {
  await closeHub();
  await house.close();
});

const heard = jest.fn<(event: LiveEvent) => void>();

/** Waits until what was heard holds. */
const until = (wanted: () => boolean) => eventually(() => Promise.resolve(wanted()), Boolean);

test("what any process tells is heard, until one stops listening; what cannot be read ends nothing", async () => {
  const stop = onEvent(heard);
  const em = house.em();
  await query(em, "select pg_notify(?, ?)", [CHANNEL, "no event"]);
  await notify(em, { case: 7, kind: "presence" });
  await until(() => heard.mock.calls.length > 0);
  expect(heard.mock.calls).toEqual([[{ case: 7, kind: "presence" }]]);
  stop();
  await notify(em, { case: 8, kind: "presence" });
  const after = jest.fn<(event: LiveEvent) => void>();
  const stopAfter = onEvent(after);
  await notify(em, { case: 9, kind: "presence" });
  await until(() => after.mock.calls.some(([event]) => event.case === 9));
  stopAfter();
  expect(heard).toHaveBeenCalledTimes(1);
});

test("cut off, it listens again, and has every screen look again", async () => {
  heard.mockClear();
  const stop = onEvent(heard);
  const em = house.em();
  await query(
    em,
    `select pg_terminate_backend(pid) from pg_stat_activity
      where datname = current_database() and query ilike 'listen%' and pid <> pg_backend_pid()`,
  );
  await until(() => heard.mock.calls.some(([event]) => event.kind === "queue"));
  await until(() => {
    void notify(em, { case: 10, kind: "presence" });
    return heard.mock.calls.some(([event]) => event.case === 10);
  });
  stop();
});
