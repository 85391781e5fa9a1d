import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import type { ChosenRecipient, Recipient, Recipients } from "#core/checks/addressee";
import { Case, CaseEvent } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { CustomerAddress } from "../db/entities/customers";
import { Person } from "../db/entities/people";
import { prepared, preparedOne } from "../db/sql";
import { Conflict, NotFound, Unusable } from "../errors";
import { notify } from "../events/notify";
import { settingsOf, type Settings } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { t } from "../words";

/** Of so many of the latest messages the senders are offered. */
const LOOKED_AT = 50;

/** What an agent chose, as it comes from the screen. */
export const chosenRecipientSchema: z.ZodType<ChosenRecipient> = z.strictObject({
  address: z.string().min(1).max(320),
  confirmed: z.boolean(),
});

interface Writers {
  /** Addresses of the customer's. */
  own: string[];
  /** The latest first. */
  wrote: (Pick<Message, "fromName" | "replyTo"> & {
    /** Null for who wrote by another channel. */
    fromAddress: string | null;
  })[];
}

/** Where letters on a case may go. @param subject with its customer populated */
export async function recipientsOf(
  em: EntityManager,
  subject: Case,
  { mailboxes: ours }: Settings,
): Promise<Recipients> {
  const { customer, channel } = subject;
  if (subject.forwarder != null) return backByForwarder(em, subject);
  const { own, wrote } = await preparedOne<Writers>(
    em,
    `select (select coalesce(jsonb_agg(address order by id), '[]') from customer_addresses where customer_id = ? and channel = ?) as own,
            (select coalesce(jsonb_agg(w), '[]') from (
               select case channel when ? then from_address end as "fromAddress", from_name as "fromName", case ? when 'email' then reply_to end as "replyTo" from messages
                where case_id = ? and direction = 'in' and (channel = ? or (? = 'email' and reply_to is not null)) order by at desc, id desc limit ${LOOKED_AT}) w) as wrote`,
    [customer.id, channel, channel, channel, subject.id, channel, channel],
  );
  const known = new Set(own);
  const latest = wrote.find((one) => one.fromAddress !== null && known.has(one.fromAddress));
  const usual = latest?.fromAddress ?? own[0] ?? null;
  const strangers = new Map<string, string>();
  for (const { fromAddress, fromName, replyTo } of wrote) {
    if (replyTo && !known.has(replyTo))
      strangers.set(replyTo, `is where ${fromName ?? fromAddress ?? customer.displayName} asks for answers`);
  }
  for (const { fromAddress } of wrote)
    if (fromAddress !== null && !known.has(fromAddress))
      strangers.set(fromAddress, "wrote on this case for the first time");
  const others = await ownersOf(em, channel, [...strangers.keys()]);
  const standing = (address: string, why: string): Recipient => {
    if (ours.has(address)) return { address, is: "ours", news: "It is a mailbox of ours." };
    const owner = others.get(address);
    const whose = owner
      ? `it is ${owner}’s, another customer of ours`
      : `it is not known to be ${customer.displayName}’s`;
    return { address, is: "new", news: `${address} ${why}; ${whose}.` };
  };
  return {
    usual,
    all: [
      ...[...known]
        .sort((a, b) => Number(b === usual) - Number(a === usual))
        .map((address): Recipient =>
          ours.has(address) ? standing(address, "") : { address, is: "known", news: null },
        ),
      ...[...strangers].map(([address, why]) => standing(address, why)),
    ],
  };
}

/** What a forwarder brought goes back the forwarder's way, and no other: to where the latest message asks for answers. */
async function backByForwarder(em: EntityManager, subject: Case): Promise<Recipients> {
  const latest = await em.findOne(
    Message,
    { case: subject, direction: "in", channel: "email", kind: "message" },
    { orderBy: { at: "desc", id: "desc" }, fields: ["fromAddress", "replyTo"] },
  );
  const address = latest && (latest.replyTo ?? latest.fromAddress);
  return { usual: address, all: address === null ? [] : [{ address, is: "known", news: null }] };
}

/** Names of the customers whose addresses these are. */
async function ownersOf(
  em: EntityManager,
  channel: Case["channel"],
  addresses: string[],
): Promise<Map<string, string>> {
  if (addresses.length === 0) return new Map();
  const found = await prepared<{ address: string; name: string }>(
    em,
    `select a.address, cu.display_name as name from customer_addresses a join customers cu on cu.id = a.customer_id
      where a.channel = ? and a.address = any(?)`,
    [channel, addresses],
  );
  return new Map(found.map((one) => [one.address, one.name]));
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
    if (!subject) throw new NotFound(t("thereIsNoCaseNumber", { number }));
    const { all } = await recipientsOf(inner, subject, await settingsOf(inner));
    const found = all.find((one) => one.address === address);
    if (!found) throw new Unusable(t("nobodyWroteFromAddressOnThis", { address }));
    if (found.is === "ours") throw new Conflict(t("addressIsAMailboxOfOurs", { address }));
    if (found.is === "known") return;
    const { channel, customer } = subject;
    if ((await inner.count(CustomerAddress, { channel, address })) > 0)
      throw new Conflict(t("addressIsAnotherCustomersAlready", { address }));
    inner.create(CustomerAddress, { channel, address, customer });
    const person = inner.getReference(Person, viewer.id);
    inner.create(CaseEvent, {
      case: subject,
      person,
      kind: "address kept",
      data: { words: address },
      at: now,
    });
    await inner.flush();
    await notify(inner, { case: number, kind: "message" });
  });
}
