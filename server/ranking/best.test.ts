import { afterAll, afterEach, beforeAll, expect, jest, test } from "@jest/globals";
import { testCase, testHouse, type TestHouse } from "../testing";
import { bestReplies } from "./best";
import { HouseRanker, houseRanker, Unanswered } from "./house-ranker";
import { keptBest } from "./kept";

let house: TestHouse;
let ranker: HouseRanker;
let cases: { number: number; channel: string }[];
beforeAll(async () => {
  house = await testHouse();
  ranker = houseRanker(house.em());
  await ranker.ready();
  cases = [];
  for (let count = 0; count < 19; count += 1) {
    const { number } = await testCase(
      house.em(),
      `Can I change my crossing, and what does that cost? ${count}`,
    );
    cases.push({ number, channel: "email" });
  }
});
afterEach(() => {
  jest.restoreAllMocks();
  keptBest.clear();
});
afterAll(() => house.close());

const best = () => bestReplies(house.em(), house.maren, cases);
/** How many inquiries were ranked by each question. */
const questions = (rank: jest.Spied<HouseRanker["rank"]>) => rank.mock.calls.map(([asked]) => asked.length);

test("cases that several look at at once are ranked once, and not again while they are kept", async () => {
  const rank = jest.spyOn(ranker, "rank");
  const found = await Promise.all([best(), best(), best()]);
  expect(Object.keys(found[0] ?? {})).toHaveLength(19);
  expect(found[1]).toEqual(found[0]);
  expect(found[2]).toEqual(found[0]);
  expect(found[0]?.[cases[0]?.number ?? 0]?.reply?.key).toBe("fee");
  expect(questions(rank)).toEqual([8, 8, 3]);
  await best();
  expect(questions(rank)).toEqual([8, 8, 3]);
});

test("what was ranked before ranking took too long is kept: only the rest is asked again", async () => {
  const rank = jest.spyOn(ranker, "rank");
  const really = HouseRanker.prototype.rank.bind(ranker);
  rank
    .mockImplementationOnce(really)
    .mockImplementationOnce(() => Promise.reject(new Unanswered("too long")));
  await expect(best()).rejects.toThrow(Unanswered);
  rank.mockClear();
  expect(Object.keys(await best())).toHaveLength(19);
  expect(questions(rank)).toEqual([8, 3]);
});

test("while ranking knows nothing yet, cases are left out after one question", async () => {
  const rank = jest.spyOn(ranker, "rank").mockResolvedValue(null);
  expect(await best()).toEqual({});
  expect(questions(rank)).toEqual([8]);
});

test("another viewer, and another channel, are ranked by themselves", async () => {
  await best();
  const rank = jest.spyOn(ranker, "rank");
  const [one] = cases;
  if (!one) throw new Error("There are cases");
  await bestReplies(house.em(), house.bram, [one]);
  await bestReplies(house.em(), house.maren, [{ ...one, channel: "chat" }]);
  expect(questions(rank)).toEqual([1, 1]);
});
