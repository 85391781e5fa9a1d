import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { saveDraft } from "../answering/draft";
import { send } from "../answering/send";
import { query } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { bestReplies } from "./best";
import { houseRanker } from "./house-ranker";
import { recentAnswer, recentLetters } from "./recent-answer";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  await houseRanker(house.em()).ready();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const ours = { name: "Test Ferries", casePrefix: "SF", timeZone: "UTC", language: "en" };
const words = "what is the fee for changing";
const customerOf = async (id: number) => {
  const [row] = await query<{ customer_id: number }>(
    house.em(),
    "select customer_id from cases where id = ?",
    [id],
  );
  return row?.customer_id ?? 0;
};

/** What the viewer is told of a colleague's answer to much the same. */
async function told(viewer: Viewer, subject: Parameters<typeof recentLetters>[2], best: string, at: Date) {
  const letters = await recentLetters(house.em(), viewer, subject, at);
  return recentAnswer(house.em(), viewer, letters, "email", best, ours);
}

async function answer(viewer: Viewer, key: string, offers: { reply: string; taken: boolean; fit: number }[]) {
  const one = await testCase(house.em(), words);
  const slip = {
    uid: "a",
    versionId: await testVersion(house.em(), key),
    language: "en",
    document: readMarkdown("Half a day late.").doc,
    values: {},
  };
  const known = await Promise.all(
    offers.map(async ({ reply, ...offer }, position) => ({
      ...offer,
      reply,
      position,
      looked: true,
      versionId: await testVersion(house.em(), reply),
    })),
  );
  const draft = {
    version: 0,
    language: "en",
    subject: { from: "thread" as const },
    slips: [slip],
    offers: known,
  };
  const version = await saveDraft(house.em(), viewer, one.number, draft, now);
  const sent = await send(house.em(), viewer, one.number, { version, lastMessage: one.message }, now);
  if (!sent.ok) throw new Error(sent.checks[0]?.message);
  return one;
}

test("what was offered, taken, swapped and written anew is stored with the letter", async () => {
  const { id } = await answer(house.bram, "late", [
    { reply: "fee", taken: true, fit: 0.8 },
    { reply: "late", taken: true, fit: 0.1 },
  ]);
  const offers = await query(
    house.em(),
    `select r.key, o.position, o.fit, o.looked, o.taken, o.swapped, o.sent from letter_offers o join replies r on r.id = o.reply_id
       join sent_letters l on l.id = o.letter_id where l.case_id = ? order by o.position`,
    [id],
  );
  expect(offers).toEqual([
    { key: "fee", position: 0, fit: 0.8, looked: true, taken: true, swapped: true, sent: false },
    { key: "late", position: 1, fit: 0.1, looked: true, taken: true, swapped: false, sent: true },
  ]);
  const [used] = await query<{ rewritten: number; edits: unknown[] }>(
    house.em(),
    "select u.rewritten, u.edits from letter_replies u join sent_letters l on l.id = u.letter_id where l.case_id = ?",
    [id],
  );
  expect(used?.rewritten).toBeGreaterThan(0.3);
  expect(used?.edits).toContainEqual({ kind: "added", text: expect.stringContaining("Half") });
});

test("a colleague's other answer to much the same is told to others, within a week and not to themselves", async () => {
  const mine = await testCase(house.em(), words);
  const subject = { id: mine.id, customerId: await customerOf(mine.id), topic: null };
  const best = (await bestReplies(house.em(), house.maren, [{ number: mine.number, channel: "email" }]))[
    mine.number
  ];
  const key = best?.reply?.key ?? "";
  expect(key).not.toBe("");
  expect(await told(house.maren, subject, key, now)).toMatchObject({
    person: "Bram Test",
    reply: { key: "late" },
    sameCustomer: false,
  });
  expect(await told(house.bram, subject, key, now)).toBeNull();
  const later = new Date("2026-12-24T10:00:00Z");
  expect(await told(house.maren, subject, key, later)).toBeNull();
});

test("the best reply of each case comes with whether it may be sent as it is", async () => {
  const one = await testCase(house.em(), words);
  const best = await bestReplies(house.em(), house.maren, [{ number: one.number, channel: "email" }]);
  expect(best[one.number]?.reply).toMatchObject({
    mark: "A",
    fit: expect.any(Number),
    why: "asked for by its title",
  });
});

test("this customer's letters go before the latest of the topic, each as often as asked", async () => {
  const first = await answer(house.bram, "late", [{ reply: "late", taken: true, fit: 0.9 }]);
  await answer(house.bram, "late", [{ reply: "late", taken: true, fit: 0.9 }]);
  const subject = { id: 0, customerId: await customerOf(first.id), topic: null };
  const letters = await recentLetters(house.em(), house.maren, subject, now);
  expect(letters[0]).toMatchObject({ number: first.number, same_customer: true });
  expect(letters.slice(1).every((one) => !one.same_customer)).toBe(true);
  expect(new Set(letters.map((one) => one.number)).size).toBe(letters.length);
});

test("what a colleague sent from their own shelf is told to nobody", async () => {
  const mine = await testCase(house.em(), words);
  const subject = { id: mine.id, customerId: await customerOf(mine.id), topic: null };
  const best = (await bestReplies(house.em(), house.maren, [{ number: mine.number, channel: "email" }]))[
    mine.number
  ];
  await query(
    house.em(),
    `with own as (insert into shelves (key, name, mark, audience, owner_id, position) values ('own-test', 'My own', 'M', 'owner', ?, 0) returning id)
     update replies set shelf_id = own.id from own where key = 'late'`,
    [house.bram.id],
  );
  expect(await told(house.maren, subject, best?.reply?.key ?? "", now)).toBeNull();
});
