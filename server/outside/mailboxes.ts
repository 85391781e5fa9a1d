import type { EntityManager } from "@mikro-orm/postgresql";
import { z } from "zod";
import { shownNumber } from "#core/sms/number";
import { CustomerAddress } from "../db/entities/customers";
import { Person, Team } from "../db/entities/people";
import { NotFound } from "../errors";
import { requireRole, type Viewer } from "../people/viewer";
import { holding, query } from "../db/sql";
import { ask, askFor } from "./ask";
import { phonesInUse } from "./phones";
import { t } from "../words";

/** The simulated outside, asked over HTTP as any other system would be. */

const mailSchema = z.object({
  id: z.string(),
  to: z.array(z.string()),
  receivedAt: z.string(),
  from: z.string(),
  subject: z.string(),
  messageId: z.string().nullable(),
});
const openedSchema = mailSchema.extend({
  text: z.string(),
  html: z.string().nullable(),
  headers: z.array(z.object({ name: z.string(), value: z.string() })),
  attachments: z.array(
    z.object({
      name: z.string(),
      contentType: z.string(),
      size: z.number(),
      contentId: z.string().nullable(),
    }),
  ),
});
const mailboxSchema = z.object({ address: z.string(), messages: z.number(), latest: z.string() });
export const faultsSchema = z.object({
  mail: z.enum(["fine", "slow", "busy", "refuses", "down", "bounces"]),
  bookingDelay: z.number(),
  bookings: z.enum(["fine", "broken", "wrong"]),
  sms: z.enum(["fine", "late", "fails", "refuses", "down"]),
  chat: z.enum(["fine", "drops"]),
});

export type OutsideMail = z.infer<typeof mailSchema>;
export type OpenedMail = z.infer<typeof openedSchema>;
export type Faults = z.infer<typeof faultsSchema>;

/** A customer in whose shoes one can stand. */
export interface OutsidePerson {
  address: string;
  name: string;
  messages: number;
  latest: string | null;
}

/** Whose mailbox an address is, and whom they can write to. */
export async function correspondents(
  em: EntityManager,
  address: string,
): Promise<{ address: string; name: string; teams: { name: string; to: string }[] }> {
  const known = await em.findOne(
    CustomerAddress,
    { channel: "email", address: address.toLowerCase() },
    { populate: ["customer"] },
  );
  const teams = await em.find(Team, {}, { orderBy: { id: "asc" } });
  return {
    address,
    name: known?.customer.displayName ?? "",
    teams: teams.map(({ name, mailbox: to }) => ({ name, to })),
  };
}

/** Most that are listed at once. */
export const MOST_PEOPLE = 1000;

/**
 * Colleagues have mailboxes outside, too, with what opens the door for them: each reads their own alone.
 * @throws NotFound for a mailbox of somebody else’s of the house
 */
async function refuseColleagues(em: EntityManager, viewer: Viewer, addresses: string[]): Promise<void> {
  const others = await em.count(Person, {
    email: { $in: addresses.map((one) => one.toLowerCase()) },
    id: { $ne: viewer.id },
  });
  if (others > 0) throw new NotFound(t("thatMailboxIsAColleaguesOwn"));
}

/** Customers with an email address, and the viewer’s own: those with mail first, then by name; or those who are like a text. */
export async function outsidePeople(
  em: EntityManager,
  viewer: Viewer,
  text: string,
): Promise<OutsidePerson[]> {
  const colleagues = await em.find(Person, { id: { $ne: viewer.id } }, { fields: ["email"] });
  const closed = new Set(colleagues.map((one) => one.email));
  const mailboxes = (await askFor(z.array(mailboxSchema), "/mailboxes")).filter(
    (one) => !closed.has(one.address.toLowerCase()),
  );
  const like = holding(text.trim());
  const people = await query<{ address: string; name: string }>(
    em,
    `select a.address, cu.display_name as name from customer_addresses a join customers cu on cu.id = a.customer_id
      where a.channel = 'email' and (a.address ilike ? or cu.display_name ilike ?)
      order by (a.address = any(?)) desc, cu.display_name limit ${MOST_PEOPLE}`,
    [like, like, mailboxes.map((one) => one.address)],
  );
  const known = new Map(mailboxes.map((one) => [one.address, one]));
  const listed = people.map((person) => ({
    ...person,
    messages: known.get(person.address)?.messages ?? 0,
    latest: known.get(person.address)?.latest ?? null,
  }));
  const strangers = mailboxes
    .filter(
      (one) =>
        !people.some((person) => person.address === one.address) &&
        one.address.includes(text.trim().toLowerCase()),
    )
    .map((one) => ({
      address: one.address,
      name: one.address.toLowerCase() === viewer.email ? viewer.name : one.address,
      messages: one.messages,
      latest: one.latest,
    }));
  const phones = await phonesOfStrangers(em, text);
  return [...listed, ...strangers, ...phones].sort(
    (a, b) => (b.latest ?? "").localeCompare(a.latest ?? "") || a.name.localeCompare(b.name),
  );
}

/** Phones whose owners have no mailbox: their numbers stand for them. */
async function phonesOfStrangers(em: EntityManager, text: string): Promise<OutsidePerson[]> {
  const phones = (await phonesInUse()).filter((one) => one.number.includes(text.trim()));
  const known = await query<{ address: string }>(
    em,
    `select s.address from customer_addresses s where s.channel = 'sms' and s.address = any(?)
        and exists (select 1 from customer_addresses e where e.customer_id = s.customer_id and e.channel = 'email')`,
    [phones.map((one) => one.number)],
  );
  const withMailbox = new Set(known.map((one) => one.address));
  return phones
    .filter((one) => !withMailbox.has(one.number))
    .map(({ number, messages, latest }) => ({
      address: number,
      name: shownNumber(number),
      messages,
      latest,
    }));
}

/** The messages in a mailbox, latest first. @throws NotFound for a colleague’s */
export async function mailbox(em: EntityManager, viewer: Viewer, address: string): Promise<OutsideMail[]> {
  await refuseColleagues(em, viewer, [address]);
  return askFor(z.array(mailSchema), `/mailboxes/${encodeURIComponent(address)}`);
}

/** A message with its raw source. @throws NotFound */
export async function outsideMail(
  em: EntityManager,
  viewer: Viewer,
  id: string,
): Promise<OpenedMail & { raw: string }> {
  const [mail, raw] = await Promise.all([
    askFor(openedSchema, `/messages/${encodeURIComponent(id)}`),
    ask(`/messages/${encodeURIComponent(id)}/raw`),
  ]);
  await refuseColleagues(em, viewer, mail.to);
  return { ...mail, raw: await raw.text() };
}

/** An attachment as it arrived. @throws NotFound */
export async function outsideAttachment(
  em: EntityManager,
  viewer: Viewer,
  id: string,
  index: number,
): Promise<Response> {
  const { to } = await askFor(mailSchema, `/messages/${encodeURIComponent(id)}`);
  await refuseColleagues(em, viewer, to);
  return ask(`/messages/${encodeURIComponent(id)}/attachments/${index}`);
}

/** Writes to us as a customer, over SMTP like all mail. @throws Unusable with the server's words when it is not taken */
export async function writeIn(
  address: string,
  letter: {
    fromName: string;
    to: string;
    subject: string;
    text: string;
    inReplyTo: string | null;
    references: string | null;
  },
): Promise<void> {
  await ask(`/mailboxes/${encodeURIComponent(address)}/messages`, {
    method: "POST",
    body: JSON.stringify(letter),
  });
}

export async function readFaults(): Promise<Faults> {
  return askFor(faultsSchema, "/faults");
}

/** Switches faults on and off; a curator may. @throws NotAllowed */
export async function writeFaults(viewer: Viewer, faults: Faults): Promise<void> {
  requireRole(viewer, "curator");
  await ask("/faults", { method: "PUT", body: JSON.stringify(faults) });
}
