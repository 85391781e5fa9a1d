import { expect, test } from "@jest/globals";
import type { OpenCase } from "#server/answering/open";
import type { StripReply } from "#server/strip/strip";
import { Offers } from "./offers";

const reply = (key: string, fit: number | null) => ({ key, versionId: 1, fit }) as StripReply;
const open = (keys: string[], offers: ReturnType<Offers["all"]> = []) =>
  ({
    draft: { offers },
    strip: { replies: [...keys.map((key) => reply(key, 0.1)), reply("hello", null)] },
  }) as unknown as OpenCase;

test("answers that the shelf offers are kept with their places; openings and closings only once they are used", () => {
  const offers = new Offers(open(["fee", "late"]));
  expect(offers.all().map(({ reply: key, position }) => [key, position])).toEqual([
    ["fee", 0],
    ["late", 1],
  ]);
  offers.take(reply("hello", null), 2);
  expect(offers.all().at(-1)).toMatchObject({
    reply: "hello",
    position: 2,
    fit: null,
    looked: true,
    taken: true,
  });
});

test("what was looked at and taken before the page was loaded again still counts", () => {
  const before = new Offers(open(["fee", "late"]));
  before.look(reply("late", 0.1), 1);
  const again = new Offers(open(["late", "fee"], before.all()));
  expect(again.all().find((one) => one.reply === "late")).toMatchObject({ position: 1, looked: true });
});

test("of very many, those that were taken or looked at are kept first", () => {
  const keys = Array.from({ length: 90 }, (_, index) => `r${index}`);
  const offers = new Offers(open(keys));
  offers.take(reply("r88", 0.1), 88);
  expect(offers.all()).toHaveLength(60);
  expect(offers.all().at(-1)).toMatchObject({ reply: "r88", taken: true });
});
