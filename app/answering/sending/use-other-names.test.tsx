import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { act, renderHook } from "@testing-library/react";
import { useOtherNames } from "./use-other-names";

const realFetch = globalThis.fetch;
let asked: { path: string; text: string; aborted: () => boolean }[];
let answers: (() => Promise<Response>)[];

beforeEach(() => {
  jest.useFakeTimers();
  [asked, answers] = [[], []];
  globalThis.fetch = (path, init) => {
    const { text } = JSON.parse(init?.body as string) as { text: string };
    asked.push({ path: path as string, text, aborted: () => init?.signal?.aborted ?? false });
    return (answers.shift() ?? (() => Promise.resolve(Response.json({ names: [] }))))();
  };
});
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
  globalThis.fetch = realFetch;
});

const rest = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));
const named =
  (...names: string[]) =>
  () =>
    Promise.resolve(Response.json({ names }));

test("the words are looked through once the hand rests, and again when they have changed", async () => {
  answers = [named("Otto Berg"), named()];
  const initialProps: { text: string | null } = { text: null };
  const hook = renderHook(({ text }) => useOtherNames(7, text), { initialProps });
  hook.rerender({ text: "Dear Otto Berg" });
  await rest(300);
  hook.rerender({ text: "Dear Otto Berg, hello" });
  await rest(600);
  expect(asked).toEqual([]);
  await rest(200);
  expect(asked.map(({ path, text }) => [path, text])).toEqual([["/cases/7/names", "Dear Otto Berg, hello"]]);
  expect(hook.result.current).toEqual(["Otto Berg"]);
  hook.rerender({ text: "" });
  expect(hook.result.current).toEqual([]);
  hook.rerender({ text: "Dear you, hello" });
  await rest(800);
  expect(hook.result.current).toEqual([]);
});

test("nothing is asked where nothing is written", async () => {
  renderHook(() => useOtherNames(7, null));
  renderHook(() => useOtherNames(7, "  \n"));
  await rest(2000);
  expect(asked).toEqual([]);
});

test("an answer to older words is not waited for", async () => {
  let late: (response: Response) => void = () => undefined;
  answers = [() => new Promise((resolve) => (late = resolve)), named("Ines Duarte")];
  const hook = renderHook(({ text }) => useOtherNames(7, text), { initialProps: { text: "Otto" } });
  await rest(800);
  hook.rerender({ text: "Ines" });
  await rest(800);
  expect(asked[0]?.aborted()).toBe(true);
  expect(hook.result.current).toEqual(["Ines Duarte"]);
  late(Response.json({ names: ["Otto Berg"] }));
});

test.each([
  ["the server is away", () => Promise.reject(new Error("offline"))],
  ["it refuses", () => Promise.resolve(Response.json({ problem: "no" }, { status: 401 }))],
  ["its answer is none", () => Promise.resolve(Response.json({ other: 1 }))],
] as [string, () => Promise<Response>][])("what was found stays where %s", async (_what, answer) => {
  jest.spyOn(console, "warn").mockImplementation(() => undefined);
  answers = [named("Otto Berg"), answer];
  const hook = renderHook(({ text }) => useOtherNames(7, text), { initialProps: { text: "Otto" } });
  await rest(800);
  hook.rerender({ text: "Otto!" });
  await rest(800);
  expect(asked).toHaveLength(2);
  expect(hook.result.current).toEqual(["Otto Berg"]);
});
