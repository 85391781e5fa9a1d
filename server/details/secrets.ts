import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from "node:crypto";
import { environment } from "../environment";

const IV_BYTES = 12;
const TAG_BYTES = 16;

/** Made of the program's secret, for this use alone (RFC 5869). */
function key(): Buffer {
  return Buffer.from(hkdfSync("sha256", environment().sessionSecret, "", "plain-shelf detail sources", 32));
}

/** Seals a secret by the program's own (AES-256-GCM, NIST SP 800-38D): nobody reads it without that. */
export function seal(secret: string): string {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv("aes-256-gcm", key(), iv);
  const sealed = Buffer.concat([cipher.update(secret, "utf8"), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString("base64");
}

/** Opens what was sealed; null where it was sealed by another secret, or changed. */
export function unseal(sealed: string): string | null {
  const bytes = Buffer.from(sealed, "base64");
  if (bytes.length < IV_BYTES + TAG_BYTES) return null;
  const decipher = createDecipheriv("aes-256-gcm", key(), bytes.subarray(0, IV_BYTES));
  decipher.setAuthTag(bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES));
  try {
    const secret = [decipher.update(bytes.subarray(IV_BYTES + TAG_BYTES)), decipher.final()];
    return Buffer.concat(secret).toString("utf8");
  } catch {
    return null; // Told by whoever needs it.
  }
}
