import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { draftSaver, keptDraft } from "./draft-saver";
import type { SaveState } from "../../ui/saver";

let answers: (() => Promise<Response>)[];
let asked: { version: number; words: string }[];
let states: SaveState[];
let sequences: number[];
let words: string;
const realFetch = globalThis.fetch;
const browser = new Map<string, string>();
globalThis.localStorage = {
  getItem: (key: string) => browser.get(key) ?? null,
  setItem: (key: string, value: string) => void browser.set(key, value),
  removeItem: (key: string) => void browser.delete(key),
} as Storage;
const kept = () => keptDraft(1, 1).find()?.kept.text ?? null;

beforeEach(() => {
  jest.useFakeTimers();
  [answers, asked, states, words] = [[], [], [], "a"];
  browser.clear();
  sequences = [];
  globalThis.fetch = (_url, init) => {
    const body = JSON.parse(init?.body as string) as {
      draft: { version: number; sequence: number; language: string };
    };
    asked.push({ version: body.draft.version, words: body.draft.language });
    sequences.push(body.draft.sequence);
    return (answers.shift() ?? (() => Promise.resolve(ok(asked.length))))();
  };
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = realFetch;
});

const ok = (version: number) => Response.json({ version });

function saver() {
  return draftSaver({
    caseNumber: 1,
    version: 0,
    read: () => ({ draft: { language: words, subject: { from: "thread" }, slips: [] }, text: words }),
    onState: (state) => states.push(state),
    kept: keptDraft(1, 1),
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
  expect(states.at(-1)).toMatchObject({
    trouble: expect.stringContaining("cannot be reached"),
    signIn: false,
  });
  expect(kept()).toBe("a");
  await jest.advanceTimersByTimeAsync(3500);
  expect(states.at(-1)).toBe("saved");
  expect(kept()).toBeNull();
});

test("a session that has ended is told at once, the words stay in the browser, and go when somebody is signed in", async () => {
  const one = saver();
  answers.push(() => Promise.resolve(Response.json({ problem: "Sign in" }, { status: 401 })));
  one.touch();
  await jest.advanceTimersByTimeAsync(500);
  expect(states.at(-1)).toMatchObject({
    trouble: expect.stringContaining("session has ended"),
    signIn: true,
  });
  expect(kept()).toBe("a");
  one.retry();
  await jest.advanceTimersByTimeAsync(10);
  expect(states.at(-1)).toBe("saved");
  expect(kept()).toBeNull();
});

test("a server that does not answer is told within two seconds", async () => {
  const one = saver();
  answers.push(() => new Promise(() => undefined));
  one.touch();
  await jest.advanceTimersByTimeAsync(1950);
  expect(states.at(-1)).toMatchObject({ trouble: expect.stringContaining("does not answer") });
  expect(kept()).toBe("a");
});

test("a screen that is left during a save sends its last words behind it; a page that goes sends them at once, as the later save", async () => {
  const leaving = saver();
  let answer: (response: Response) => void = () => undefined;
  answers.push(() => new Promise((resolve) => (answer = resolve)));
  leaving.touch();
  await jest.advanceTimersByTimeAsync(500);
  words = "last words";
  leaving.touch();
  leaving.leave();
  expect(asked).toHaveLength(1);
  answer(ok(1));
  await jest.advanceTimersByTimeAsync(0);
  expect(asked.at(-1)).toEqual({ version: 1, words: "last words" });

  const going = saver();
  answers.push(() => new Promise(() => undefined));
  going.touch();
  await jest.advanceTimersByTimeAsync(500);
  words = "very last";
  going.touch();
  going.leave(true);
  expect(kept()).toBe("very last");
  await jest.advanceTimersByTimeAsync(0);
  expect(asked.at(-1)?.words).toBe("very last");
  expect(sequences.slice(-2)).toEqual([1, 2]);
  expect(kept()).toBeNull();
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
