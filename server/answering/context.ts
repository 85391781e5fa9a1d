import { primary } from "#core/language/tag";
import type { EntityManager } from "@mikro-orm/postgresql";
import { durationWords } from "#core/language/duration";
import { stateWords } from "#core/notices/state-words";
import type { Recipients } from "#core/checks/addressee";
import type { Context, Detail } from "#core/tokens/context";
import type { Case, CaseLookup } from "../db/entities/cases";
import type { Message } from "../db/entities/messages";
import type { Person } from "../db/entities/people";
import { caseNumber } from "../house/house";
import { ownTokensOf, teamDetails, type OwnTokens, type Settings } from "../house/settings";
import { NotFound } from "../errors";
import type { Viewer } from "../people/viewer";
import { named, prepared } from "../db/sql";
import { STANDS, type Stands } from "../cases/stands";
import { askingHere } from "../questions/asking";
import { recipientsOf } from "./recipients";
import { t } from "../words";

/** All that a letter on a case may read, and who it goes to. */
export interface CaseContext {
  context: Context;
  own: OwnTokens;
  recipients: Recipients;
  customerTimeZone: string | null;
  /** Language of the letter to begin with. */
  language: string;
}

/** A language as the house writes it: “en” is “en-GB” for a house of that region, so that dates and times read as usual there. */
export function inOurRegion(language: string, houseLanguage: string): string {
  return primary(houseLanguage) === language ? houseLanguage : language;
}

/**
 * Gathers the context of a case for a letter by the viewer.
 * @param subject with customer and organisation populated
 */
export async function caseContext(
  em: EntityManager,
  viewer: Viewer,
  subject: Case,
  settings: Settings,
  now: Date,
): Promise<CaseContext> {
  const { customer } = subject;
  // One after the other within a transaction: its connection takes one statement at a time.
  const reading = readForLetter(em, viewer.id, subject.id);
  if (em.isInTransaction()) await reading;
  const [read, recipients] = await Promise.all([reading, recipientsOf(em, subject, settings)]);
  const { writer, stands, latest, attached, booking, answers, outside } = read;
  const { house } = settings;
  const own = ownTokensOf(settings, now);
  const language = inOurRegion(latest?.language ?? customer.language ?? house.language, house.language);
  const context = contextFrom({
    settings,
    own,
    person: writer,
    subject,
    stands,
    booking,
    latest,
    recipient: recipients.usual,
    language,
    attached,
    answers,
    outside,
    now,
  });
  return { context, own, recipients, customerTimeZone: customer.timeZone ?? null, language };
}

/** Who writes a letter, as it may name them. */
type Writer = Pick<Person, "name" | "firstName" | "title" | "department" | "email" | "phone" | "details">;

/** The message that a letter answers, as letters read it. */
type Answered = Pick<Message, "subject" | "text" | "fromAddress" | "toAddress" | "channel" | "language">;

interface ReadForLetter {
  writer: Writer;
  /** How the case stands, as letters may say it. */
  stands: Stands;
  /** The latest inbound message; null where there is none. */
  latest: Answered | null;
  /** Whether that has files. */
  attached: boolean;
  /** What is known of the booking; null where nothing was asked. */
  booking: Pick<CaseLookup, "data" | "problem"> | null;
  answers: Record<string, Detail>;
  /** What other outside systems said, by source. */
  outside: Record<string, Record<string, Detail>>;
}

/** Who writes, what is answered and what was booked, in one. @throws NotFound when the person is gone */
async function readForLetter(em: EntityManager, personId: number, caseId: number): Promise<ReadForLetter> {
  const [row] = await prepared<ReadForLetter>(
    em,
    ...named(
      `select jsonb_build_object('name', p.name, 'firstName', p.first_name, 'title', p.title, 'department', p.department,
                'email', p.email, 'phone', p.phone, 'details', p.details) as writer,
              case when m.id is not null then jsonb_build_object('subject', m.subject, 'text', m.text, 'fromAddress', m.from_address,
                'toAddress', m.to_address, 'channel', m.channel, 'language', m.language) end as latest,
              (select ${STANDS} from cases c where c.id = :case) as stands,
              exists (select 1 from attachments a where a.message_id = m.id) as attached,
              (select jsonb_build_object('data', k.data, 'problem', k.problem) from case_lookups k
                where k.case_id = :case and k.source = 'bookings') as booking,
              (select coalesce(jsonb_object_agg(k.source, k.data), '{}') from case_lookups k
                where k.case_id = :case and k.source <> 'bookings' and k.data is not null) as outside,
              (select coalesce(jsonb_object_agg(l.key, l.answer), '{}') from (
                 select distinct on (q.key) q.key, a.answer from asked_questions a join questions q on q.id = a.question_id
                  where a.case_id = :case and a.answered_at is not null order by q.key, a.answered_at desc) l) as answers
         from people p left join lateral (
           select * from messages where case_id = :case and direction = 'in' order by at desc, id desc limit 1) m on true
        where p.id = :person`,
      { case: caseId, person: personId },
    ),
  );
  if (!row) throw new NotFound(t("thereIsNoSuchPersonAny"));
  return row;
}

/** The same said in several languages, the first of them first. @param say null where nobody says it in a language */
function inEach(tags: string[], say: (tag: string) => string | null) {
  const said = tags.flatMap((tag) => {
    const text = say(tag);
    return text === null ? [] : [[tag, text] as const];
  });
  const [first, ...others] = said;
  return { language: first?.[0] ?? null, text: first?.[1] ?? null, others: Object.fromEntries(others) };
}

/** What a context is made of. */
export interface ContextParts {
  settings: Settings;
  own: OwnTokens;
  person: Writer;
  /** With customer and organisation populated. */
  subject: Case;
  stands: Stands;
  booking: Pick<CaseLookup, "data" | "problem"> | null;
  latest: Answered | null;
  recipient: string | null;
  language: string;
  /** Whether the latest message has files. */
  attached: boolean;
  /** What the customer pressed last, by question. */
  answers: Record<string, Detail>;
  /** What other outside systems said, by source; nothing where it is not told. */
  outside?: Record<string, Record<string, Detail>>;
  now: Date;
}

/** Puts a case's details together as letters read them. */
export function contextFrom(parts: ContextParts): Context {
  const { settings, own, person, subject, stands, booking, latest, recipient, language, attached, now } =
    parts;
  const { house } = settings;
  const { customer } = subject;
  const { organisation } = customer;
  const team = teamDetails(settings, subject.team.id);
  const tags = [...new Set([language, ...settings.languages])];
  const standsIn = inEach(tags, (tag) => stateWords(settings.stateWords, subject.status, tag));
  const took = stands.seconds > 0 ? inEach(tags, (tag) => durationWords(stands.seconds, tag)) : null;
  return {
    case: {
      // A field of the house's that has one of these names goes before.
      state: standsIn.text,
      owner: stands.owner,
      time_spent: took?.text ?? null,
      done: subject.done ?? null,
      promised: stands.promised,
      next_date: stands.nextDate,
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
      ...customer.details,
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
          ...organisation.details,
          name: organisation.name,
          kind: organisation.kind ?? null,
          account: organisation.account ?? null,
          contract_until: organisation.contractUntil ?? null,
        }
      : {},
    booking: booking?.data ?? {},
    detail: Object.fromEntries(
      Object.entries(parts.outside ?? {}).flatMap(([source, data]) =>
        Object.entries(data).map(([key, value]) => [`${source}_${key}`, value]),
      ),
    ),
    agent: {
      ...person.details,
      name: person.name,
      first_name: person.firstName,
      title: person.title ?? null,
      team: team.name,
      department: person.department ?? null,
      email: person.email,
      phone: person.phone ?? null,
    },
    house: { name: house.name, ...own.facts },
    ask: askingHere(settings, subject.channel),
    answer: parts.answers,
    written: {
      ...own.written,
      ...team.written,
      "case.state": { language: standsIn.language, others: standsIn.others },
      ...(took ? { "case.time_spent": { language: took.language, others: took.others } } : {}),
    },
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
