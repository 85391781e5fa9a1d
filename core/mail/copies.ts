import * as z from "zod/mini";
import { t } from "../words/mail";

/** Most addresses that a letter goes to besides. */
const MOST_COPIES = 50;

const address = z
  .string()
  .check(z.trim(), z.toLowerCase(), z.maxLength(254), z.email(t.error("writeAnAddressAsIn")));
const list = z._default(
  z.array(address).check(z.maxLength(MOST_COPIES, t.error("atMostAddresses", { most: MOST_COPIES }))),
  [],
);

/** Whom a letter goes to beside its recipient: more of them, copies that all see, copies that nobody else sees, where answers go. */
export const copiesSchema = z.object({
  to: list,
  cc: list,
  bcc: list,
  replyTo: z._default(z.nullable(address), null),
});
export type Copies = z.infer<typeof copiesSchema>;

export const noCopies: Copies = { to: [], cc: [], bcc: [], replyTo: null };

/** Whether a letter goes to nobody besides. */
export function isAlone({ to, cc, bcc, replyTo }: Copies): boolean {
  return to.length + cc.length + bcc.length === 0 && replyTo === null;
}

/**
 * Whom an answer to all goes to besides: everybody whom a message went to and its sender's other addresses, but neither
 * us nor whom the answer goes to anyway.
 * @param ours our mailboxes, in lower case
 */
export function answerAll(
  message: { from: string; to: readonly string[]; cc: readonly string[] },
  recipient: string | null,
  ours: ReadonlySet<string>,
): Copies {
  const gone = new Set([...ours, ...(recipient === null ? [] : [recipient.toLowerCase()])]);
  const fresh = (addresses: readonly string[]) =>
    addresses.map((one) => one.toLowerCase()).filter((one) => !gone.has(one) && gone.add(one));
  return { to: fresh([message.from, ...message.to]), cc: fresh(message.cc), bcc: [], replyTo: null };
}

/** Every address that a letter goes to besides, once. */
export function allCopies({ to, cc, bcc }: Copies): string[] {
  return [...new Set([...to, ...cc, ...bcc])];
}
