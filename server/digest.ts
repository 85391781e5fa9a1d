import { createHash } from "node:crypto";

/** By what bytes are recognised: SHA-256, in hexadecimal digits. */
export function digestOf(content: Uint8Array): string {
  return createHash("sha256").update(content).digest("hex");
}
