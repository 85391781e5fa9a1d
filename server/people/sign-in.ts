import type { EntityManager } from "@mikro-orm/postgresql";
import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";
import { Person } from "../db/entities/people";
import { isSame, proofOf as ownProof } from "../proof";
import { startSession, type Where } from "./sessions";
import { verifyPassword } from "./password";

const WINDOW_SECONDS = 15 * 60;
/** Tries in that time, each counted before it is looked at. */
const MOST = {
  /** On one account from one address. */
  pair: 8,
  /** From one address, on whatever account. */
  address: 60,
  /** On one account from anywhere, by devices that have never signed in to it. */
  account: 60,
  /** On one account by a device that has signed in to it before, whatever happens elsewhere. */
  device: 20,
};

export type SignIn =
  | { ok: true; token: string; device: string }
  | { ok: false; reason: "unknown" }
  /** Too many tries; good again after so many seconds. */
  | { ok: false; reason: "too many"; seconds: number };

export interface SignInInput {
  email: string;
  password: string;
  address: string;
  browser: string | null;
  /** What the browser was given when it signed in before; null for one that never did. */
  device: string | null;
}

interface Limit {
  limiter: RateLimiterPostgres;
  key: string;
}

/**
 * Signs a person in by email and password. Tries are counted in the database before the password is looked at, by
 * account and network address together; nobody can lock a colleague out whose browser has signed in before.
 * Whether an account exists shows neither in the answer nor in its time.
 */
export async function signIn(em: EntityManager, input: SignInInput, now: Date): Promise<SignIn> {
  const email = input.email.trim().toLowerCase();
  const account = email.slice(0, 150);
  const limits: Limit[] =
    input.device !== null && isDeviceOf(input.device, email)
      ? [{ limiter: limiter(em, "device", MOST.device), key: `${account} ${idOf(input.device)}` }]
      : [
          { limiter: limiter(em, "pair", MOST.pair), key: `${account} ${input.address}` },
          { limiter: limiter(em, "address", MOST.address), key: input.address },
          { limiter: limiter(em, "account", MOST.account), key: account },
        ];
  const waits = await Promise.all(limits.map(count));
  const seconds = Math.max(...waits);
  if (seconds > 0) return { ok: false, reason: "too many", seconds };
  const person = await em.findOne(Person, { email, active: true });
  if (!(await verifyPassword(input.password, person?.passwordHash ?? null)) || !person)
    return { ok: false, reason: "unknown" };
  // Only what went wrong counts.
  await Promise.all(limits.map(({ limiter: one, key }) => one.reward(key, 1)));
  await limits[0]?.limiter.delete(limits[0].key);
  const where: Where = { browser: input.browser, address: input.address };
  return {
    ok: true,
    token: await startSession(em, person.id, now, where),
    device: deviceFor(input.device, email),
  };
}

/** Most accounts that one browser is known for. */
const MOST_ACCOUNTS = 5;

/** What a browser keeps to be known by: an id of its own, and a proof for each account that it signed in to. */
function deviceFor(known: string | null, email: string): string {
  const id = known === null ? crypto.randomUUID() : idOf(known);
  const proofs = known === null ? [] : known.split(".").slice(1);
  return [id, ...new Set([proofOf(id, email), ...proofs])].slice(0, MOST_ACCOUNTS + 1).join(".");
}

function idOf(device: string): string {
  return (device.split(".")[0] ?? "").slice(0, 40);
}

function isDeviceOf(device: string, email: string): boolean {
  const wanted = proofOf(idOf(device), email);
  return device
    .split(".")
    .slice(1, MOST_ACCOUNTS + 1)
    .some((proof) => isSame(proof, wanted));
}

function proofOf(id: string, email: string): string {
  return ownProof(`device ${id} ${email}`, "base64url");
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

/** Counts a try. @returns for how many seconds no more are taken; 0 where this one is */
async function count({ limiter: one, key }: Limit): Promise<number> {
  try {
    await one.consume(key);
    return 0;
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    return Math.max(1, Math.ceil(error.msBeforeNext / 1000));
  }
}
