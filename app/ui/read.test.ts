import { afterEach, expect, jest, test } from "@jest/globals";
import { readFrom } from "./read";

afterEach(() => {
  jest.restoreAllMocks();
});

const answers = (answer: Promise<Response>) => jest.spyOn(globalThis, "fetch").mockReturnValue(answer);
const read = () => readFrom("/cases/1/strip?q=dog", new AbortController().signal);

test("what the server gives is read, as JSON", async () => {
  const fetched = answers(Promise.resolve(Response.json({ replies: [] })));
  expect(await read()).toEqual({ replies: [] });
  expect(fetched.mock.lastCall?.[1]?.headers).toEqual({ Accept: "application/json" });
});

test.each([
  ["a refusal", Response.json({ problem: "Too many searches; wait a little" }, { status: 429 }), /^Too many/],
  ["a failure without words", new Response("<html>", { status: 502 }), "the server answered 502"],
  ["what is no JSON", new Response("<html>"), "the server answered 200"],
])("%s is told in words", async (_what, response, words) => {
  answers(Promise.resolve(response));
  await expect(read()).rejects.toThrow(words);
});

test("a server that cannot be reached is told so", async () => {
  answers(Promise.reject(new TypeError("Failed to fetch")));
  await expect(read()).rejects.toThrow("the server cannot be reached");
});
