import { expect, test } from "@jest/globals";
import { z } from "zod";
import { Unusable } from "../errors";
import { readBody, readForm, readQuery } from "./body";

const post = (body: string, type = "application/json") =>
  new Request("https://here.example.com/x", { method: "POST", body, headers: { "Content-Type": type } });
const anything = z.unknown();

test.each([
  ["no JSON", "{", /no JSON/],
  ["nothing", "", /no JSON/],
  ["a NUL", '{"a":["x\\u0000"]}', /^a\.0 holds a NUL character/],
  ["half a character", '{"a":"\\ud800"}', /^a holds half a character/],
  ["a key with a NUL", '{"a\\u0000":1}', /NUL/],
  ["a great depth", `${"[".repeat(50_000)}${"]".repeat(50_000)}`, /nested deeper than 100 levels/],
  ["very many parts", `[${"1,".repeat(300_000)}1]`, /more than 200000 parts/],
])("a request with %s is refused in words", async (_name, body, words) => {
  await expect(readBody(post(body), anything)).rejects.toThrow(words);
  await expect(readBody(post(body), anything)).rejects.toThrow(Unusable);
});

test("a form that is none, and one with a NUL, are refused; an address too", async () => {
  await expect(readForm(post("{}"))).rejects.toThrow(/no form/);
  await expect(readForm(post("a=%00", "application/x-www-form-urlencoded"))).rejects.toThrow(
    /^a holds a NUL/,
  );
  expect(() => readQuery(new Request("https://here.example.com/?q=%00"), anything)).toThrow(/^q holds a NUL/);
});

test("what is in order is read by its schema", async () => {
  expect(await readBody(post('{"a":"🚢"}'), z.strictObject({ a: z.string() }))).toEqual({ a: "🚢" });
});
