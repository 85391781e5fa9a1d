import { Unusable } from "../errors";
import { randomBytes, scrypt, timingSafeEqual } from "node:crypto";
import { t } from "../words";

/** Cost of scrypt (RFC 7914): 2^15 · 8 takes about 32 MB and 80 ms. */
const COST = { N: 32_768, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };
const KEY_LENGTH = 32;

function derive(password: string, salt: Buffer, cost: typeof COST): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scrypt(password.normalize("NFKC"), salt, KEY_LENGTH, cost, (error, key) => {
      if (error) reject(error);
      else resolve(key);
    });
  });
}

/** Hashes a password. @returns `scrypt$N$r$p$salt$key`, salt and key in base64url */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(password, salt, COST);
  return ["scrypt", COST.N, COST.r, COST.p, salt.toString("base64url"), key.toString("base64url")].join("$");
}

/** A hash that no password has, to spend the same time on people who do not exist. */
const NOBODY = `scrypt$${COST.N}$${COST.r}$${COST.p}$${Buffer.alloc(16).toString("base64url")}$${Buffer.alloc(KEY_LENGTH).toString("base64url")}`;

/**
 * Whether a password is the one that was hashed, in constant time.
 * @param hash as `hashPassword` made it; null spends the time and says no
 */
export async function verifyPassword(password: string, hash: string | null): Promise<boolean> {
  const [scheme, N, r, p, salt = "", key = ""] = (hash ?? NOBODY).split("$");
  if (scheme !== "scrypt") return false;
  const wanted = Buffer.from(key, "base64url");
  const cost = { ...COST, N: Number(N), r: Number(r), p: Number(p) };
  const found = await derive(password, Buffer.from(salt, "base64url"), cost);
  return hash !== null && found.length === wanted.length && timingSafeEqual(found, wanted);
}

/**
 * Lets pass what may be a password of a person: nothing of their own name or address, and no row or repetition that is
 * guessed first. How long it is its form says (`core/forms/people.ts`).
 * @throws Unusable
 */
export function checkPassword(password: string, person: { name: string; email: string }): void {
  const plain = password.normalize("NFKC").toLowerCase();
  const own = [...person.name.split(/\s+/), person.email, person.email.split("@")[0] ?? ""]
    .map((word) => word.toLowerCase())
    .filter((word) => word.length > 3);
  if (own.some((word) => plain.includes(word) && plain.length - word.length < 8))
    throw new Unusable(t("aPasswordThatHoldsYourOwn"), "password");
  if (new Set(plain).size < 5 || ROWS.some((row) => row.includes(plain)))
    throw new Unusable(t("thatPasswordIsGuessedFirstChoose"), "password");
}

const ROWS = ["abcdefghijklmnopqrstuvwxyz", "01234567890123456789", "qwertyuiopasdfghjklzxcvbnm"];
