import type { EntityManager } from "@mikro-orm/postgresql";
import { readDeadline } from "#core/mail/deadline";
import { anchorsOf, readForwarded, type ReadForwarded } from "#core/mail/forwarded";
import { Forwarder } from "../db/entities/mailboxes";
import type { Settings } from "../house/settings";

/** Who forwarded a mail that came to a mailbox; null where it came by itself. */
export async function forwarderOf(
  em: EntityManager,
  mailbox: { id: number } | null,
  from: string,
): Promise<Forwarder | null> {
  if (mailbox === null) return null;
  const known = await em.find(Forwarder, { mailbox: mailbox.id, isOn: true }, { orderBy: { id: "asc" } });
  const sender = from.toLowerCase();
  // Who is named whole goes before all of their domain.
  return (
    known.find((one) => one.sender === sender) ??
    known.find((one) => one.sender.startsWith("@") && sender.endsWith(one.sender)) ??
    null
  );
}

/** A forwarded mail, read by the form of who forwarded it. */
export function readBy(
  { example, marks }: Pick<Forwarder, "example" | "marks">,
  text: string,
  { house }: Pick<Settings, "house">,
  now: Date,
): ReadForwarded {
  const made = anchorsOf(example, marks);
  if (!made.ok) return made;
  return readForwarded(text, made.anchors, (words) =>
    readDeadline(words, house.language, now, house.timeZone),
  );
}
