import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { saveDraft } from "../answering/draft";
import { openCase } from "../answering/open";
import { send } from "../answering/send";
import { query } from "../db/sql";
import { publishWorking } from "../replies/publishing";
import { ensureOwnShelf } from "../replies/shelves";
import { createReply } from "../replies/writing";
import { testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { houseRanker } from "./house-ranker";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const em = () => house.em();
const strip = async (words: string, viewer = house.maren) => {
  const { number } = await testCase(em(), words);
  return (await openCase(em(), viewer, number, false, now)).strip.replies;
};
const rank = async (body: string) =>
  (await houseRanker(em())).rank({ channel: "email", subject: "", body }, 5).map((one) => one.id);

test("the strip begins with the answer that fits, and says how well and why; openings and closings come last", async () => {
  const replies = await strip("how many hours is the ship running late");
  expect(replies.map((reply) => reply.key)).toEqual(["late", "fee", expect.anything(), expect.anything()]);
  expect(replies[0]).toMatchObject({ why: expect.stringContaining("“late”"), part: "answer" });
  expect(replies[0]?.fit).toBeGreaterThan(replies[1]?.fit ?? 1);
  expect(replies[2]).toMatchObject({ fit: null });
});

test("what is sent is learned at once, and named as the reason", async () => {
  const words = "wo bleibt denn eigentlich das Schiff";
  const one = await testCase(em(), words);
  const slip = {
    uid: "a",
    versionId: await testVersion(house.em(), "late"),
    language: "en",
    document: readMarkdown("Three hours late.").doc,
    values: { hours: 3 },
  };
  const draft = { version: 0, language: "en", subject: { from: "thread" as const }, slips: [slip] };
  const version = await saveDraft(em(), house.bram, one.number, draft, now);
  await send(em(), house.bram, one.number, { version, lastMessage: one.message }, now);
  const [first] = await strip("Das Schiff, wo bleibt es?");
  expect(first).toMatchObject({ key: "late", why: expect.stringContaining(`like SF-${one.number}`) });
});

test("a reply is ranked from when it is published, and for those who may use it", async () => {
  await ensureOwnShelf(em(), house.bram);
  const [shelf] = await query<{ key: string }>(em(), "select key from shelves where owner_id = ?", [
    house.bram.id,
  ]);
  const key = await createReply(
    em(),
    house.bram,
    { shelf: shelf?.key ?? "", title: "Parrots in the lounge", part: "answer" },
    {
      content: {
        title: "Parrots in the lounge",
        useTemplateSubject: false,
        blanks: {},
        passages: {},
        variants: [
          {
            language: "en",
            title: null,
            subject: null,
            document: readMarkdown("Parrots travel in a cage.").doc,
            original: null,
          },
        ],
        files: [],
      },
    },
    now,
  );
  await houseRanker(em());
  await publishWorking(em(), house.bram, key, { revision: 1, remark: null }, now);
  // What was known serves while the change is read.
  for (let tries = 0; tries < 100 && (await rank("a parrot"))[0] !== key; tries += 1)
    await new Promise((resolve) => setImmediate(resolve));
  expect((await strip("may my parrot come along", house.bram))[0]?.key).toBe(key);
  expect((await strip("may my parrot come along")).map((reply) => reply.key)).not.toContain(key);
});
