import type { Incoming } from "#core/standing/message";
import type { OpenHours } from "#core/clock/open-hours";
import type { Detail } from "#core/tokens/context";
import type { CaseState } from "#core/words/case-states";
import type { Envelope } from "../db/entities/messages";

/** So much of a message is read by rules, in characters: what is asked stands before that. */
const READ = 20_000;

/** Whether a message goes on with a case: what opens one is about nothing that anybody has said yet. */
const GOES_ON =
  "exists (select 1 from messages e where e.case_id = m.case_id and (e.at, e.id) < (m.at, m.id))";
/** Whether one of us had written on its case when it came. */
const ANSWERED =
  "exists (select 1 from messages o where o.case_id = m.case_id and o.direction = 'out' and o.kind = 'message' and o.state <> 'called back' and o.at < m.at)";
/** How its case stood when it came. */
const STATE_THEN =
  "coalesce((select s.status from case_states s where s.case_id = c.id and s.at < m.at order by s.id desc limit 1), 'new')";

/** What rules read of messages `m` that came in, on cases `c` of customers `cu`. */
export const INCOMING = `m.id, m.at, m.direction, m.channel, m.kind, c.id as case_id, c.status as state_now, c.topic as topic_now, m.from_address, m.to_address, m.reply_to, m.subject, left(m.text, ${READ}) as body,
  m.language, m.envelope, ${GOES_ON} as goes_on, ${ANSWERED} as answered, (select b.address from mailboxes b where b.id = c.mailbox_id) as mailbox,
  exists (select 1 from attachments a where a.message_id = m.id) as attached,
  exists (select 1 from junk_senders j where j.address = lower(m.from_address)) or coalesce(c.aside_as = 'junk or fraud', false) as junk,
  jsonb_build_object('number', c.number, 'subject', c.subject, 'topic', case when ${GOES_ON} then c.topic end, 'state', ${STATE_THEN}, 'tags', array_to_string(c.tags, ', ')) || c.details as "case",
  jsonb_build_object('first_name', cu.first_name, 'last_name', cu.last_name, 'language', cu.language, 'since', cu.since, 'phone', cu.phone) || cu.details as customer,
  (select jsonb_build_object('name', o.name, 'kind', o.kind, 'account', o.account) || o.details from organisations o where o.id = cu.organisation_id) as organisation,
  (select k.data from case_lookups k where k.case_id = c.id and k.source = 'bookings') as booking`;

export const INCOMING_FROM = `messages m join cases c on c.id = m.case_id join customers cu on cu.id = c.customer_id`;

/** A row of those. */
export interface IncomingRow {
  id: number;
  at: string | Date;
  direction: "in" | "out";
  case_id: number;
  state_now: CaseState;
  topic_now: string | null;
  goes_on: boolean;
  answered: boolean;
  channel: string;
  kind: string;
  from_address: string;
  to_address: string;
  reply_to: string | null;
  subject: string;
  body: string;
  language: string | null;
  envelope: Envelope | null;
  mailbox: string | null;
  attached: boolean;
  junk: boolean;
  case: Record<string, Detail>;
  customer: Record<string, Detail>;
  organisation: Record<string, Detail> | null;
  booking: Record<string, Detail> | null;
}

/** What is kept of a message from before its headers were, by what it was told to be. */
const BY_KIND: Record<string, Record<string, string[]>> = {
  automatic: { "auto-submitted": ["auto-replied"] },
  list: { precedence: ["list"] },
  failure: { "content-type": ["multipart/report"] },
};

/** A message as rules read it. @param hours of the house, by which it came within them or not */
export function incomingOf(row: IncomingRow, hours: Pick<OpenHours, "isOpen">): Incoming {
  const at = new Date(row.at);
  const known = row.envelope?.headers ?? BY_KIND[row.kind] ?? {};
  const isTheirs = row.direction === "in";
  return {
    ...{ id: row.id, at: at.toISOString(), channel: row.channel, mailbox: row.mailbox },
    // Where only we have written, an answer goes to whom we wrote.
    ...(isTheirs
      ? { from: row.from_address, to: row.to_address, body: row.body }
      : { from: row.to_address, to: row.from_address, body: "" }),
    subject: row.subject,
    headers: isTheirs ? { ...known, ...(row.reply_to === null ? {} : { "reply-to": [row.reply_to] }) } : {},
    ...(row.envelope && isTheirs ? { return_path: row.envelope.returnPath } : {}),
    ...{ case: row.case, customer: row.customer, organisation: row.organisation, booking: row.booking },
    message: {
      language: row.language,
      has_attachment: row.attached,
      in_hours: hours.isOpen(at.getTime()),
      is_first: !row.goes_on,
      answered_before: row.answered,
    },
    junk: row.junk,
  };
}
