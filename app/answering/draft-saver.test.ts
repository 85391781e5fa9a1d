import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { draftSaver } from "./draft-saver";
import type { SaveState } from "../ui/saver";

let answers: (() => Promise<Response>)[];
let asked: { version: number; words: string }[];
let states: SaveState[];
let words: string;
const realFetch = globalThis.fetch;

beforeEach(() => {
  jest.useFakeTimers();
  [answers, asked, states, words] = [[], [], [], "a"];
  globalThis.fetch = (_url, init) => {
    const body = JSON.parse(init?.body as string) as { draft: { version: number }; text: string };
    asked.push({ version: body.draft.version, words: body.text });
    return (answers.shift() ?? (() => Promise.resolve(ok(asked.length))))();
  };
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = realFetch;
});

const ok = (version: number) => Response.json({ version, otherNames: [] });

function saver() {
  return draftSaver({
    caseNumber: 1,
    version: 0,
    read: () => ({ draft: { language: "en", subject: { from: "thread" }, slips: [] }, text: words }),
    onState: (state) => states.push(state),
    onNames: () => undefined,
  });
}

test("typing is gathered into one save, and each save rests on the one before", async () => {
  const one = saver();
  one.touch();
  await jest.advanceTimersByTimeAsync(200);
  one.touch();
  await jest.advanceTimersByTimeAsync(500);
  words = "b";
  one.touch();
  await jest.advanceTimersByTimeAsync(500);
  expect(asked).toEqual([
    { version: 0, words: "a" },
    { version: 1, words: "b" },
  ]);
  expect(states.at(-1)).toBe("saved");
});

test("what is typed during a save is saved after it", async () => {
  const one = saver();
  answers.push(async () => {
    words = "typed meanwhile";
    one.touch();
    return Promise.resolve(ok(1));
  });
  one.touch();
  await jest.advanceTimersByTimeAsync(2000);
  expect(asked.map((one) => one.words)).toEqual(["a", "typed meanwhile"]);
});

test("a failed save is tried again and nothing is lost; flushing says so", async () => {
  const one = saver();
  answers.push(() => Promise.reject(new Error("offline")));
  one.touch();
  const flushed = one.flush();
  await jest.advanceTimersByTimeAsync(0);
  expect(await flushed).toBe(false);
  expect(states.at(-1)).toBe("unsaved");
  await jest.advanceTimersByTimeAsync(3500);
  expect(states.at(-1)).toBe("saved");
});

test("a conflict is told and never forced", async () => {
  const one = saver();
  answers.push(() =>
    Promise.resolve(Response.json({ problem: "changed in another window" }, { status: 409 })),
  );
  one.touch();
  await jest.advanceTimersByTimeAsync(500);
  one.touch();
  await jest.advanceTimersByTimeAsync(5000);
  expect(asked).toHaveLength(1);
  expect(states.at(-1)).toEqual({ conflict: "changed in another window" });
  expect(await one.flush()).toBe(false);
});

test("flushing saves at once, and leaving saves what is left", async () => {
  const one = saver();
  one.touch();
  expect(await one.flush()).toBe(true);
  expect(one.version).toBe(1);
  words = "last";
  one.touch();
  one.leave();
  expect(asked.at(-1)).toEqual({ version: 1, words: "last" });
});

test("flushing while a save is under way saves what was typed since, even after the wait was due", async () => {
  const one = saver();
  let answer: (response: Response) => void = () => undefined;
  answers.push(() => new Promise((resolve) => (answer = resolve)));
  one.touch();
  await jest.advanceTimersByTimeAsync(500);
  words = "typed meanwhile";
  one.touch();
  const flushed = one.flush();
  answer(ok(1));
  await jest.advanceTimersByTimeAsync(0);
  expect(await flushed).toBe(true);
  expect(asked.map((one) => one.words)).toEqual(["a", "typed meanwhile"]);
  await jest.advanceTimersByTimeAsync(5000);
  expect(asked).toHaveLength(2);
});
