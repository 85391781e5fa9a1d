import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { Case } from "../db/entities/cases";
import { Organisation } from "../db/entities/customers";
import { query } from "../db/sql";
import { Conflict, NotFound, Unusable } from "../errors";
import { caseRecord } from "../record/timeline";
import { testCase, testHouse, type TestHouse } from "../testing";
import { promisesOf } from "./of-case";
import { makePromise, promiseSchema, settlePromise } from "./promises";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const promise = (number: number, words: string, by: string) =>
  makePromise(house.em(), house.bram, number, promiseSchema.parse({ words, by }), now);

test("what was promised stands on the case, with its customer and their organisation, what is open first by its day", async () => {
  const em = house.em();
  const [one, other] = [await testCase(em), await testCase(em)];
  const cases = await em.find(
    Case,
    { number: { $in: [one.number, other.number] } },
    { populate: ["customer"] },
  );
  const firm = em.create(Organisation, {
    ...{ name: "Firm", nameKey: "firm", kind: null, account: null, contractUntil: null },
  });
  for (const { customer } of cases) customer.organisation = firm;
  await em.flush();
  const later = await promise(one.number, "a new boarding pass", "2026-12-24");
  const sooner = await promise(one.number, "money back", "2026-12-01");
  const others = await promise(other.number, "a call", "2026-11-25");
  const [subject] = cases;
  const ofCase = () => promisesOf(house.em(), { case: subject?.id ?? 0 });
  expect(await ofCase()).toMatchObject([
    { id: sooner.id, words: "money back", by: "2026-12-01", who: "Bram Test", outcome: null },
    { id: later.id },
  ]);
  await settlePromise(house.em(), house.maren, sooner.id, "kept", now);
  expect((await ofCase()).map(({ id, outcome }) => [id, outcome])).toEqual([
    [later.id, null],
    [sooner.id, "kept"],
  ]);
  expect((await promisesOf(house.em(), { customer: subject?.customer.id ?? 0 })).map(({ id }) => id)).toEqual(
    [later.id, sooner.id],
  );
  expect((await promisesOf(house.em(), { organisation: firm.id })).map(({ id }) => id)).toEqual([
    others.id,
    later.id,
    sooner.id,
  ]);
  const { entries } = await caseRecord(house.em(), house.bram, one.number);
  expect(entries).toContainEqual(
    expect.objectContaining({ who: "Bram Test", what: "promised “money back” by 2026-12-01" }),
  );
  expect(entries).toContainEqual(
    expect.objectContaining({ who: "Maren Test", what: "kept the promise “money back”" }),
  );
});

test("a promise for a day that has passed in the house’s zone is refused; one is settled once", async () => {
  const { number } = await testCase(house.em());
  await query(house.em(), "update house set time_zone = 'Pacific/Auckland'");
  await expect(promise(number, "x", "2026-11-24")).rejects.toThrow(Unusable);
  // There the next day has not begun yet at ten in the morning here.
  const { id } = await promise(number, "x", "2026-11-25");
  await query(house.em(), "update house set time_zone = 'UTC'");
  await settlePromise(house.em(), house.bram, id, "withdrawn", now);
  await expect(settlePromise(house.em(), house.bram, id, "kept", now)).rejects.toThrow(Conflict);
  await expect(settlePromise(house.em(), house.bram, 999_999, "kept", now)).rejects.toThrow(NotFound);
  await expect(promise(1, "x", "2026-12-01")).rejects.toThrow(NotFound);
  expect(promiseSchema.safeParse({ words: " ", by: "2026-12-01" }).success).toBe(false);
});
