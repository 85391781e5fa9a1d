import type { EntityManager } from "@mikro-orm/postgresql";
import { isOurs, type CaseState } from "#core/words/case-states";
import { splitQuoted } from "#core/mail/quoting";
import type { House } from "../db/entities/people";
import { OURS } from "./ours";
import { topicsOf } from "./topics";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";
import type { Viewer } from "../people/viewer";
import { holding, prepared } from "../db/sql";

export interface WaitingFilter {
  list: "us" | "customer" | "set aside" | "settled";
  whose: "mine" | "my team" | "nobody's" | "all";
  channel: "email" | "chat" | "sms" | null;
  topic: string | null;
  text: string;
}

/** A case as Waiting lists it. Times are ISO 8601 instants. */
export interface WaitingRow {
  number: number;
  label: string;
  customer: string;
  organisation: string | null;
  subject: string;
  /** First words of the latest inbound message. */
  words: string;
  channel: string;
  topic: string | null;
  answerBy: string | null;
  waitingSince: string | null;
  updatedAt: string;
  status: CaseState;
  /** Whose it is; null for nobody's. */
  assignee: string | null;
  /** Who is on it: those who have it open or began an answer. */
  people: string[];
  refused: boolean;
}

/** Most rows that one page lists; beyond them, filters narrow. */
export const MOST_ROWS = 300;

/** The states of each list, as SQL. */
const STATES = {
  us: `c.status in (${OURS})`,
  customer: "c.status = 'waiting on the customer'",
  "set aside": "c.status = 'set aside'",
  settled: "c.status = 'settled'",
} as const;

/** The list that a state is on; null for none. */
function listOf(state: CaseState): WaitingFilter["list"] | null {
  if (isOurs(state)) return "us";
  if (state === "waiting on the customer") return "customer";
  return state === "set aside" || state === "settled" ? state : null;
}

/** The driver hands timestamps of plain queries over as text. */
function instant(text: string | null): string | null {
  return text === null ? null : new Date(text).toISOString();
}

interface Row {
  number: number;
  customer: string;
  organisation: string | null;
  subject: string;
  text: string | null;
  channel: string;
  topic: string | null;
  answer_by: string | null;
  waiting_since: string | null;
  updated_at: string;
  people: string[] | null;
  refused: boolean;
  status: CaseState;
  team_id: number;
  assignee_id: number | null;
  assignee: string | null;
}

/** A case `c` as lists show it; asks for the id of a person whose being on it is not told. */
const ROW_OF_CASE = `select c.number, cu.display_name as customer, o.name as organisation, c.subject, m.text, c.channel, c.topic, c.answer_by, c.waiting_since, c.updated_at,
            (select array_agg(distinct p.name) from people p where p.id <> ? and
               (exists (select 1 from case_presence cp where cp.case_id = c.id and cp.person_id = p.id and cp.seen_at > now() - interval '45 seconds')
                or exists (select 1 from drafts d where d.case_id = c.id and d.person_id = p.id))) as people,
            exists (select 1 from messages x where x.case_id = c.id and x.state = 'refused') as refused,
            c.status, c.team_id, c.assignee_id, (select name from people where id = c.assignee_id) as assignee
       from cases c
       join customers cu on cu.id = c.customer_id
       left join organisations o on o.id = cu.organisation_id
       left join lateral (select left(m.text, 800) as text from messages m where m.case_id = c.id and m.direction = 'in' order by m.at desc limit 1) m on true`;

/** A case that changed, for lists that are open: its row, and by what lists choose it. */
export interface ChangedRow {
  row: WaitingRow;
  /** The list that it is on; null for none. */
  list: WaitingFilter["list"] | null;
  team: number;
  assignee: number | null;
}

/** One case as lists show it to anybody; null where there is none. */
export async function changedRow(em: EntityManager, number: number): Promise<ChangedRow | null> {
  const [[found], { house }] = await Promise.all([
    prepared<Row>(em, `${ROW_OF_CASE} where c.number = ?`, [0, number]),
    settingsOf(em),
  ]);
  if (!found) return null;
  return {
    row: asRow(found, house),
    list: listOf(found.status),
    team: found.team_id,
    assignee: found.assignee_id,
  };
}

function asRow(row: Row, house: Pick<House, "casePrefix">): WaitingRow {
  return {
    number: row.number,
    label: caseNumber(house, row.number),
    customer: row.customer,
    organisation: row.organisation,
    subject: row.subject,
    words: splitQuoted(row.text ?? "")
      .written.replace(/\s+/g, " ")
      .slice(0, 400),
    channel: row.channel,
    topic: row.topic,
    answerBy: instant(row.answer_by),
    waitingSince: instant(row.waiting_since),
    updatedAt: new Date(row.updated_at).toISOString(),
    status: row.status,
    assignee: row.assignee,
    people: row.people ?? [],
    refused: row.refused,
  };
}

/** Cases by a filter: those that wait for us by time left, the others by what happened last. */
export async function waitingCases(
  em: EntityManager,
  viewer: Viewer,
  filter: WaitingFilter,
): Promise<{
  rows: WaitingRow[];
  more: boolean;
  /** How many each list has; those that are settled are not counted. */
  counts: Record<Exclude<WaitingFilter["list"], "settled">, number>;
  topics: string[];
}> {
  const { where, values } = conditions(viewer, filter);
  const listing = prepared<Row>(
    em,
    `${ROW_OF_CASE}
      where ${STATES[filter.list]} and ${where}
      order by ${filter.list === "us" ? "c.answer_by asc nulls last, c.number" : "c.updated_at desc"}
      limit ${MOST_ROWS + 1}`,
    [viewer.id, ...values],
  );
  // Who the customer is counts only where they are looked for.
  const withCustomer = filter.text.trim() === "" ? "" : "join customers cu on cu.id = c.customer_id";
  const counting = prepared<{ status: CaseState; n: number }>(
    em,
    `select c.status, count(*)::int as n from cases c ${withCustomer} where c.status <> 'settled' and ${where} group by c.status`,
    values,
  );
  const [rows, counted, topics, { house }] = await Promise.all([
    listing,
    counting,
    topicsOf(em),
    settingsOf(em),
  ]);
  const count = (list: WaitingFilter["list"]) =>
    counted.filter((one) => listOf(one.status) === list).reduce((sum, { n }) => sum + n, 0);
  return {
    rows: rows.slice(0, MOST_ROWS).map((row) => asRow(row, house)),
    more: rows.length > MOST_ROWS,
    counts: { us: count("us"), customer: count("customer"), "set aside": count("set aside") },
    topics,
  };
}

/** How many cases wait for the viewer's teams, for the navigation. */
export async function waitingCount(em: EntityManager, viewer: Viewer): Promise<number> {
  const [row] = await prepared<{ n: number }>(
    em,
    `select count(*)::int as n from cases c where ${STATES.us} and c.team_id = any(?)`,
    [viewer.teams],
  );
  return row?.n ?? 0;
}

/** The waiting cases of the viewer's teams before and after one, by time left. */
export async function neighbours(
  em: EntityManager,
  viewer: Viewer,
  number: number,
): Promise<{ previous: number | null; next: number | null; position: number | null; total: number }> {
  const rows = await prepared<{ number: number }>(
    em,
    `select c.number from cases c where ${STATES.us} and c.team_id = any(?) order by c.answer_by asc nulls last, c.number limit 1000`,
    [viewer.teams],
  );
  const numbers = rows.map((row) => row.number);
  const at = numbers.indexOf(number);
  if (at < 0) return { previous: null, next: numbers[0] ?? null, position: null, total: numbers.length };
  return {
    previous: numbers[at - 1] ?? null,
    next: numbers[at + 1] ?? null,
    position: at + 1,
    total: numbers.length,
  };
}

function conditions(viewer: Viewer, filter: WaitingFilter): { where: string; values: unknown[] } {
  const parts: string[] = ["true"];
  const values: unknown[] = [];
  const add = (sql: string, ...given: unknown[]) => {
    parts.push(sql);
    values.push(...given);
  };
  if (filter.whose === "mine") add("c.assignee_id = ?", viewer.id);
  if (filter.whose === "nobody's") add("c.assignee_id is null and c.team_id = any(?)", viewer.teams);
  if (filter.whose === "my team") add("c.team_id = any(?)", viewer.teams);
  if (filter.channel) add("c.channel = ?", filter.channel);
  if (filter.topic) add("c.topic = ?", filter.topic);
  const text = filter.text.trim();
  const number = /(\d{3,})$/.exec(text)?.[1];
  if (text !== "") {
    const like = holding(text);
    add(
      `(cu.display_name ilike ? or c.subject ilike ? or exists (select 1 from organisations og where og.id = cu.organisation_id and og.name ilike ?) or c.number = ? or exists (select 1 from unnest(c.tags) tag where lower(tag) = lower(?)) or exists (select 1 from messages m where m.case_id = c.id
         and to_tsvector('simple', m.subject || ' ' || m.text) @@ plainto_tsquery('simple', ?)))`,
      like,
      like,
      like,
      Number(number ?? -1),
      text,
      text,
    );
  }
  return { where: parts.join(" and "), values };
}
