import { referenceIn } from "#core/details/source";
import { BOOKING_REFERENCE } from "./bookings";
import { describe, expect, test } from "@jest/globals";
import { ferryDetails } from "./details";
import { lint } from "#core/checks/lint";
import { readDemo } from "./read";
import { clockTime } from "./time";

describe("the demo", () => {
  test("has enough of everything, and its files agree with each other", async () => {
    const { house, customers, conversations, bookings, library } = await readDemo();
    expect(library.replies.length).toBeGreaterThanOrEqual(60);
    expect(house.people).toHaveLength(6);
    expect(conversations.length).toBeGreaterThanOrEqual(300);
    const known = new Set(customers.customers.map((customer) => customer.key));
    const replies = new Set(library.replies.map((reply) => reply.id));
    const organisations = new Set(customers.organisations.map((one) => one.key));
    expect(conversations.filter((one) => !known.has(one.who)).map((one) => one.who)).toEqual([]);
    expect(
      conversations
        .flatMap((one) => one.messages.flatMap((said) => ("with" in said ? said.with : [])))
        .filter((key) => !replies.has(key)),
    ).toEqual([]);
    expect(
      conversations
        .flatMap((one) => one.booking ?? [])
        .filter((reference) => !Object.hasOwn(bookings, reference)),
    ).toEqual([]);
    expect(
      customers.customers.flatMap((one) => one.organisation ?? []).filter((key) => !organisations.has(key)),
    ).toEqual([]);
  });

  test("names only addresses that are kept for examples, each once", async () => {
    const { house, customers } = await readDemo();
    const addresses = [
      ...customers.customers.map((one) => one.email),
      ...house.people.map((one) => one.email),
      ...house.teams.map((one) => one.mailbox),
    ];
    expect(addresses.filter((address) => !/@example\.(?:org|com|net)$/.test(address))).toEqual([]);
    expect(new Set(addresses).size).toBe(addresses.length);
  });

  test("has a library without findings but a fact for the stationery and bookings without a new sailing", async () => {
    const { library } = await readDemo();
    const messages = lint(library, [], ferryDetails, new Date().toISOString()).map(
      (finding) => finding.message,
    );
    expect([...new Set(messages)]).toEqual([
      "The ship of the new sailing may be missing (not every booking says it), and nothing stands in for it",
      "The new sailing may be missing (not every booking says it), and nothing stands in for it",
      "The arrival of the new sailing may be missing (not every booking says it), and nothing stands in for it",
      "No reply uses the house fact “address”",
    ]);
  });
});

test("clock times are those of the house's zone, over the change of clocks too", () => {
  expect(clockTime(new Date("2026-10-24T12:00:00Z"), 0, "07:40", "Europe/London")).toBe(
    "2026-10-24T06:40:00.000Z",
  );
  expect(clockTime(new Date("2026-10-24T12:00:00Z"), 1, "07:40", "Europe/London")).toBe(
    "2026-10-25T07:40:00.000Z",
  );
  expect(clockTime(new Date("2026-11-25T23:30:00Z"), 0, "06:00", "Pacific/Auckland")).toBe(
    "2026-11-25T17:00:00.000Z",
  );
});

test.each([
  ["about QW7-K2M, please", "QW7-K2M"],
  ["(H4T-9PL) and MA1-R7A", "H4T-9PL"],
  ["no booking here", null],
  ["qw7-k2m in small letters", null],
  ["ABC-DEF has no digit", null],
  ["123-456 has no letter", null],
  ["XQW7-K2MX is longer", null],
])("the reference in “%s” is %s", (text, reference) => {
  expect(referenceIn(BOOKING_REFERENCE, text)).toBe(reference);
});
