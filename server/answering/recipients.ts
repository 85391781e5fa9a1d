import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import type { Standing } from "#core/checks/check";
import { Case, CaseEvent, Message } from "../db/entities/cases";
import { CustomerAddress } from "../db/entities/customers";
import { Person, Team } from "../db/entities/people";
import { Conflict, NotFound, Unusable } from "../errors";
import { notify } from "../events/notify";
import type { Viewer } from "../people/viewer";

/** An address that a letter on a case may go to, and what is known of it. */
export interface Recipient {
  address: string;
  is: Standing["is"];
  /** What is new about it, in words; null for one that is known. */
  news: string | null;
}

/** Where letters on a case may go. */
export interface Recipients {
  /** The customer's own address that they wrote from last; null where none is known. */
  usual: string | null;
  /** Addresses of the customer, the usual first, then others that wrote on the case or were named by those who did. */
  all: Recipient[];
}

/** Of so many of the latest messages the senders are offered. */
const LOOKED_AT = 50;

/** What an agent chose: an address, and whether they saw what is new about it and want it all the same. */
export const chosenRecipientSchema = z.strictObject({
  address: z.string().min(1).max(320),
  confirmed: z.boolean(),
});
export type ChosenRecipient = z.infer<typeof chosenRecipientSchema>;

/** Where letters on a case may go. @param subject with its customer populated */
export async function recipientsOf(em: EntityManager, subject: Case): Promise<Recipients> {
  const { customer, channel } = subject;
  const [own, wrote, mailboxes] = await Promise.all([
    em.find(CustomerAddress, { customer, channel }, { orderBy: { id: "asc" } }),
    em.find(
      Message,
      { case: subject, direction: "in", channel },
      {
        orderBy: { at: "desc", id: "desc" },
        limit: LOOKED_AT,
        fields: ["fromAddress", "fromName", "replyTo"],
      },
    ),
    em.find(Team, {}, { fields: ["mailbox"] }),
  ]);
  const known = new Set(own.map((one) => one.address));
  const latest = wrote.find((one) => known.has(one.fromAddress));
  const usual = latest?.fromAddress ?? own[0]?.address ?? null;
  const ours = new Set(mailboxes.map((one) => one.mailbox.toLowerCase()));
  const strangers = new Map<string, string>();
  for (const { fromAddress, fromName, replyTo } of wrote) {
    if (replyTo && !known.has(replyTo))
      strangers.set(replyTo, `is where ${fromName ?? fromAddress} asks for answers`);
  }
  for (const { fromAddress } of wrote)
    if (!known.has(fromAddress)) strangers.set(fromAddress, "wrote on this case for the first time");
  const others = await ownersOf(em, channel, [...strangers.keys()]);
  const standing = (address: string, why: string): Recipient => {
    if (ours.has(address)) return { address, is: "ours", news: "It is a mailbox of ours." };
    const owner = others.get(address);
    const whose = owner ? `it is ${owner}’s, another customer of ours` : `it is not known to be ${customer.displayName}’s`;
    return { address, is: "new", news: `${address} ${why}; ${whose}.` };
  };
  return {
    usual,
    all: [
      ...[...known]
        .sort((a, b) => Number(b === usual) - Number(a === usual))
        .map((address): Recipient => (ours.has(address) ? standing(address, "") : { address, is: "known", news: null })),
      ...[...strangers].map(([address, why]) => standing(address, why)),
    ],
  };
}

/** Names of the customers whose addresses these are. */
async function ownersOf(
  em: EntityManager,
  channel: Case["channel"],
  addresses: string[],
): Promise<Map<string, string>> {
  if (addresses.length === 0) return new Map();
  const found = await em.find(
    CustomerAddress,
    { channel, address: { $in: addresses } },
    { populate: ["customer"] },
  );
  return new Map(found.map((one) => [one.address, one.customer.displayName]));
}

/** Where a letter goes: where the agent chose, else to the usual address; with its standing there. */
export function addressee(
  { usual, all }: Recipients,
  chosen: ChosenRecipient | null,
): { recipient: string | null; standing: Standing } {
  const recipient = chosen?.address ?? usual;
  const found = all.find((one) => one.address === recipient);
  const confirmed = chosen?.confirmed ?? false;
  if (recipient === null) return { recipient, standing: { is: "known", news: null, confirmed } };
  return {
    recipient,
    standing: { is: found?.is ?? "new", news: found?.news ?? null, confirmed },
  };
}

/**
 * Keeps an address that wrote on a case as the customer's own, on the record.
 * @throws NotFound; Unusable where nobody wrote from it here; Conflict where it is somebody else's or ours
 */
export async function keepAddress(
  em: EntityManager,
  viewer: Viewer,
  number: number,
  address: string,
  now: Date,
): Promise<void> {
  await em.transactional(async (inner) => {
    const subject = await inner.findOne(Case, { number }, { populate: ["customer"] });
    if (!subject) throw new NotFound(`There is no case ${number}`);
    const { all } = await recipientsOf(inner, subject);
    const found = all.find((one) => one.address === address);
    if (!found) throw new Unusable(`Nobody wrote from ${address} on this case`);
    if (found.is === "ours") throw new Conflict(`${address} is a mailbox of ours`);
    if (found.is === "known") return;
    const { channel, customer } = subject;
    if ((await inner.count(CustomerAddress, { channel, address })) > 0)
      throw new Conflict(`${address} is another customer’s already`);
    inner.create(CustomerAddress, { channel, address, customer });
    const person = inner.getReference(Person, viewer.id);
    inner.create(CaseEvent, { case: subject, person, kind: "address kept", data: { words: address }, at: now });
    await inner.flush();
    await notify(inner, { case: number, kind: "message" });
  });
}
