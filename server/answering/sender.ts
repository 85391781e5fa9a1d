import { randomBytes } from "node:crypto";
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { Unusable } from "../errors";
import type { Settings } from "../house/settings";
import { t } from "../words";

/** What a message of ours goes out under. */
export interface Sender {
  /** An address of mail, or a number; for a chat the team's address, which nobody there sees. */
  address: string;
  /** Fixed once: however often delivery is tried, the message stays recognisable. */
  messageId: string;
}

/** What a message on a case goes out under. @throws Unusable where the team has no number for a short message */
export async function senderOf(em: EntityManager, subject: Case, settings: Settings): Promise<Sender> {
  const mailbox = mailboxOf(subject);
  if (subject.channel !== "sms") return { address: mailbox, messageId: freshMessageId(mailbox) };
  const ours = settings.numbers.filter((one) => one.team === subject.team.id).map((one) => one.number);
  const latest = await em.findOne(
    Message,
    { case: subject, direction: "in", channel: "sms" },
    { orderBy: { at: "desc", id: "desc" }, fields: ["toAddress"] },
  );
  // From the number that they wrote to: on their phone it is one conversation.
  const address = ours.find((number) => number === latest?.toAddress) ?? ours[0];
  if (address === undefined) throw new Unusable(t("teamHasNoNumberFor", { team: subject.team.name }));
  return { address, messageId: freshSmsId() };
}

/** The address of mail that a case goes by: the mailbox that it came to, else its team's own. @param subject with team and mailbox populated */
export function mailboxOf(subject: Case): string {
  return subject.mailbox?.address ?? subject.team.mailbox;
}

/** A Message-ID that no other message has (RFC 5322, 3.6.4). @param mailbox the address that it comes from */
export function freshMessageId(mailbox: string): string {
  return `<${randomBytes(16).toString("hex")}@${domainOf(mailbox)}>`;
}

/** An id for a short message that no other has. */
export function freshSmsId(): string {
  return `sms-${randomBytes(16).toString("hex")}`;
}

/** The domain of an address of mail. */
export function domainOf(address: string): string {
  return address.split("@")[1] ?? "localhost";
}
