import { createHmac, timingSafeEqual } from "node:crypto";
import { environment } from "./environment";

/** What proves that words are the program's own: nobody without its secret can make it (HMAC-SHA-256, RFC 2104). */
export function proofOf(words: string, encoding: "hex" | "base64url"): string {
  return createHmac("sha256", environment().sessionSecret).update(words).digest(encoding);
}

/** Whether a proof or a token is the one that is wanted, compared in time that says nothing of where they differ. */
export function isSame(given: string, wanted: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(wanted)];
  return a.byteLength === b.byteLength && timingSafeEqual(a, b);
}
