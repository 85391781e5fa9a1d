import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import type { EntityManager } from "@mikro-orm/postgresql";
import { readOpenCase } from "#server/answering/open";
import { waitingCases, type WaitingFilter } from "#server/cases/waiting";
import { Person } from "#server/db/entities/people";
import { houseRanker, stopRankers } from "#server/ranking/house-ranker";
import { query } from "#server/db/sql";
import { viewerOf } from "#server/people/viewer";
import { customerPage, organisationPage } from "#server/record/customers";
import { recordedMessage } from "#server/record/letter";
import { searchRecord, type RecordFilter } from "#server/record/search";
import { caseRecord } from "#server/record/timeline";
import { onDemoDatabase } from "./database";
import { percentiles } from "./measure";

const CUSTOMERS = 100_000;
const CASES = 200_000;
const MESSAGES_A_CASE = 5;
const RUNS = 40;

/** Made so that each run has the same, and words are as seldom and as usual as in letters. */
const FILL = [
  "set session_replication_role = replica",
  "select setseed(0.5)",
  "drop index messages_words, messages_case_id_at_index, messages_person_id_at_index, messages_at_id_index",
  `create temp table words as select row_number() over () as n, word from (
     select distinct lower(w) as word from messages, regexp_split_to_table(text, '[^[:alpha:]]+') w where length(w) > 2 order by 1) x`,
  `insert into organisations (name, name_key, kind) select 'Firm ' || n, 'firm ' || n, 'firm' from generate_series(1, 5000) n`,
  `insert into customers (first_name, last_name, display_name, name_key, language, organisation_id)
     select 'Ana', 'Person' || n, 'Ana Person' || n, 'ana person' || n, 'en',
            case when n % 10 = 0 then (select min(id) from organisations where name = 'Firm 1') + (n / 10) % 5000 end
       from generate_series(1, ${CUSTOMERS}) n`,
  `insert into customer_addresses (channel, address, customer_id) select 'email', 'person' || id || '@example.org', id from customers where display_name like 'Ana Person%'`,
  `insert into cases (number, channel, subject, topic, language, status, customer_id, team_id, assignee_id, opened_at, waiting_since, answer_by, updated_at)
     select 1000000 + n, 'email', 'about ' || (select w.word from words w where w.n = 1 + g.n % 400),
            (array['sailings','refunds','bicycles','dogs','groups','freight','timetable','lost property'])[1 + n % 8], 'en',
            case when n % 800 = 0 then 'open' when n % 3 = 0 then 'settled' else 'waiting on the customer' end,
            (select min(id) from customers where display_name like 'Ana Person%') + n % ${CUSTOMERS},
            (select min(id) from teams), (select min(id) from people) + n % 6,
            now() - n * interval '3 minutes', case when n % 800 = 0 then now() - interval '1 hour' end,
            case when n % 800 = 0 then now() + (n % 48) * interval '1 hour' end, now() - n * interval '3 minutes'
       from generate_series(1, ${CASES}) g(n)`,
  `insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, person_id, at, sent_at, "references")
     select c.id, case when k % 2 = 0 then 'out' else 'in' end, 'email', case when k % 2 = 0 then 'sent' else 'received' end,
            'person@example.org', 'desk@example.com', c.subject,
            (select string_agg(w.word, ' ') from (select 1 + floor(power(random(), 2.5) * (select count(*) from words))::int as n from generate_series(1, 40 + 0 * c.id)) r join words w on w.n = r.n),
            case when k % 2 = 0 then c.assignee_id end, c.opened_at + k * interval '20 minutes', c.opened_at + k * interval '20 minutes', '{}'
       from cases c, generate_series(1, ${MESSAGES_A_CASE}) k where c.number > 1000000`,
  `insert into sent_letters (message_id, case_id, person_id, language, subject, slips, trace, checks, created_at)
     select m.id, m.case_id, m.person_id, 'en', '{"from":"thread"}', '[]', '[]', '[]', m.at from messages m join cases c on c.id = m.case_id
      where c.number > 1000000 and m.direction = 'out'`,
  `insert into letter_replies (letter_id, reply_id, position, at, version_id)
     select l.id, r.id, 0, l.created_at, r.current_version_id from sent_letters l
       join (select id, current_version_id, row_number() over (order by id) - 1 as n, count(*) over () as all_of from replies where current_version_id is not null) r
         on r.n = l.id % r.all_of where l.slips = '[]'`,
  "update messages set text = text || ' zyzzyva' where id % 50000 = 0",
  `create index "messages_words" on "messages" using gin (to_tsvector('simple', "subject" || ' ' || "text"))`,
  `create index "messages_case_id_at_index" on "messages" ("case_id", "at")`,
  `create index "messages_person_id_at_index" on "messages" ("person_id", "at")`,
  `create index "messages_at_id_index" on "messages" ("at", "id")`,
  "set session_replication_role = origin",
  "vacuum analyze",
];

const anything: RecordFilter = {
  ...{ words: "", customer: "", organisation: "", agent: null, version: null, reply: null },
  ...{ topic: null, channel: null, direction: null, from: null, until: null, before: null },
};

/** The statement that a search comes down to: which messages, and what a line of theirs shows. */
const found = (where: string, latest = "m.at", shown = "f.subject, left(f.text, 240)") =>
  `with f as materialized (select m.* from messages m where ${where} order by ${latest} desc, m.id desc limit 41)
   select f.id, f.at, f.direction, f.channel, c.number, c.topic, cu.display_name, o.name, p.name, ${shown}
     from f join cases c on c.id = f.case_id join customers cu on cu.id = c.customer_id
     left join organisations o on o.id = cu.organisation_id left join people p on p.id = f.person_id order by f.at desc`;
const has = (words: string) => `to_tsvector('simple', m.subject || ' ' || m.text) @@ '${words}'::tsquery`;
/** The same by words, with those around them. */
const said = (words: string, latest?: string, where = "true") =>
  found(
    `${where} and ${has(words)}`,
    latest,
    ["f.subject", "f.text"].map((text) => `ts_headline('simple', ${text}, '${words}'::tsquery)`).join(", "),
  );
const LOOKED_UP = "m.at + interval '0'";

interface Measured {
  p50: number;
  p95: number;
  bare: number;
  ratio: number;
}

/** Measures what a screen asks against the statement that it cannot do without, one after the other. */
async function against(work: () => Promise<unknown>, bare: () => Promise<unknown>): Promise<Measured> {
  const times: { work: number[]; bare: number[] } = { work: [], bare: [] };
  for (let run = 0; run < RUNS + 3; run += 1)
    for (const [name, one] of [
      ["work", work],
      ["bare", bare],
    ] as const) {
      const began = performance.now();
      await one();
      if (run >= 3) times[name].push(performance.now() - began);
    }
  const [ours, theirs] = [percentiles(times.work), percentiles(times.bare)];
  return { ...ours, bare: theirs.p95, ratio: Math.round((ours.p95 / Math.max(0.1, theirs.p95)) * 10) / 10 };
}

/**
 * A million messages of 200,000 cases and 100,000 customers: Waiting, a case, a customer's page and each search, against
 * their bare SQL; a backup, and a restore into an empty database.
 */
export async function benchRecord(): Promise<object> {
  const now = new Date();
  return onDemoDatabase(async (em, url) => {
    // What a process must be told.
    process.env.DATABASE_URL = url;
    process.env.SESSION_SECRET ??= "x".repeat(32);
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const began = performance.now();
    for (const sql of FILL) await client.query(sql);
    const filled = Math.round((performance.now() - began) / 1000);
    const screens = await measureScreens(em, client, now);
    const counts = await query<{ messages: number; cases: number; customers: number }>(
      em(),
      `select (select count(*)::int from messages) as messages, (select count(*)::int from cases) as cases, (select count(*)::int from customers) as customers`,
    );
    await client.end();
    await stopRankers();
    return { bench: "record", unit: "ms", ...counts[0], filled, screens, backup: await backUp(url) };
  }, now);
}

async function measureScreens(em: () => EntityManager, client: pg.Client, now: Date): Promise<object> {
  // What ranks is read ahead: the program does so once, when it starts.
  await houseRanker(em()).ready();
  const person = await em().findOneOrFail(Person, { email: "maren@example.com" }, { populate: ["team"] });
  const viewer = viewerOf(person);
  const one = async (sql: string) =>
    Number(Object.values((await client.query<Record<string, number>>(sql)).rows[0] ?? {})[0]);
  const number = await one("select number from cases where number > 1100000 order by number limit 1");
  const caseId = await one(`select id from cases where number = ${number}`);
  const letter = await one(`select id from messages where case_id = ${caseId} and direction = 'out' limit 1`);
  const customer = await one(`select customer_id from cases where number = ${number}`);
  const organisation = await one("select min(id) from organisations where name = 'Firm 7'");
  const version = await one("select version_id from letter_replies order by id desc limit 1");
  const rare = String(
    (await client.query<{ word: string }>("select word from words order by n desc limit 1")).rows[0]?.word,
  );
  const usual = String(
    (await client.query<{ word: string }>("select word from words where n = 1")).rows[0]?.word,
  );
  const search = (filter: Partial<RecordFilter>) => () => searchRecord(em(), { ...anything, ...filter });
  // One after the other, as a transaction would ask them.
  const bare = (statements: string[]) => async () => {
    for (const sql of statements) await client.query(sql);
  };
  const waiting: WaitingFilter = { list: "us", whose: "all", channel: null, topic: null, text: "" };
  const ours = "('new', 'open', 'waiting on a colleague')";
  const aCase = [
    `select c.*, cu.*, o.* from cases c join customers cu on cu.id = c.customer_id left join organisations o on o.id = cu.organisation_id where c.id = ${caseId}`,
    `select * from case_events where case_id = ${caseId} order by at desc limit 100`,
    `select * from notes where case_id = ${caseId}`,
    "select version from settings_version",
  ];
  const measures: Record<string, [() => Promise<unknown>, ...string[]]> = {
    waiting: [
      () => waitingCases(em(), viewer, waiting),
      `select c.*, cu.display_name, m.text from cases c join customers cu on cu.id = c.customer_id left join lateral (
         select text from messages m where m.case_id = c.id and m.direction = 'in' order by m.at desc limit 1) m on true
        where c.status in ${ours} order by c.answer_by limit 301`,
      "select status, count(*) from cases where status <> 'settled' group by status",
    ],
    case: [
      () => readOpenCase(em(), viewer, number, 0, now),
      ...aCase,
      `select * from messages where case_id = ${caseId} order by at desc limit 20`,
      `select * from drafts where case_id = ${caseId}`,
      `select * from case_lookups where case_id = ${caseId}`,
      `select * from cases where customer_id = ${customer} order by opened_at desc limit 10`,
      `select * from promises where case_id = ${caseId}`,
      `select person_id, sum(active_seconds) from time_entries where case_id = ${caseId} group by person_id`,
      `select * from case_notices where case_id = ${caseId}`,
      `select p.name from case_presence x join people p on p.id = x.person_id where x.case_id = ${caseId}`,
      `select a.* from attachments a join messages m on m.id = a.message_id where m.case_id = ${caseId}`,
      `select address from customer_addresses where customer_id = ${customer}`,
      "select json_agg(key) from replies where state = 'shelved' and 'email' = any(channels)",
      // The first cards of the shelf, what the writer sent lately, and how colleagues answered the like.
      `select r.*, v.*, t.* from replies r join reply_versions v on v.id = r.current_version_id join reply_variants t on t.version_id = v.id and t.language = 'en' limit 8`,
      `select r.key, max(lr.at) from (select id from sent_letters where person_id = ${viewer.id} order by created_at desc limit 100) l
         join letter_replies lr on lr.letter_id = l.id join replies r on r.id = lr.reply_id group by r.key`,
      `select c.number, p.name, l.created_at from sent_letters l join cases c on c.id = l.case_id join people p on p.id = l.person_id
        where l.created_at > now() - interval '7 days' and c.topic = (select topic from cases where id = ${caseId}) order by l.created_at desc limit 40`,
    ],
    "record of a case": [
      () => caseRecord(em(), viewer, number),
      `select m.*, (select jsonb_agg(lr.reply_id) from sent_letters l join letter_replies lr on lr.letter_id = l.id where l.message_id = m.id)
         from messages m where case_id = ${caseId} order by at desc limit 201`,
      ...aCase,
    ],
    letter: [
      () => recordedMessage(em(), viewer, number, letter),
      `select m.*, l.* from messages m join sent_letters l on l.message_id = m.id where m.id = ${letter}`,
      `select r.*, v.*, (select count(*) from letter_replies x where x.version_id = v.id) from letter_replies lr join sent_letters l on l.id = lr.letter_id
         join replies r on r.id = lr.reply_id left join reply_versions v on v.id = lr.version_id where l.message_id = ${letter}`,
      `select * from attachments where message_id = ${letter}`,
      `select o.* from letter_offers o join sent_letters l on l.id = o.letter_id where l.message_id = ${letter}`,
    ],
    customer: [
      () => customerPage(em(), customer, null),
      `select c.*, (select count(*) from messages m where m.case_id = c.id) from cases c where customer_id = ${customer} order by opened_at desc limit 51`,
      `select c.* from customers c left join organisations o on o.id = c.organisation_id where c.id = ${customer}`,
      `select * from customer_addresses where customer_id = ${customer}`,
      `select count(*), count(*) filter (where status in ${ours}) from cases where customer_id = ${customer}`,
    ],
    organisation: [
      () => organisationPage(em(), organisation, null),
      `select c.*, (select count(*) from messages m where m.case_id = c.id) from cases c where customer_id in (
         select id from customers where organisation_id = ${organisation}) order by opened_at desc limit 51`,
      `select * from organisations where id = ${organisation}`,
      `select *, (select count(*) from cases c where c.customer_id = x.id) from customers x where organisation_id = ${organisation} limit 50`,
      `select count(*) from cases where customer_id in (select id from customers where organisation_id = ${organisation})`,
    ],
    "search, a word of twenty messages": [search({ words: "zyzzyva" }), said("zyzzyva:*", LOOKED_UP)],
    "search, a seldom word": [search({ words: rare }), said(`${rare}:*`, LOOKED_UP)],
    "search, a usual word": [search({ words: usual }), said(`${usual}:*`)],
    "search, two words": [search({ words: `${usual} ${rare}` }), said(`${usual}:* & ${rare}:*`, LOOKED_UP)],
    "search, a phrase": [search({ words: `"${usual} ${usual}"` }), said(`${usual}:* <-> ${usual}:*`)],
    "search, by customer": [
      search({ customer: "Person77777" }),
      found(
        "m.case_id in (select c.id from cases c join customers u on u.id = c.customer_id where u.display_name ilike '%Person77777%')",
      ),
    ],
    "search, by organisation": [
      search({ organisation: "Firm 4321" }),
      found(
        "m.case_id in (select c.id from cases c join customers u on u.id = c.customer_id join organisations o on o.id = u.organisation_id where o.name ilike '%Firm 4321%')",
      ),
    ],
    "search, by colleague": [search({ agent: viewer.id }), found(`m.person_id = ${viewer.id}`)],
    "search, by version": [
      search({ version }),
      found(
        `m.id in (select l.message_id from letter_replies lr join sent_letters l on l.id = lr.letter_id where lr.version_id = ${version})`,
      ),
    ],
    "search, by topic": [
      search({ topic: "dogs" }),
      found("m.case_id in (select id from cases where topic = 'dogs')"),
    ],
    "search, by topic and a usual word": [
      search({ topic: "dogs", words: usual }),
      said(`${usual}:*`, "m.at", "m.case_id in (select id from cases where topic = 'dogs')"),
    ],
    "search, by channel": [search({ channel: "sms" }), found("m.channel <> 'email' and m.channel = 'sms'")],
    "search, by day": [
      search({ from: "2026-06-01", until: "2026-06-02" }),
      found("m.at >= '2026-06-01' and m.at < '2026-06-03'"),
    ],
  };
  const results: Record<string, Measured> = {};
  for (const [name, [work, ...statements]] of Object.entries(measures))
    results[name] = await against(work, bare(statements));
  return results;
}

async function admin(url: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}

/** A backup and its restore into an empty database, in seconds, and how large it is. */
async function backUp(url: string): Promise<object> {
  const folder = mkdtempSync(join(tmpdir(), "plain-shelf-backup-"));
  const file = join(folder, "backup");
  const timed = (command: string, args: string[]) => {
    const began = performance.now();
    execFileSync(command, args, { stdio: "ignore" });
    return Math.round((performance.now() - began) / 100) / 10;
  };
  try {
    const backup = timed("pg_dump", ["-Fc", "-f", file, url]);
    const into = new URL(url);
    into.pathname = "/restored";
    await admin(url, "create database restored");
    const restore = timed("pg_restore", ["-j", "2", "-d", into.href, file]);
    return { unit: "s", backup, restore, megabytes: Math.round(statSync(file).size / 1e6) };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
