import type { EntityManager } from "@mikro-orm/postgresql";
import { awaitAnswer, setState } from "../cases/standing";
import { Case, CaseEvent } from "../db/entities/cases";
import { Customer, CustomerAddress } from "../db/entities/customers";
import type { Message } from "../db/entities/messages";
import { Team } from "../db/entities/people";
import { query } from "../db/sql";
import { noteReferences } from "../details/look-up";
import { notifyCase } from "../events/notify";
import { settingsOf } from "../house/settings";

/** What a message that arrives does to its case, by whatever channel it comes. */

/** An open case without a word for longer than this is not taken up again by a new message that does not name it. */
const OPEN_DAYS = 30;

/** What became of a received message. */
export interface Accepted {
  caseId: number;
  caseNumber: number;
  messageId: number;
  /** Whether it opened a case of its own. */
  opened: boolean;
}

/** A customer's cases by a channel that a new message may belong to, the latest first. */
export async function openCasesOf(
  em: EntityManager,
  customer: Customer,
  channel: Case["channel"],
  now: Date,
): Promise<Case[]> {
  const since = new Date(now.getTime() - OPEN_DAYS * 24 * 60 * 60_000);
  return em.find(
    Case,
    { customer, channel, status: { $ne: "settled" }, updatedAt: { $gt: since } },
    { orderBy: { updatedAt: "desc" }, limit: 20 },
  );
}

/**
 * Whether what somebody writes goes on with a case: a settled one is opened again within the time that the house set; after
 * that, it is followed by a new one.
 */
export async function goesOn(
  em: EntityManager,
  named: Case | null,
  now: Date,
): Promise<{ found: Case | null; follows: Case | null }> {
  if (named?.status !== "settled") return { found: named, follows: null };
  const { clock } = await settingsOf(em);
  const [row] = await query<{ at: string }>(
    em,
    "select at from case_states where case_id = ? and status = 'settled' order by id desc limit 1",
    [named.id],
  );
  const settled = row ? Date.parse(row.at) : named.updatedAt.getTime();
  const isLate = now.getTime() - settled > clock.reopenDays * 24 * 60 * 60_000;
  return isLate ? { found: null, follows: named } : { found: named, follows: null };
}

/** The team that takes what is for none in particular. */
export async function firstTeam(em: EntityManager): Promise<Team> {
  const [team] = await em.find(Team, {}, { orderBy: { id: "asc" }, limit: 1 });
  if (!team) throw new Error("The house has no team");
  return team;
}

/** What a case begins with. */
interface Opening {
  channel: Case["channel"];
  subject: string;
  /** BCP 47 tag; null where it is not known. */
  language: string | null;
  customer: Customer;
  team: Team;
  now: Date;
}

/** A new case under the next number; what made it necessary is still to be told by `arrived`. */
export async function openCase(em: EntityManager, { now, ...given }: Opening): Promise<Case> {
  const [row] = await query<{ number: string }>(em, "select nextval('case_numbers') as number");
  return em.create(Case, {
    ...given,
    number: Number(row?.number),
    topic: null,
    status: "new",
    assignee: null,
    bookingReference: null,
    details: {},
    openedAt: now,
    updatedAt: now,
    waitingSince: null,
    answerBy: null,
  });
}

/** What is known of a customer whom nobody knew before. */
type Newcomer = Pick<Customer, "displayName" | "language"> &
  Partial<Pick<Customer, "firstName" | "lastName" | "nameKey" | "phone">>;

/** An address that one customer is recognised by. */
type Reached = Pick<CustomerAddress, "channel" | "address">;

/** Somebody new, by the address that they are recognised by from now on; null where they have none of their own. */
export async function createCustomer(
  em: EntityManager,
  known: Newcomer,
  reached: Reached | null,
): Promise<Customer> {
  const customer = em.create(Customer, {
    ...{ firstName: null, lastName: null, nameKey: null, phone: null, timeZone: null, since: null },
    ...{ organisation: null, ...known },
  });
  if (reached !== null) em.create(CustomerAddress, { ...reached, customer });
  await em.flush();
  return customer;
}

/** The customer who is recognised by an address; null for nobody. */
export async function knownCustomer(em: EntityManager, reached: Reached): Promise<Customer | null> {
  const { channel, address } = reached;
  const known = await em.findOne(CustomerAddress, { channel, address }, { populate: ["customer"] });
  return known?.customer ?? null;
}

/** The customer who is recognised by an address; whom nobody knew becomes one by it. */
export async function customerOf(em: EntityManager, reached: Reached, newcomer: Newcomer): Promise<Customer> {
  return (await knownCustomer(em, reached)) ?? createCustomer(em, newcomer, reached);
}

/**
 * A message of ours that had left did not arrive: it is refused, in the words of whoever says so, and its case waits for us
 * again. The caller writes what the unit of work holds.
 */
export async function failedLater(
  em: EntityManager,
  message: Message,
  words: string,
  now: Date,
): Promise<void> {
  const subject = await em.findOneOrFail(Case, { id: message.case.id });
  message.state = "refused";
  message.refusal = words;
  const data = { message: message.id, words };
  em.create(CaseEvent, { case: subject, person: null, kind: "refused", data, at: now });
  await awaitAnswer(em, subject, now);
}

/** What has arrived on a case. */
interface Arrival {
  subject: Case;
  /** Whether the case was opened by it. */
  opened: boolean;
  /** What may name a booking. */
  words: string;
  /** Whether somebody waits for an answer to it; what programs wrote waits for none. */
  isDue: boolean;
}

/**
 * A message has arrived: its case waits for us, a booking that it names is looked up, and whoever looks on is told.
 * Writes what the unit of work holds.
 */
export async function arrived(em: EntityManager, arrival: Arrival, now: Date): Promise<void> {
  const { subject, opened, words, isDue } = arrival;
  if (isDue) await awaitAnswer(em, subject, now);
  else if (opened && subject.status !== "set aside") setState(subject, "set aside");
  subject.updatedAt = now;
  em.create(CaseEvent, {
    case: subject,
    person: null,
    kind: opened ? "opened" : "received",
    data: {},
    at: now,
  });
  await noteBooking(em, subject, words);
  await notifyCase(em, subject.number, "message");
}

/** What words name of bookings and the like is the case’s, where it has none yet, and is looked up. Writes what the unit of work holds. */
export async function noteBooking(em: EntityManager, subject: Case, words: string): Promise<void> {
  const booking = await noteReferences(em, subject.id, words);
  if (booking !== null) subject.bookingReference = booking;
}
