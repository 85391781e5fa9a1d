import { expect, jest, test } from "@jest/globals";
import { forgetScreens, steadily } from "./stale";

const toSignIn = jest
  .fn<() => Promise<{ words: string }>>()
  .mockRejectedValue(new Response(null, { status: 302, headers: { Location: "/sign-in?to=/cases/7" } }));

test("a screen whose session ended keeps what it knew of the same place, until somebody signs out", async () => {
  const load = steadily<{ words: string }>();
  expect(await load("7", () => Promise.resolve({ words: "hers" }))).toEqual({ words: "hers", stale: null });
  expect(await load("7", toSignIn)).toEqual({ words: "hers", stale: "signed out" });
  await expect(load("8", toSignIn)).rejects.toBeInstanceOf(Response);
  forgetScreens();
  await expect(load("7", toSignIn)).rejects.toBeInstanceOf(Response);
});

test("a server that does not answer leaves the screen; one that says it is gone does not", async () => {
  const load = steadily<{ words: string }>();
  await load("7", () => Promise.resolve({ words: "known" }));
  expect(await load("7", () => Promise.reject(new TypeError("offline")))).toMatchObject({
    stale: "unreachable",
  });
  const gone = () => Promise.reject(Object.assign(new Error("gone"), { status: 404 }));
  await expect(load("7", gone)).rejects.toThrow("gone");
});
