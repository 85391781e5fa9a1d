import { log } from "../log";
import { readApart, TooMuch } from "../reading/pool";
import type { ReceivedMail } from "../reading/mail";
import { readBeginning, type RawMail } from "../reading/parse";

const WHOLE_MS = 15_000;
const PART_MS = 5000;
/** How much of a message is read that cannot be read whole, in bytes. */
const PART = 256 * 1024;

/**
 * Reads a message in a thread of its own. One that takes too long or too much is read by its beginning; whatever it
 * holds, it is received.
 */
export async function readReceived(mail: RawMail): Promise<ReceivedMail> {
  const part = { ...mail, raw: mail.raw.subarray(0, PART), cut: true };
  return (await attempt(mail, WHOLE_MS)) ?? (await attempt(part, PART_MS)) ?? readBeginning(mail);
}

/** Null where it could not be read. */
async function attempt(mail: RawMail, milliseconds: number): Promise<ReceivedMail | null> {
  try {
    return await readApart<RawMail, ReceivedMail>("mail", mail, milliseconds);
  } catch (error) {
    log.warn({
      event: "message not read whole",
      bytes: mail.raw.byteLength,
      reason: error instanceof TooMuch ? error.message : "It cannot be read",
      ...(error instanceof TooMuch ? {} : { error: error instanceof Error ? error.name : typeof error }),
    });
    return null;
  }
}
