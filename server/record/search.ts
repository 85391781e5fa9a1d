import type { EntityManager } from "@mikro-orm/postgresql";
import { holding, query } from "../db/sql";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";

/** What is looked for in all that was said; null for any. Days are calendar dates in the house's time zone. */
export interface RecordFilter {
  /** Words, a "phrase", -without, or. */
  words: string;
  /** In the name or an address of a customer. */
  customer: string;
  organisation: string;
  /** Ids. */
  agent: number | null;
  version: number | null;
  /** Key of a reply. */
  reply: string | null;
  topic: string | null;
  channel: "email" | "chat" | "sms" | null;
  direction: "in" | "out" | null;
  from: string | null;
  until: string | null;
  /** Only what was said before this message. */
  before: { at: string; id: number } | null;
}

/** Where words were said that were looked for. */
export interface FoundMessage {
  id: number;
  at: string;
  direction: "in" | "out";
  channel: string;
  state: string;
  case: number;
  label: string;
  /** Its subject, in stretches; none where it has none. */
  subject: Stretch[];
  topic: string | null;
  customer: string;
  customerId: number;
  organisation: string | null;
  /** The colleague who said it; null for the customer. */
  by: string | null;
  /** Its words around what was looked for, in stretches. */
  words: Stretch[];
}

/** Words of a message, and whether they are what was looked for. */
export interface Stretch {
  text: string;
  found: boolean;
}

/** So many are found at once. */
const PAGE = 40;
/** So much of a message is looked through for the words around those that were found, in characters. */
const LOOKED_THROUGH = 20_000;

/** What marks found words, in private use (Unicode 16, 23.5). */
const [BEGIN, END] = ["\ue001", "\ue002"];

/** The same question as PostgreSQL asks it, each word also at the beginning of a longer one. */
const QUESTION = `regexp_replace(websearch_to_tsquery('simple', ?)::text, '(''([^'']|'''')+'')', '\\1:*', 'g')::tsquery`;

/** Whether a message has the words. */
const IN_WORDS = `to_tsvector('simple', m.subject || ' ' || m.text) @@ ${QUESTION}`;

const MARKS = `StartSel=${BEGIN}, StopSel=${END}`;
const HEADLINES = `ts_headline('simple', f.subject, ${QUESTION}, 'HighlightAll=true, ${MARKS}') as about,
  ts_headline('simple', f.text, ${QUESTION}, 'MaxFragments=2, MinWords=14, MaxWords=32, FragmentDelimiter= … , ${MARKS}') as text`;

/**
 * Finds all that was sent and received by its words and by whom, about what, when; the latest first.
 * @returns with whether there is more
 */
export async function searchRecord(
  em: EntityManager,
  filter: RecordFilter,
): Promise<{ found: FoundMessage[]; more: boolean }> {
  const { house } = await settingsOf(em);
  const { where, values } = conditions(filter, house.timeZone);
  const hasWords = filter.words.trim() !== "";
  // Words that few messages have are looked up, and sorted then; of others the latest are soon found going back in time. Left
  // to itself, PostgreSQL takes the beginning of a word for usual, and goes back through everything for one that is seldom.
  const latest = hasWords && (await isSeldom(em, filter.words)) ? "m.at + interval '0'" : "m.at";
  const rows = await query<
    Omit<FoundMessage, "label" | "words" | "subject"> & { about: string; text: string }
  >(
    em,
    `with found as materialized (
       select m.id, m.at, m.direction, m.channel, m.state, m.case_id, m.person_id, m.subject, left(m.text, ${LOOKED_THROUGH}) as text
         from messages m where ${where}
        order by ${latest} desc, m.id desc limit ${PAGE + 1})
     select f.id, f.at, f.direction, f.channel, f.state, c.number as case, c.topic, cu.display_name as customer, cu.id as "customerId",
            o.name as organisation, p.name as by,
            ${hasWords ? HEADLINES : "f.subject as about, left(f.text, 240) as text"}
       from found f join cases c on c.id = f.case_id join customers cu on cu.id = c.customer_id
       left join organisations o on o.id = cu.organisation_id left join people p on p.id = f.person_id
      order by f.at desc, f.id desc`,
    hasWords ? [...values, filter.words, filter.words] : values,
  );
  return {
    found: rows.slice(0, PAGE).map(({ about, text, ...row }) => ({
      ...row,
      subject: stretches(about),
      at: new Date(row.at).toISOString(),
      label: caseNumber(house, row.case),
      words: stretches(text),
    })),
    more: rows.length > PAGE,
  };
}

/** At so many messages that have the words, going back in time is quicker than looking all of them up. */
const USUAL = 20_000;

/** Whether few messages have words, as PostgreSQL's statistics have it. */
async function isSeldom(em: EntityManager, words: string): Promise<boolean> {
  const [row] = await query<{ "QUERY PLAN": [{ Plan: { "Plan Rows": number } }] }>(
    em,
    `explain (format json) select 1 from messages m where ${IN_WORDS}`,
    [words],
  );
  return (row?.["QUERY PLAN"][0].Plan["Plan Rows"] ?? 0) < USUAL;
}

function conditions(filter: RecordFilter, timeZone: string): { where: string; values: unknown[] } {
  const parts = ["m.state <> 'called back'"];
  const values: unknown[] = [];
  const add = (sql: string, ...given: unknown[]) => {
    parts.push(sql);
    values.push(...given);
  };
  if (filter.words.trim() !== "") add(IN_WORDS, filter.words);
  const customer = filter.customer.trim();
  if (customer !== "")
    add(
      `m.case_id in (select c.id from cases c where c.customer_id in (
         select cu.id from customers cu where cu.display_name ilike ?
         union select a.customer_id from customer_addresses a where a.address ilike ?))`,
      holding(customer),
      holding(customer),
    );
  const organisation = filter.organisation.trim();
  if (organisation !== "")
    add(
      `m.case_id in (select c.id from cases c join customers cu on cu.id = c.customer_id join organisations o on o.id = cu.organisation_id
                      where o.name ilike ?)`,
      holding(organisation),
    );
  if (filter.agent !== null) add("m.person_id = ?", filter.agent);
  const used =
    "m.id in (select l.message_id from letter_replies lr join sent_letters l on l.id = lr.letter_id";
  if (filter.version !== null) add(`${used} where lr.version_id = ?)`, filter.version);
  else if (filter.reply !== null)
    add(`${used} join replies r on r.id = lr.reply_id where r.key = ?)`, filter.reply);
  if (filter.topic !== null) add("m.case_id in (select c.id from cases c where c.topic = ?)", filter.topic);
  // Said as it stands in the index of those that are seldom.
  if (filter.channel !== null)
    add(
      filter.channel === "email" ? "m.channel = ?" : "m.channel <> 'email' and m.channel = ?",
      filter.channel,
    );
  if (filter.direction !== null) add("m.direction = ?", filter.direction);
  if (filter.from !== null) add("m.at >= (?::date::timestamp at time zone ?)", filter.from, timeZone);
  if (filter.until !== null) add("m.at < ((?::date + 1)::timestamp at time zone ?)", filter.until, timeZone);
  if (filter.before !== null) add("(m.at, m.id) < (?::timestamptz, ?)", filter.before.at, filter.before.id);
  return { where: parts.join(" and "), values };
}

function stretches(text: string): Stretch[] {
  return text
    .replace(/\s+/g, " ")
    .split(BEGIN)
    .flatMap((part, index) => {
      if (index === 0) return [{ text: part, found: false }];
      const [found = "", rest = ""] = part.split(END);
      return [
        { text: found, found: true },
        { text: rest, found: false },
      ];
    })
    .filter((one) => one.text !== "");
}
