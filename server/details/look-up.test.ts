import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { Case, CaseLookup } from "../db/entities/cases";
import { query } from "../db/sql";
import { testCase, testHouse, type TestHouse } from "../testing";
import type { TokenType } from "#core/tokens/catalogue";
import { DetailField, DetailSource } from "../db/entities/cases";
import { settingsOf } from "../house/settings";
import { readOpenCase } from "../answering/open";
import { houseRanker } from "../ranking/house-ranker";
import { lookUp, noteReferences } from "./look-up";
import { seal, unseal } from "./secrets";
import { listSources, removeSource, saveSource, trySource } from "./sources";
import { sourceSchema, type SourceInput } from "#core/forms/source";

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

const kinds: Record<string, TokenType> = {
  ...{ sails_at: "datetime", arrives_at: "datetime", check_in_at: "datetime", fare: "money" },
};

let house: TestHouse;
let asked: string[] = [];
let answer: (response: ServerResponse) => void;
const json = (status: number, body: unknown) => (response: ServerResponse) => {
  response.writeHead(status, { "content-type": "application/json" }).end(JSON.stringify(body));
};
const redirect = (response: ServerResponse) =>
  void response.writeHead(302, { location: "http://169.254.169.254/" }).end();
const tooMuch = (response: ServerResponse) => void response.writeHead(200).end(`"${"x".repeat(1_100_000)}"`);
let headers: IncomingMessage["headers"] = {};
const server = createServer((request: IncomingMessage, response) => {
  asked.push(request.url ?? "");
  headers = request.headers;
  answer(response);
});

beforeAll(async () => {
  process.env.STANDINS_PORT = String(PORT);
  process.env.STANDINS = "on";
  house = await testHouse();
  const bookings = house.em();
  const source = bookings.create(DetailSource, {
    ...{ key: "bookings", name: "The booking system", pattern: String.raw`\b[A-Z0-9]{3}-[A-Z0-9]{3}\b` },
    address: `http://127.0.0.1:${PORT}/bookings/{reference}`,
  });
  for (const [key, value] of Object.entries(booking)) {
    const type = kinds[key] ?? (typeof value === "number" ? "integer" : "text");
    const field = { key, label: key, path: `$.${key}`, example: "x", short: null, usual: null };
    bookings.create(DetailField, { ...field, source, type, always: value !== null });
  }
  await bookings.flush();
  await houseRanker(house.em()).ready();
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
const after = (minutes: number) => new Date(now.getTime() + minutes * 60_000);

async function caseWith(reference: string | null): Promise<number> {
  const { id } = await testCase(em());
  await query(em(), "update cases set booking_reference = ? where id = ?", [reference, id]);
  return id;
}
const known = (id: number) => em().findOne(CaseLookup, { case: id, source: "bookings" });

describe("looking a booking up", () => {
  test("keeps what the booking system says, and asks for the case's own booking", async () => {
    const id = await caseWith("QW7-K2M");
    expect(await lookUp(em(), id, now)).toBe(true);
    expect(asked).toEqual(["/bookings/QW7-K2M"]);
    expect(await known(id)).toMatchObject({ reference: "QW7-K2M", problem: null, data: booking });
  });

  test("asks nobody for a case without a booking, nor for one that is gone", async () => {
    const id = await caseWith(null);
    expect(await lookUp(em(), id, now)).toBe(true);
    expect(await lookUp(em(), 999_999, now)).toBe(true);
    expect(asked).toEqual([]);
    expect(await known(id)).toBeNull();
  });

  test("says that there is no such booking, forgets what was known, and does not ask again", async () => {
    const id = await caseWith("QW7-K2M");
    await lookUp(em(), id, now);
    answer = json(404, {});
    expect(await lookUp(em(), id, after(61))).toBe(true);
    expect(await known(id)).toMatchObject({ problem: "The booking system knows no QW7-K2M", data: null });
  });

  test.each([
    ["breaks", json(500, {}), "The booking system answers 500"],
    [
      "leads elsewhere",
      redirect,
      "The booking system leads elsewhere (302); set the address that it leads to",
    ],
    ["says too much", tooMuch, "The booking system is not asked: its answer is longer than a megabyte"],
    [
      "lacks what it always says",
      json(200, { ...booking, ship: null }),
      /cannot be read: ship: nothing stands/,
    ],
    ["answers something else", json(200, { ...booking, fare: "36 euros" }), /cannot be read: fare/],
    [
      "answers no JSON",
      (response: ServerResponse) => void response.writeHead(200).end("<html>"),
      "The booking system’s answer cannot be read: it is no JSON",
    ],
    [
      "hangs up",
      (response: ServerResponse) => void response.destroy(),
      "The booking system cannot be reached",
    ],
  ])("where the system %s, keeps what it said before and says so", async (_what, bad, problem) => {
    const id = await caseWith("QW7-K2M");
    await lookUp(em(), id, now);
    answer = bad;
    expect(await lookUp(em(), id, after(61))).toBe(false);
    expect(await known(id)).toMatchObject({
      problem: problem instanceof RegExp ? expect.stringMatching(problem) : problem,
      data: booking,
    });
  });

  test("asks once within the stated time, and anew after it; a case that is open has it asked by itself", async () => {
    const id = await caseWith("QW7-K2M");
    await lookUp(em(), id, now);
    await lookUp(em(), id, after(59));
    expect(asked).toHaveLength(1);
    const { number } = await em().findOneOrFail(Case, { id });
    const open = (at: Date) => readOpenCase(em(), house.maren, number, 0, at);
    expect((await open(after(59))).sources).toMatchObject([
      { key: "bookings", reference: "QW7-K2M", asked: true, found: true, old: false },
    ]);
    expect((await open(after(61))).sources).toMatchObject([{ old: true, readAt: now.toISOString() }]);
    await lookUp(em(), id, after(61));
    expect(asked).toHaveLength(2);
  });

  test("of what takes too long waits no longer than was set", async () => {
    await query(em(), "update detail_sources set timeout_seconds = 1");
    const id = await caseWith("QW7-K2M");
    answer = () => undefined;
    expect(await lookUp(em(), id, now)).toBe(false);
    expect(await known(id)).toMatchObject({ problem: "The booking system takes too long", data: null });
    await query(em(), "update detail_sources set timeout_seconds = 4");
  });

  test("what was known of another booking is not told of this one", async () => {
    const id = await caseWith("QW7-K2M");
    await lookUp(em(), id, now);
    await query(em(), "update cases set booking_reference = 'H4T-9PL' where id = ?", [id]);
    answer = json(503, {});
    expect(await lookUp(em(), id, after(61))).toBe(false);
    expect(await known(id)).toMatchObject({ reference: "H4T-9PL", data: null });
    expect(await em().findOneOrFail(Case, { id })).toMatchObject({ bookingReference: "H4T-9PL" });
  });
});

const lead = () => ({ ...house.maren, role: "lead" as const });
const parcels = (changes: Partial<SourceInput> = {}): SourceInput => ({
  ...{
    name: "Parcels",
    address: `http://127.0.0.1:${PORT}/parcels/{reference}`,
    pattern: "parcel ([0-9]{6})",
  },
  ...{ timeoutSeconds: 2, cacheMinutes: 10 },
  headers: [{ name: "Authorization", value: "Bearer of-bad-news" }],
  fields: [
    { key: "", label: "Where it is", type: "text", path: "$.at.place", isShown: true, always: true },
    { key: "", label: "Weight", type: "number", path: "$.kilos", isShown: false, always: false },
  ],
  ...changes,
});
const rowOf = async (id: number) => {
  const row = (await listSources(em(), lead())).find((one) => one.id === id);
  if (!row) throw new Error("It is not listed");
  return row;
};
const withoutHeaders = async (id: number, changes: Partial<SourceInput> = {}) => {
  const { fields } = await rowOf(id);
  return parcels({
    headers: [{ name: "Authorization", value: "" }],
    fields: fields.map(({ name: _, uses: __, ...field }) => field),
    ...changes,
  });
};

describe("a source that a lead sets", () => {
  let id = 0;
  beforeAll(async () => {
    id = await saveSource(em(), lead(), null, parcels());
  });

  test("is asked where messages name its reference, and what it says are tokens", async () => {
    const made = await testCase(em());
    answer = json(200, { at: { place: "Tarn Head" }, kilos: "2.5" });
    const booking = await em().transactional((inner) =>
      noteReferences(inner, made.id, "Where is parcel 123456? Not parcel 999999."),
    );
    expect(booking).toBeNull();
    expect(await lookUp(em(), made.id, now)).toBe(true);
    expect(asked).toEqual(["/parcels/123456"]);
    expect(headers.authorization).toBe("Bearer of-bad-news");
    const open = await readOpenCase(em(), house.maren, made.number, 0, now);
    expect(open.context.detail).toEqual({ parcels_where_it_is: "Tarn Head", parcels_weight: 2.5 });
    expect(open.sources.map(({ key, reference }) => [key, reference])).toEqual([
      ["bookings", null],
      ["parcels", "123456"],
    ]);
  });

  test("beside another is asked by its own reference, each once", async () => {
    const made = await testCase(em());
    const note = (words: string) => em().transactional((inner) => noteReferences(inner, made.id, words));
    expect(await note("booking QW7-K2M and parcel 123456")).toBe("QW7-K2M");
    expect(await note("booking H4T-9PL and parcel 654321")).toBeNull();
    expect(await em().findOneOrFail(Case, { id: made.id })).toMatchObject({ bookingReference: "QW7-K2M" });
    await lookUp(em(), made.id, now);
    expect(asked.sort()).toEqual(["/bookings/QW7-K2M", "/parcels/123456"]);
  });

  test("never shows its headers again, which are kept sealed, and stay where nothing is written", async () => {
    expect(await rowOf(id)).toMatchObject({ headers: ["Authorization"] });
    const [{ text } = { text: "" }] = await query<{ text: string }>(
      em(),
      "select headers::text as text from detail_sources where id = ?",
      [id],
    );
    expect(text).not.toContain("bad-news");
    await saveSource(em(), lead(), id, await withoutHeaders(id));
    const made = await testCase(em(), "parcel 123456");
    answer = json(200, { at: { place: "x" } });
    expect(await trySource(em(), lead(), id, made.number)).toMatchObject({
      reference: "123456",
      problem: null,
    });
    expect(headers.authorization).toBe("Bearer of-bad-news");
    const bare = parcels({ headers: [{ name: "X-Key", value: "" }] });
    await expect(saveSource(em(), lead(), id, bare)).rejects.toThrow("Write what the header X-Key says");
  });

  test("tells a trial what it says, what went wrong, and that no reference was found", async () => {
    const made = await testCase(em(), "my parcel 123456");
    answer = json(200, { at: { place: "Pellick" } });
    const trial = () => trySource(em(), lead(), id, made.number);
    expect(await trial()).toMatchObject({
      values: [
        { label: "Where it is", value: "Pellick" },
        { label: "Weight", value: null },
      ],
    });
    answer = json(401, {});
    expect(await trial()).toMatchObject({ problem: "Parcels answers 401" });
    const other = await testCase(em(), "no number");
    expect(await trySource(em(), lead(), id, other.number)).toMatchObject({ reference: null, took: 0 });
    expect(await em().count(CaseLookup, { case: made.id })).toBe(0);
    await expect(trySource(em(), lead(), id, 1)).rejects.toThrow("There is no case 1");
    await expect(trySource(em(), lead(), 9999, made.number)).rejects.toThrow("no such detail source");
  });

  test.each([
    "http://127.0.0.1:1/{reference}",
    "http://localhost:1/{reference}",
    "http://169.254.169.254/{reference}",
  ])("is not asked in a private network: %s", async (address) => {
    await saveSource(em(), lead(), id, await withoutHeaders(id, { address }));
    const made = await testCase(em(), "parcel 123456");
    const { problem } = await trySource(em(), lead(), id, made.number);
    expect(problem).toMatch(/^Parcels is not asked: it is at .*private network that is not allowed$/);
    await saveSource(em(), lead(), id, await withoutHeaders(id));
  });

  test("keeps the fields that replies read, of their kind", async () => {
    await query(em(), "update reply_variants set subject = '{$detail.parcels_weight}' where title is null");
    const { fields } = await rowOf(id);
    expect(fields.find((field) => field.key === "weight")?.uses.length).toBeGreaterThan(0);
    const changed = async (change: (field: SourceInput["fields"][number]) => object | null) => {
      const input = await withoutHeaders(id);
      const next = input.fields.flatMap((field) => {
        const made = change(field);
        return made === null ? [] : [{ ...field, ...made }];
      });
      return saveSource(em(), lead(), id, { ...input, fields: next });
    };
    await expect(changed((one) => (one.key === "weight" ? null : {}))).rejects.toThrow("Weight");
    await expect(changed((one) => (one.key === "weight" ? { type: "text" } : {}))).rejects.toThrow("Weight");
    await expect(removeSource(em(), lead(), id)).rejects.toThrow("Weight");
    await changed((one) => (one.key === "weight" ? { label: "Kilos", path: "$.kg" } : {}));
    expect((await rowOf(id)).fields[1]).toMatchObject({ key: "weight", label: "Kilos", path: "$.kg" });
    await query(em(), "update reply_variants set subject = null where title is null");
  });

  test("is refused with a pattern or a path that cannot be used, and for who is no lead", async () => {
    await expect(saveSource(em(), lead(), null, parcels({ pattern: "(" }))).rejects.toThrow("closing");
    const path = "$.a[?(@.b)]";
    const bad = parcels({
      fields: [{ key: "", label: "x", type: "text", path, isShown: true, always: false }],
    });
    await expect(saveSource(em(), lead(), null, bad)).rejects.toThrow("x: A path leads to a value");
    await expect(saveSource(em(), lead(), 9999, parcels())).rejects.toThrow("no such detail source");
    for (const done of [
      listSources(em(), house.maren),
      saveSource(em(), house.maren, null, parcels()),
      removeSource(em(), house.maren, id),
      trySource(em(), house.maren, id, 1),
    ])
      await expect(done).rejects.toThrow("This is for a lead");
  });

  test("is gone with all that it said", async () => {
    const other = await saveSource(em(), lead(), null, parcels({ name: "Parcels" }));
    expect((await settingsOf(em())).sources.map(({ key }) => key)).toContain("parcels_2");
    const made = await testCase(em());
    await em().transactional((inner) => noteReferences(inner, made.id, "parcel 123456"));
    expect(await em().count(CaseLookup, { case: made.id })).toBe(2);
    await removeSource(em(), lead(), other);
    expect(await em().count(CaseLookup, { case: made.id })).toBe(1);
    await expect(removeSource(em(), lead(), other)).rejects.toThrow("no such detail source");
  });
});

describe("the form of a source", () => {
  test.each([
    [{ address: "https://x.example.com/b" }],
    [{ address: "https://{reference}.example.com/" }],
    [{ address: "https://example.com{reference}/" }],
    [{ address: "ftp://x.example.com/{reference}" }],
    [{ address: "file:///{reference}" }],
    [{ timeoutSeconds: 0 }],
    [{ timeoutSeconds: 31 }],
    [{ cacheMinutes: 0 }],
    [{ name: " " }],
    [{ headers: [{ name: "Host", value: "x" }] }],
    [{ headers: [{ name: "X Y", value: "x" }] }],
    [{ headers: [{ name: "X", value: "a\r\nB: c" }] }],
    [{ fields: [{ key: "", label: "x", type: "colour", path: "$", isShown: true, always: false }] }],
  ])("refuses %j", (changes) => {
    expect(sourceSchema.safeParse({ ...parcels(), ...changes }).success).toBe(false);
  });

  test("takes a reference in what is asked behind the host", () => {
    for (const address of ["https://x.example.com/?r={reference}", "https://x.example.com?r={reference}"])
      expect(sourceSchema.safeParse(parcels({ address })).success).toBe(true);
  });
});

test("what is sealed is opened by the same secret alone, unchanged, and reads otherwise each time", () => {
  const sealed = seal("Bearer ünïcode");
  expect(unseal(sealed)).toBe("Bearer ünïcode");
  expect(seal("Bearer ünïcode")).not.toBe(sealed);
  const bytes = Buffer.from(sealed, "base64");
  bytes[bytes.length - 1] = (bytes.at(-1) ?? 0) ^ 1;
  expect(unseal(bytes.toString("base64"))).toBeNull();
  expect(unseal("short")).toBeNull();
});
