import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import type { EntityManager } from "@mikro-orm/postgresql";
import { ContactForm, Forwarder, Mailbox, Question } from "#server/db/entities/mailboxes";
import { nameKey } from "#core/checks/names";
import { steps } from "#core/forms/steps";
import { readMarkdown } from "#core/formats/markdown";
import { DetailField, DetailSource, Field } from "#server/db/entities/cases";
import { Customer, CustomerAddress, Organisation } from "#server/db/entities/customers";
import { Reply, Signature, Stationery, UsualReply } from "#server/db/entities/library";
import { House, Person, SetupStep, PhoneNumber, Team } from "#server/db/entities/people";
import { hashPassword } from "#server/people/password";
import { importLibrary } from "#server/replies/import";
import { ensureOwnShelf } from "#server/replies/shelves";
import { ferryBookings } from "./bookings";
import { ferryDetails } from "./details";
import { ferryForwarder } from "./forwarders";
import { ferryQuestions } from "./questions";
import { find } from "./find";
import { readDemo, readLibraryAttachment } from "./read";
import type { DemoBooking } from "./schema";
import { seedDue, seedTimes } from "./seed-times";
import { seedConversations } from "./seed-conversations";
import { seedStanding } from "./seed-standing";
import { clockTime } from "./time";

/** A demo sign-in, for whoever starts the program. */
export interface SignIn {
  name: string;
  email: string;
  role: string;
}

/** The demo's sign-ins and their one password. */
export async function demoSignIns(): Promise<{ people: SignIn[]; password: string }> {
  const { house } = await readDemo();
  return {
    people: house.people.map(({ name, email, role }) => ({ name, email, role })),
    password: house.password,
  };
}

/**
 * Fills an empty database with the demo, in the caller's transaction. Times are counted from now, so that the queue is alive.
 * @param standinsFolder where the simulated booking system keeps its data; null when it does not run
 */
export async function seedDemo(em: EntityManager, standinsFolder: string | null, now: Date): Promise<void> {
  const demo = await readDemo();
  const {
    name,
    case_prefix: casePrefix,
    time_zone: timeZone,
    language,
    languages,
    region,
  } = demo.house.house;
  em.create(House, { id: 1, name, casePrefix, timeZone, language, languages, region });
  for (const step of steps) em.create(SetupStep, { step, state: "done", person: null, at: now });
  for (const [position, field] of demo.house.fields.entries())
    em.create(Field, { retiredAt: null, ...field, position });
  const bookings = em.create(DetailSource, ferryBookings());
  for (const [position, { source: _, ...field }] of ferryDetails.entries())
    em.create(DetailField, { ...field, source: bookings, path: `$.${field.key}`, position });
  for (const question of ferryQuestions) em.create(Question, question);
  await importLibrary(
    em,
    demo.library,
    readLibraryAttachment,
    new Date(now.getTime() - 365 * 24 * 3_600_000),
  );

  const teams = new Map<string, Team>();
  const numbers = new Map<Team, string>();
  for (const team of demo.house.teams) {
    const row = em.create(Team, {
      name: team.name,
      names: team.names,
      mailbox: team.mailbox,
      answerWithin: team.answer_within_hours * 60,
    });
    teams.set(team.key, row);
    if (team.number !== undefined) {
      em.create(PhoneNumber, { number: team.number, team: row });
      numbers.set(row, team.number);
    }
    await seedUsual(em, row, team.usual_opening, team.usual_closing);
    em.create(Signature, { team: row, person: null, document: readMarkdown(team.signature).doc });
    const { stationery } = team;
    em.create(Stationery, {
      team: row,
      name: stationery.name,
      accent: stationery.accent,
      header: readMarkdown(stationery.header).doc,
      footer: readMarkdown(stationery.footer).doc,
      texts: Object.fromEntries(
        Object.entries(stationery.texts).map(([tag, { header, footer }]) => [
          tag,
          { header: readMarkdown(header).doc, footer: readMarkdown(footer).doc },
        ]),
      ),
    });
  }
  seedTimes(em, timeZone, now);
  em.create(ContactForm, {
    key: "contact",
    title: "Write to us",
    intro: "We answer by mail, mostly within a day. Name your booking if there is one.",
    team: find(teams, "passengers", "team"),
    topics: ["A sailing", "A refund", "A change of names", "Lost property", "Something else"],
    fields: [
      {
        label: "Harbour",
        kind: "choice",
        required: false,
        options: ["Osmer Quay", "Tarn Head", "Pellick", "Saltgarth"],
      },
    ],
    thanks: "Thank you. We have your message and answer it by mail.",
    firstMail:
      "Thank you for writing to us. Your number is {$case.number}.\n\nSomebody reads your message and answers it by mail; you need do nothing until then.",
  });
  const passwordHash = await hashPassword(demo.house.password);
  const people = demo.house.people.map(({ team, first, phone, ...person }) =>
    em.create(Person, {
      ...person,
      firstName: first,
      phone: phone ?? null,
      passwordHash,
      timeZone,
      chatLimit: 3,
      team: find(teams, team, "team"),
    }),
  );
  const customers = seedCustomers(em, demo.customers);
  await em.flush();
  // A team's own mailbox is there with it.
  const { mailbox: address } = find(teams, "passengers", "team");
  const mailbox = await em.findOneOrFail(Mailbox, { address });
  em.create(Forwarder, { ...ferryForwarder, mailbox, isOn: true });
  for (const person of people) await ensureOwnShelf(em, person);
  await seedConversations(em, demo.conversations, { teams, people, customers, numbers, now });
  await seedDue(em, now);
  await seedStanding(em, now);
  if (standinsFolder !== null) await writeBookings(standinsFolder, demo.bookings, timeZone, now);
}

/** The usual opening and closing of a team, by every channel that they suit. */
async function seedUsual(em: EntityManager, team: Team, opening?: string, closing?: string): Promise<void> {
  const keys = { opening, closing };
  for (const part of ["opening", "closing"] as const) {
    const key = keys[part];
    if (key === undefined) continue;
    const reply = await em.findOneOrFail(Reply, { key });
    for (const channel of ["email", "chat", "sms"] as const)
      if (reply.channels.includes(channel)) em.create(UsualReply, { team, channel, part, reply });
  }
}

interface DemoCustomer {
  customer: Customer;
  email: string;
  /** ITU-T E.164; null for none. */
  phone: string | null;
}
type DemoCustomers = Map<string, DemoCustomer>;

type Customers = Awaited<ReturnType<typeof readDemo>>["customers"];

function seedCustomers(em: EntityManager, file: Customers): DemoCustomers {
  const organisations = new Map<string, Organisation>();
  for (const { key, name, kind, account, contract_until: contractUntil } of file.organisations) {
    organisations.set(
      key,
      em.create(Organisation, {
        name,
        nameKey: nameKey(name),
        kind,
        account: account ?? null,
        contractUntil: contractUntil ?? null,
      }),
    );
  }
  const customers = new Map<string, DemoCustomer>();
  for (const { key, first, last, email, language, organisation, since, phone } of file.customers) {
    const customer = em.create(Customer, {
      firstName: first ?? null,
      lastName: last ?? null,
      displayName: [first, last].filter(Boolean).join(" ") || email,
      nameKey: first && last ? nameKey(`${first} ${last}`) : null,
      language: language ?? null,
      timeZone: null,
      phone: phone ?? null,
      since: since ?? null,
      organisation: organisation ? find(organisations, organisation, "organisation") : null,
    });
    em.create(CustomerAddress, { channel: "email", address: email.toLowerCase(), customer });
    if (phone !== undefined)
      em.create(CustomerAddress, { channel: "sms", address: phone.replace(/\s/g, ""), customer });
    customers.set(key, { customer, email, phone: phone?.replace(/\s/g, "") ?? null });
  }
  return customers;
}

/** Writes the bookings as the simulated booking system answers them. */
async function writeBookings(
  folder: string,
  bookings: Record<string, DemoBooking>,
  timeZone: string,
  now: Date,
): Promise<void> {
  const at = (day: number | undefined, clock: string | undefined) =>
    day === undefined || clock === undefined ? null : clockTime(now, day, clock, timeZone);
  const answers = Object.entries(bookings).map(([reference, booking]) => {
    const sails = clockTime(now, booking.day, booking.departs, timeZone);
    return [
      reference,
      {
        reference,
        status: booking.status,
        cause: booking.cause ?? null,
        lead_name: booking.lead_name,
        sails_at: sails,
        arrives_at: clockTime(now, booking.day, booking.arrives, timeZone),
        check_in_at: new Date(Date.parse(sails) - 45 * 60_000).toISOString(),
        from: booking.from,
        to: booking.to,
        ship: booking.ship,
        fare: { amount: booking.fare, currency: "EUR" },
        passengers: booking.passengers,
        vehicle: booking.vehicle ?? null,
        vehicle_height: booking.vehicle_height ?? null,
        animals: booking.animals ?? null,
        new_sails_at: at(booking.new_day, booking.new_departs),
        new_arrives_at: at(booking.new_day, booking.new_arrives),
        new_ship: booking.new_ship ?? null,
      },
    ] as const;
  });
  await mkdir(folder, { recursive: true });
  await writeFile(join(folder, "bookings.json"), JSON.stringify(Object.fromEntries(answers), null, 1));
}
