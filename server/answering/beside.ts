import type { EntityManager } from "@mikro-orm/postgresql";
import type { Case } from "../db/entities/cases";
import { named, prepared, preparedOne } from "../db/sql";
import { OTHERS, type Other } from "./presence";

const SENT_REPLIES = `select distinct r.key from letter_replies u join sent_letters l on l.id = u.letter_id
       join messages m on m.id = l.message_id and m.state <> 'called back' and m.kind = 'message' join replies r on r.id = u.reply_id
      where l.case_id = :case`;

/** How many other cases of the customer's are told of. */
const EARLIER = 5;

/** What is told of a case beside its conversation. Times are ISO 8601 instants. */
export interface Beside {
  others: Other[];
  /** Keys of the replies that were sent on it before. */
  sentReplies: string[];
  /** How many letters the viewer has sent on it. */
  letters: number;
  /** The name of whose it is. */
  assignee: string | null;
  /** The number of the settled case that it goes on from. */
  follows: number | null;
  /** The customer's other cases, the latest first. */
  earlier: { number: number; subject: string; status: Case["status"]; openedAt: string }[];
}

/** Reads what is told of a case beside its conversation, in one. */
export async function besideCase(
  em: EntityManager,
  subject: Pick<Case, "id" | "customer" | "assignee" | "follows">,
  personId: number,
): Promise<Beside> {
  const row = await preparedOne<Beside>(
    em,
    ...named(
      `select (select coalesce(jsonb_agg(o), '[]') from (${OTHERS}) o) as others,
              (select coalesce(jsonb_agg(s.key), '[]') from (${SENT_REPLIES}) s) as "sentReplies",
              (select count(*)::int from sent_letters l join messages m on m.id = l.message_id and m.state <> 'called back'
                where l.case_id = :case and l.person_id = :person and m.kind = 'message') as letters,
              (select name from people where id = :assignee) as assignee,
              (select number from cases where id = :follows) as follows,
              (select coalesce(jsonb_agg(e), '[]') from (
                 select number, subject, status, opened_at as "openedAt" from cases
                  where customer_id = :customer and id <> :case order by opened_at desc limit ${EARLIER}) e) as earlier`,
      {
        ...{ case: subject.id, person: personId, customer: subject.customer.id },
        ...{ assignee: subject.assignee?.id ?? null, follows: subject.follows?.id ?? null },
      },
    ),
  );
  const earlier = row.earlier.map((one) => ({ ...one, openedAt: new Date(one.openedAt).toISOString() }));
  return { ...row, earlier };
}

/** Keys of the replies that were sent on a case before. */
export async function sentReplies(em: EntityManager, caseId: number): Promise<string[]> {
  const rows = await prepared<{ key: string }>(em, ...named(SENT_REPLIES, { case: caseId }));
  return rows.map((row) => row.key);
}
