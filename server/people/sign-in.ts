import type { EntityManager } from "@mikro-orm/postgresql";
import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";
import { Person } from "../db/entities/people";
import { startSession } from "./sessions";
import { verifyPassword } from "./password";

const WINDOW_SECONDS = 15 * 60;
const MOST_BY_ACCOUNT = 8;
const MOST_BY_ADDRESS = 60;

export type SignIn =
  | { ok: true; token: string }
  | { ok: false; reason: "unknown" }
  /** Too many failed tries; good again after so many seconds. */
  | { ok: false; reason: "too many"; seconds: number };

/**
 * Signs a person in by email and password. Failed tries are counted in the database, by account and by
 * network address; whether an account exists shows neither in the answer nor in its time.
 */
export async function signIn(
  em: EntityManager,
  input: { email: string; password: string; address: string },
  now: Date,
): Promise<SignIn> {
  const email = input.email.trim().toLowerCase();
  const limits = [
    { limiter: limiter(em, "account", MOST_BY_ACCOUNT), key: email.slice(0, 200) },
    { limiter: limiter(em, "address", MOST_BY_ADDRESS), key: input.address },
  ];
  const waits = await Promise.all(limits.map(({ limiter: one, key }) => secondsBlocked(one, key)));
  const seconds = Math.max(...waits);
  if (seconds > 0) return { ok: false, reason: "too many", seconds };
  const person = await em.findOne(Person, { email, active: true });
  if (!(await verifyPassword(input.password, person?.passwordHash ?? null)) || !person) {
    await Promise.all(limits.map(({ limiter: one, key }) => count(one, key)));
    return { ok: false, reason: "unknown" };
  }
  await limits[0]?.limiter.delete(email);
  return { ok: true, token: await startSession(em, person.id, now) };
}

function limiter(em: EntityManager, kind: string, points: number): RateLimiterPostgres {
  return new RateLimiterPostgres({
    storeClient: em.getConnection().getKnex(),
    storeType: "knex",
    tableName: "sign_in_limits",
    tableCreated: true,
    keyPrefix: kind,
    points,
    duration: WINDOW_SECONDS,
    clearExpiredByTimeout: false,
  });
}

async function secondsBlocked(one: RateLimiterPostgres, key: string): Promise<number> {
  const found = await one.get(key);
  return found !== null && found.consumedPoints >= one.points ? Math.ceil(found.msBeforeNext / 1000) : 0;
}

async function count(one: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await one.consume(key);
  } catch (error) {
    // Over the limit is what the next try will be told; anything else is a fault.
    if (!(error instanceof RateLimiterRes)) throw error;
  }
}
