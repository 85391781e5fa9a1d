import { expect, test } from "@jest/globals";
import { compose } from "../compose/compose";
import { testInput, testSlip } from "../compose/testing";
import { notLetThrough } from "./forwarder";
import { secondLook, stopsSending } from "./second-look";

const all = { noLinks: true, noAddresses: true, noNumbers: true, most: 120 };

function found(words: string, rules: Partial<typeof all> | null = {}) {
  const input = testInput([testSlip(words)], { signature: null, stationery: null });
  const checks = {
    ...{ ...input, letter: compose(input), recipient: "jo@example.org", languageOf: () => null },
    ...{ standing: { is: "known" as const, news: null, confirmed: false }, otherNames: [], sentReplies: [] },
    forwarder: rules === null ? null : { name: "Boat Market", rules: { ...all, ...rules } },
  };
  const here = notLetThrough(checks);
  expect(secondLook(checks).filter(({ code }) => code.startsWith("forwarder"))).toEqual(here);
  expect(stopsSending(here)).toBe(here.length > 0);
  return here.map(({ code, message }) => [code, /“(.+)”/.exec(message)?.[1]]);
}

test("links, addresses and telephone numbers stop it, wherever they come from", () => {
  expect(found("See www.example.com/fares or example.org.")).toEqual([
    ["forwarder-link", "www.example.com/fares"],
    ["forwarder-link", "example.org"],
  ]);
  expect(found("[our page](https://example.com/x)")).toEqual([["forwarder-link", "https://example.com/x"]]);
  expect(found("Write to desk@example.com.")).toEqual([["forwarder-address", "desk@example.com"]]);
  expect(found("We have {$customer.email}.")).toEqual([["forwarder-address", "ottoline@example.org"]]);
  for (const number of ["+44 20 7946 0331", "020 7946 0331", "(020) 7946-0331", "0207.946.0331"])
    expect(found(`Call ${number}.`)).toEqual([["forwarder-number", number]]);
});

test("what only looks like it passes: references, days, times, amounts", () => {
  for (const words of [
    "QW7-K2M on 2026-11-27 07:40",
    "the 07:40 on 27.11.2026",
    "118 EUR for 2 people",
    "Order 123456",
  ])
    expect(found(words)).toEqual([]);
});

test("each rule is by itself, and nothing is told where nobody forwards", () => {
  const words = "Write to desk@example.com, see www.example.com, call +44 20 7946 0331.";
  expect(found(words, { noLinks: false }).map(([code]) => code)).toEqual([
    "forwarder-address",
    "forwarder-number",
  ]);
  expect(found(words, { noAddresses: false, noNumbers: false }).map(([code]) => code)).toEqual([
    "forwarder-link",
  ]);
  expect(found(words, null)).toEqual([]);
  expect(found("x".repeat(120))).toEqual([]);
  expect(found("x".repeat(121)).map(([code]) => code)).toEqual(["forwarder-length"]);
  expect(found("x".repeat(121), { most: 5000 })).toEqual([]);
});
