import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { NotAllowed, NotFound } from "../errors";
import { query } from "../db/sql";
import { writeFaults } from "../outside/mailboxes";
import { testHouse, type TestHouse } from "../testing";
import { hashPassword, verifyPassword } from "./password";
import { endSession, endSessions, findSession, sessionsOf, startSession, sweepSessions } from "./sessions";
import { signIn } from "./sign-in";

let house: TestHouse;
beforeAll(async () => {
  process.env.DATABASE_URL = "postgresql://unused.example.com/x";
  house = await testHouse();
});
afterAll(() => house.close());

const now = new Date("2026-11-25T10:00:00Z");
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);

describe("passwords", () => {
  test("are kept as scrypt with a salt of their own, and compared by what they are", async () => {
    const [one, two] = [await hashPassword("kittiwake"), await hashPassword("kittiwake")];
    expect(one).not.toBe(two);
    expect(one).toMatch(/^scrypt\$32768\$8\$1\$/);
    expect(await verifyPassword("kittiwake", one)).toBe(true);
    expect(await verifyPassword("Kittiwake", one)).toBe(false);
    expect(await verifyPassword("kittiwake", null)).toBe(false);
  });
});

describe("sessions", () => {
  test("are found by their token, which the database does not hold", async () => {
    const token = await startSession(house.em(), house.maren.id, now);
    expect(await findSession(house.em(), token, later(1))).toMatchObject({
      viewer: { name: "Maren Test", role: "curator" },
      freshToken: null,
    });
    expect(await findSession(house.em(), `${token}x`, later(1))).toBeNull();
    const rows = await query<{ all: string }>(
      house.em(),
      "select string_agg(s::text, '') as all from sessions s",
    );
    expect(rows[0]?.all).not.toContain(token);
  });

  test("take a new token now and then; the old one is good for a moment only", async () => {
    const token = await startSession(house.em(), house.maren.id, now);
    const rotated = await findSession(house.em(), token, later(31));
    const fresh = rotated?.freshToken ?? "";
    expect(fresh).not.toBe("");
    expect(await findSession(house.em(), token, later(31.5))).toMatchObject({ freshToken: null });
    expect(await findSession(house.em(), fresh, later(40))).not.toBeNull();
    expect(await findSession(house.em(), token, later(40))).toBeNull();
  });

  test("end with signing out, with time, and with the person", async () => {
    const token = await startSession(house.em(), house.bram.id, now);
    await endSession(house.em(), token);
    expect(await findSession(house.em(), token, later(1))).toBeNull();
    const old = await startSession(house.em(), house.bram.id, now);
    expect(await findSession(house.em(), old, later(15 * 24 * 60))).toBeNull();
    await sweepSessions(house.em(), later(15 * 24 * 60));
    expect(await findSession(house.em(), old, now)).toBeNull();
    const gone = await startSession(house.em(), house.bram.id, now);
    await query(house.em(), "update people set active = false where id = ?", [house.bram.id]);
    expect(await findSession(house.em(), gone, later(1))).toBeNull();
    await query(house.em(), "update people set active = true where id = ?", [house.bram.id]);
  });
});

describe("a person's own sessions", () => {
  test("are seen and ended by them alone", async () => {
    const where = { browser: "Firefox", address: "192.0.2.9" };
    const [one, two] = [
      await startSession(house.em(), house.maren.id, now, where),
      await startSession(house.em(), house.maren.id, later(1)),
    ];
    const own = await findSession(house.em(), two, later(2));
    const listed = await sessionsOf(house.em(), house.maren, later(2));
    expect(listed).toContainEqual(expect.objectContaining(where));
    await expect(endSessions(house.em(), house.bram, { id: own?.id ?? 0 })).rejects.toThrow(NotFound);
    await endSessions(house.em(), house.maren, { allBut: own?.id ?? 0 });
    expect(await findSession(house.em(), one, later(3))).toBeNull();
    expect(await findSession(house.em(), two, later(3))).not.toBeNull();
  });

  test("end for good when they are sixty days old, however much they are used", async () => {
    let token = await startSession(house.em(), house.maren.id, now);
    for (let day = 1; day < 60; day += 1) {
      const found = await findSession(house.em(), token, later(day * 24 * 60));
      token = found?.freshToken ?? token;
    }
    expect(await findSession(house.em(), token, later(59.5 * 24 * 60))).not.toBeNull();
    expect(await findSession(house.em(), token, later(60.5 * 24 * 60))).toBeNull();
  });
});

describe("signing in", () => {
  const attempt = (
    password: string,
    email = "maren@example.com",
    address = "192.0.2.1",
    device: string | null = null,
  ) => signIn(house.em(), { email, password, address, device, browser: null }, now);

  test("works in any letter case of the address, and tells nothing about who exists", async () => {
    expect(await attempt("kittiwake", " Maren@Example.com ")).toMatchObject({ ok: true });
    expect(await attempt("wrong")).toEqual(await attempt("wrong", "nobody@example.com"));
  });

  test("is stopped after too many failed tries on an account from one address, also when they come at once", async () => {
    const tries = await Promise.all(
      Array.from({ length: 100 }, () => attempt("wrong", "bram@example.com", "192.0.2.10")),
    );
    expect(tries.filter((one) => !one.ok && one.reason === "unknown")).toHaveLength(8);
    expect(await attempt("kittiwake", "bram@example.com", "192.0.2.10")).toMatchObject({
      ok: false,
      reason: "too many",
    });
  });

  test("nobody locks a colleague out: elsewhere, and on a device that has signed in before, it goes on", async () => {
    const signed = await attempt("kittiwake", "maren@example.com", "192.0.2.50");
    const device = signed.ok ? signed.device : null;
    for (let tries = 0; tries < 70; tries += 1)
      await attempt("wrong", "maren@example.com", `203.0.113.${tries}`);
    expect(await attempt("kittiwake", "maren@example.com", "203.0.113.200")).toMatchObject({ ok: false });
    expect(await attempt("kittiwake", "maren@example.com", "192.0.2.50", device)).toMatchObject({ ok: true });
    // What proves one account proves no other.
    for (let tries = 0; tries < 9; tries += 1)
      await attempt("wrong", "bram@example.com", "192.0.2.51", device);
    expect(await attempt("kittiwake", "bram@example.com", "192.0.2.51", device)).toMatchObject({ ok: false });
  }, 120_000);

  test("is stopped after too many failed tries from one address, on whatever account", async () => {
    const failures = Array.from({ length: 60 }, (_, index) =>
      attempt("wrong", `guess${index}@example.com`, "198.51.100.7"),
    );
    await Promise.all(failures);
    expect(await attempt("kittiwake", "someone@example.com", "198.51.100.7")).toMatchObject({
      ok: false,
      reason: "too many",
    });
  });
});

test("a server function checks the role itself", async () => {
  await expect(
    writeFaults(house.bram, {
      mail: "refuses",
      bookings: "fine",
      sms: "fine",
      chat: "fine",
      bookingDelay: 0,
    }),
  ).rejects.toThrow(NotAllowed);
});
