import type { EntityManager } from "@mikro-orm/postgresql";
import { personNames } from "#core/checks/names";
import type { ForwardedDetails } from "#core/mail/forwarded";
import { Case } from "../db/entities/cases";
import type { Customer } from "../db/entities/customers";
import type { Forwarder, Mailbox } from "../db/entities/mailboxes";
import { Message, type Doubt } from "../db/entities/messages";
import { settingsOf } from "../house/settings";
import type { ReceivedMail } from "../reading/mail";
import { createCustomer, knownCustomer } from "../receiving/arrival";
import { forwarderOf, readBy } from "./read";
import { t } from "../words";

/** What a forwarded mail says of its buyer. */
export interface Carried {
  forwarder: Forwarder;
  details: ForwardedDetails;
}

/** A mail that somebody forwarded, as its form was read; where it does not fit, it is received as it came, and says so. */
type ForwardedMail = { carried: Carried; doubt: null } | { carried: null; doubt: Doubt };

/** Reads a mail by the form of who forwarded it; null for one that came by itself. */
export async function readForwardedMail(
  em: EntityManager,
  mail: ReceivedMail,
  mailbox: Mailbox | null,
  now: Date,
): Promise<ForwardedMail | null> {
  const forwarder = await forwarderOf(em, mailbox, mail.from.address);
  if (!forwarder) return null;
  const read = readBy(forwarder, mail.text, await settingsOf(em), now);
  if (read.ok) return { carried: { forwarder, details: read.details }, doubt: null };
  const words = t("itNoLongerFitsTheForm", { name: forwarder.name, problem: read.problem });
  return { carried: null, doubt: { kind: "form", words } };
}

/** The address by which the forwarder knows the buyer; null where all buyers write by the same one. */
function wayToBuyer(mail: ReceivedMail): string | null {
  const address = mail.replyTo?.toLowerCase() ?? null;
  return address === mail.from.address.toLowerCase() ? null : address;
}

/** A buyer who wrote before: by the address that the forwarder gave them, else by name and order. */
export async function knownBuyer(
  em: EntityManager,
  mail: ReceivedMail,
  carried: Carried,
): Promise<Customer | null> {
  const address = wayToBuyer(mail);
  const known = address === null ? null : await knownCustomer(em, { channel: "email", address });
  return known ?? (await latestOf(em, carried, {}))?.customer ?? null;
}

/** A buyer’s case: the one that the mail answers, else the one of the same buyer and order that is not closed. */
export async function caseOfBuyer(
  em: EntityManager,
  mail: ReceivedMail,
  carried: Carried,
): Promise<Case | null> {
  if (mail.answers.length > 0) {
    const ours = { messageId: { $in: mail.answers }, direction: "out" as const };
    const answered = await em.findOne(Message, ours, { populate: ["case"], orderBy: { id: "desc" } });
    if (answered?.case.forwarder?.id === carried.forwarder.id) return answered.case;
  }
  return latestOf(em, carried, { status: { $ne: "settled" } });
}

/** The latest case of a buyer by their name and order; null where the form says neither. */
async function latestOf(
  em: EntityManager,
  { forwarder, details: { name, reference } }: Carried,
  more: { status?: { $ne: "settled" } },
): Promise<Case | null> {
  if (name === null || reference === null) return null;
  const [found] = await em.find(
    Case,
    { forwarder, forwarded: { name, reference }, ...more },
    { populate: ["customer"], orderBy: { id: "desc" }, limit: 1 },
  );
  return found ?? null;
}

/** A buyer whom nobody knew before. */
export async function newBuyer(
  em: EntityManager,
  mail: ReceivedMail,
  { name }: ForwardedDetails,
): Promise<Customer> {
  const address = wayToBuyer(mail);
  return createCustomer(
    em,
    { ...personNames(name), displayName: name ?? t("buyer"), language: mail.language },
    address === null ? null : { channel: "email", address },
  );
}

/** The forwarder’s deadline counts, where it is earlier than ours. */
export async function dueBy(em: EntityManager, subject: Case, { dueAt }: ForwardedDetails): Promise<void> {
  const by = dueAt === null ? null : new Date(dueAt);
  if (by === null || (subject.answerBy != null && subject.answerBy <= by)) return;
  subject.answerBy = by;
  await em.flush();
}
