import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { Case, CaseLookup } from "../db/entities/cases";
import { query } from "../db/sql";
import { testCase, testHouse, type TestHouse } from "../testing";
import { bookingReferenceIn, lookUpBooking } from "./bookings";

const PORT = 31_000 + (process.pid % 9000);
const booking = {
  reference: "QW7-K2M",
  status: "confirmed",
  cause: null,
  lead_name: "A. Number",
  sails_at: "2026-11-27T07:40:00+00:00",
  arrives_at: "2026-11-27T09:25:00+00:00",
  check_in_at: "2026-11-27T06:55:00+00:00",
  from: "Tarn Head",
  to: "Pellick",
  ship: "Kittiwake",
  fare: { amount: 36, currency: "EUR" },
  passengers: 1,
  vehicle: null,
  vehicle_height: null,
  animals: null,
  new_sails_at: null,
  new_arrives_at: null,
  new_ship: null,
};

let house: TestHouse;
let asked: string[] = [];
let answer: (response: ServerResponse) => void;
const json = (status: number, body: unknown) => (response: ServerResponse) => {
  response.writeHead(status, { "content-type": "application/json" }).end(JSON.stringify(body));
};
const server = createServer((request: IncomingMessage, response) => {
  asked.push(request.url ?? "");
  answer(response);
});

beforeAll(async () => {
  process.env.STANDINS_PORT = String(PORT);
  house = await testHouse();
  await new Promise<void>((resolve) => server.listen(PORT, "127.0.0.1", resolve));
});
afterAll(async () => {
  server.closeAllConnections();
  await new Promise<void>((resolve) => server.close(() => resolve()));
  await house.close();
});
beforeEach(() => {
  asked = [];
  answer = json(200, booking);
});

const em = () => house.em();
const now = new Date("2026-11-25T10:00:00Z");

async function caseWith(reference: string | null): Promise<number> {
  const { id } = await testCase(em());
  await query(em(), "update cases set booking_reference = ? where id = ?", [reference, id]);
  return id;
}
const known = (id: number) => em().findOne(CaseLookup, { case: id, source: "bookings" });

test.each([
  ["about QW7-K2M, please", "QW7-K2M"],
  ["(H4T-9PL) and MA1-R7A", "H4T-9PL"],
  ["no booking here", null],
  ["qw7-k2m in small letters", null],
  ["ABC-DEF has no digit", null],
  ["123-456 has no letter", null],
  ["XQW7-K2MX is longer", null],
])("the reference in “%s” is %s", (text, reference) => {
  expect(bookingReferenceIn(text)).toBe(reference);
});

describe("looking a booking up", () => {
  test("keeps what the booking system says, and asks for the case's own booking", async () => {
    const id = await caseWith("QW7-K2M");
    expect(await lookUpBooking(em(), id, now)).toBe(true);
    expect(asked).toEqual(["/bookings/QW7-K2M"]);
    expect(await known(id)).toMatchObject({ reference: "QW7-K2M", problem: null, data: booking });
  });

  test("asks nobody for a case without a booking, nor for one that is gone", async () => {
    const id = await caseWith(null);
    expect(await lookUpBooking(em(), id, now)).toBe(true);
    expect(await lookUpBooking(em(), 999_999, now)).toBe(true);
    expect(asked).toEqual([]);
    expect(await known(id)).toBeNull();
  });

  test("says that there is no such booking, forgets what was known, and does not ask again", async () => {
    const id = await caseWith("QW7-K2M");
    await lookUpBooking(em(), id, now);
    answer = json(404, {});
    expect(await lookUpBooking(em(), id, now)).toBe(true);
    expect(await known(id)).toMatchObject({ problem: "There is no booking QW7-K2M", data: null });
  });

  test.each([
    ["breaks", json(500, {}), "The booking system answers 500"],
    ["answers something else", json(200, { ...booking, fare: "36 euros" }), /cannot be read: fare/],
    [
      "answers no JSON",
      (response: ServerResponse) => void response.writeHead(200).end("<html>"),
      "The booking system cannot be reached",
    ],
    [
      "hangs up",
      (response: ServerResponse) => void response.destroy(),
      "The booking system cannot be reached",
    ],
  ])("where the system %s, keeps what it said before and says so", async (_what, bad, problem) => {
    const id = await caseWith("QW7-K2M");
    await lookUpBooking(em(), id, now);
    answer = bad;
    expect(await lookUpBooking(em(), id, now)).toBe(false);
    expect(await known(id)).toMatchObject({
      problem: problem instanceof RegExp ? expect.stringMatching(problem) : problem,
      data: booking,
    });
  });

  test("what was known of another booking is not told of this one", async () => {
    const id = await caseWith("QW7-K2M");
    await lookUpBooking(em(), id, now);
    await query(em(), "update cases set booking_reference = 'H4T-9PL' where id = ?", [id]);
    answer = json(503, {});
    expect(await lookUpBooking(em(), id, now)).toBe(false);
    expect(await known(id)).toMatchObject({ reference: "H4T-9PL", data: null });
    expect(await em().findOneOrFail(Case, { id })).toMatchObject({ bookingReference: "H4T-9PL" });
  });
});
