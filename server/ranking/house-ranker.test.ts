import type { Fit } from "#core/ranking/inquiry";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { readMarkdown } from "#core/formats/markdown";
import { saveDraft } from "../answering/draft";
import { readOpenCase } from "../answering/open";
import { callBack } from "../answering/call-back";
import { send } from "../answering/send";
import { query } from "../db/sql";
import { publishWorking } from "../replies/publishing";
import { ensureOwnShelf } from "../replies/shelves";
import { createReply } from "../replies/writing";
import { eventually, testCase, testHouse, testVersion, type TestHouse } from "../testing";
import { houseRanker } from "./house-ranker";

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
  await houseRanker(em()).ready();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const em = () => house.em();
const strip = async (words: string, viewer = house.maren) => {
  const { number } = await testCase(em(), words);
  return (await readOpenCase(em(), viewer, number, 0, now)).strip.replies;
};
const rank = async (body: string) => {
  const rankings = await houseRanker(em()).rank([
    { inquiry: { channel: "email", subject: "", body }, asking: { top: 5 } },
  ]);
  return rankings?.[0]?.fits ?? [];
};
const until = (body: string, holds: (fits: Fit[]) => boolean) => eventually(() => rank(body), holds);

test("the strip begins with the answer that fits, and says how well and why; openings and closings come last", async () => {
  const replies = await strip("how many hours is the ship running late");
  expect(replies.map((reply) => reply.key)).toEqual(["late", "fee", expect.anything(), expect.anything()]);
  expect(replies[0]).toMatchObject({ why: expect.stringMatching(/“ship running late”/), part: "answer" });
  expect(replies[0]?.fit).toBeGreaterThan(replies[1]?.fit ?? 1);
  expect(replies[2]).toMatchObject({ fit: null });
});

test("what is sent is learned at once and named as the reason, and no more when it is called back", async () => {
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
  const sent = await send(em(), house.bram, one.number, { version, lastMessage: one.message }, now);
  await until("Das Schiff, wo bleibt es?", ([best]) => best?.why.includes(`like SF-${one.number}`) ?? false);
  const [first] = await strip("Das Schiff, wo bleibt es?");
  expect(first).toMatchObject({ key: "late", why: expect.stringContaining(`like SF-${one.number}`) });
  if (!("message" in sent)) throw new Error("It was not sent");
  await callBack(em(), house.bram, sent.message, now);
  await until("Das Schiff, wo bleibt es?", ([best]) => best?.why.includes(`like SF-${one.number}`) === false);
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
  await publishWorking(em(), house.bram, key, { revision: 1, remark: null }, now);
  await until("a parrot", ([best]) => best?.id === key);
  expect((await strip("may my parrot come along", house.bram))[0]?.key).toBe(key);
  expect((await strip("may my parrot come along")).map((reply) => reply.key)).not.toContain(key);
});
