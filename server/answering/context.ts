import type { EntityManager } from "@mikro-orm/postgresql";
import type { Recipients } from "#core/checks/addressee";
import type { Context } from "#core/tokens/context";
import type { Case } from "../db/entities/cases";
import { CaseLookup, Message } from "../db/entities/cases";
import { Person, type House } from "../db/entities/people";
import { caseNumber, findHouse, ownTokens, type OwnTokens } from "../house";
import type { Viewer } from "../people/viewer";
import { query } from "../db/sql";
import { recipientsOf } from "./recipients";

/** All that a letter on a case may read, and who it goes to. */
export interface CaseContext {
  context: Context;
  own: OwnTokens;
  recipients: Recipients;
  customerTimeZone: string | null;
  /** Language of the letter to begin with. */
  language: string;
  /** The latest inbound message, which an answer answers. */
  latest: Message | null;
  booking: CaseLookup | null;
}

/** A language as the house writes it: “en” is “en-GB” for a house of that region, so that dates and times read as usual there. */
export function inOurRegion(language: string, houseLanguage: string): string {
  return houseLanguage.split("-")[0] === language ? houseLanguage : language;
}

/**
 * Gathers the context of a case for a letter by the viewer.
 * @param subject with customer and organisation populated
 */
export async function caseContext(
  em: EntityManager,
  viewer: Viewer,
  subject: Case,
  now: Date,
): Promise<CaseContext> {
  const { customer } = subject;
  // Side by side, each with a unit of work of its own; in a transaction all belong to that.
  const apart = em.isInTransaction() ? () => em : () => em.fork();
  const [house, own, person, booking, latest, recipients] = await Promise.all([
    findHouse(apart()),
    ownTokens(apart(), now),
    apart().findOneOrFail(Person, { id: viewer.id }),
    apart().findOne(CaseLookup, { case: subject.id, source: "bookings" }),
    apart().findOne(Message, { case: subject.id, direction: "in" }, { orderBy: { at: "desc", id: "desc" } }),
    recipientsOf(apart(), subject),
  ]);
  const language = inOurRegion(latest?.language ?? customer.language ?? house.language, house.language);
  const attached =
    latest === null
      ? false
      : (
          await query<{ n: number }>(em, "select 1 as n from attachments where message_id = ? limit 1", [
            latest.id,
          ])
        ).length > 0;
  const context = contextFrom({
    house,
    own,
    person,
    subject,
    booking,
    latest,
    recipient: recipients.usual,
    language,
    attached,
    now,
  });
  return { context, own, recipients, customerTimeZone: customer.timeZone ?? null, language, latest, booking };
}

/** What a context is made of. */
export interface ContextParts {
  house: House;
  own: OwnTokens;
  person: Person;
  /** With customer and organisation populated. */
  subject: Case;
  booking: CaseLookup | null;
  latest: Message | null;
  recipient: string | null;
  language: string;
  /** Whether the latest message has files. */
  attached: boolean;
  now: Date;
}

/** Puts a case's details together as letters read them. */
export function contextFrom(parts: ContextParts): Context {
  const { house, own, person, subject, booking, latest, recipient, language, attached, now } = parts;
  const { customer } = subject;
  const { organisation } = customer;
  return {
    case: {
      ...subject.details,
      number: caseNumber(house, subject.number),
      subject: subject.subject,
      topic: subject.topic ?? null,
      channel: subject.channel,
      language,
      opened_at: subject.openedAt.toISOString(),
      answer_by: subject.answerBy?.toISOString() ?? null,
    },
    customer: {
      first_name: customer.firstName ?? null,
      last_name: customer.lastName ?? null,
      full_name:
        customer.firstName && customer.lastName ? `${customer.firstName} ${customer.lastName}` : null,
      email: subject.channel === "email" ? recipient : null,
      phone: customer.phone ?? null,
      language: customer.language ?? null,
      since: customer.since ?? null,
    },
    organisation: organisation
      ? {
          name: organisation.name,
          kind: organisation.kind ?? null,
          account: organisation.account ?? null,
          contract_until: organisation.contractUntil ?? null,
        }
      : {},
    booking: booking?.data ?? {},
    agent: {
      name: person.name,
      first_name: person.firstName,
      title: person.title ?? null,
      department: person.department ?? null,
      email: person.email,
      phone: person.phone ?? null,
    },
    house: { name: house.name, ...own.facts },
    message: latest
      ? {
          subject: latest.subject,
          body: latest.text,
          from: latest.fromAddress,
          to: latest.toAddress,
          channel: latest.channel,
          language,
          has_attachment: attached,
        }
      : {},
    now: now.toISOString(),
    time_zone: house.timeZone,
  };
}
