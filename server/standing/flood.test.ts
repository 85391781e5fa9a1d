import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { standingSchema } from "#core/forms/standing";
import type { Effects } from "#core/standing/effects";
import { query } from "../db/sql";
import { testCase, testHouse, type TestHouse } from "../testing";
import { answerByRules } from "./on-arrival";
import { rehearseRule } from "./rehearse";
import { listRules, rulesToLookAt, saveRule, switchRule } from "./rules";

/** What rules do when a great many messages come at once, and when a process dies in the middle. */

let house: TestHouse;
beforeAll(async () => {
  house = await testHouse();
});
afterAll(() => house.close());

const em = () => house.em();
const lead = () => ({ ...house.maren, role: "lead" as const });
const early = new Date("2026-11-25T08:00:00Z");
const now = new Date("2026-11-25T09:00:05Z");
const MANY = 5000;
/** So many are asked about at once. */
const LOT = 20;
const PER_HOUR = 60;

async function ruleOn(effects: Effects = {}): Promise<number> {
  const rule = standingSchema.parse({
    ...{ name: "Storm", reply: "fee", channels: [], mailboxes: [], when: null, trigger: { on: "arrival" } },
    ...{
      oncePerSenderHours: 24,
      perHour: PER_HOUR,
      delayMinutes: 0,
      stop: true,
      effects,
    },
  });
  const id = await saveRule(em(), lead(), null, rule);
  await rehearseRule(em(), id, 10, early, () => undefined);
  await switchRule(em(), lead(), id, "send", early);
  return id;
}

/** So many customers write at once. @returns the ids of their messages */
async function flood(many: number): Promise<number[]> {
  const found = await query<{ id: number }>(
    em(),
    `with people as (
       insert into customers (display_name, name_key, language) select 'Ana ' || n, 'ana ' || n, 'en' from generate_series(1, ?) n returning id),
     known as (
       insert into customer_addresses (customer_id, channel, address) select id, 'email', 'c' || id || '@example.org' from people returning customer_id, address),
     opened as (
       insert into cases (number, channel, subject, language, status, customer_id, team_id, opened_at, waiting_since, updated_at)
         select 500000 + k.customer_id, 'email', 'boat', 'en', 'new', k.customer_id, (select id from teams limit 1), ?, ?, ? from known k returning id, customer_id)
     insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, language, kind, at, "references")
       select o.id, 'in', 'email', 'received', k.address, 'desk@example.com', 'boat', 'When does it sail.', 'en', 'message', ?, '{}'
         from opened o join known k on k.customer_id = o.customer_id returning id`,
    [many, now, now, now, now],
  );
  return found.map(({ id }) => id);
}

test("of 5,000 messages in a minute so many are answered as may be in an hour, the rest is prepared, and leads are told once", async () => {
  const rule = await ruleOn();
  const messages = await flood(MANY);
  // Two processes, each with every message: as if all jobs came twice.
  const at = (index: number) => new Date(now.getTime() + (index * 60_000) / MANY);
  await Promise.all(
    [messages, [...messages].reverse()].map(async (all) => {
      for (let index = 0; index < MANY; index += LOT)
        await answerByRules(em(), all.slice(index, index + LOT), at(index));
    }),
  );
  const counts = await query<{ does: string; count: number; letters: number; waiting: number }>(
    em(),
    `select d.does, count(*)::int as count, count(n.message_id)::int as letters, count(*) filter (where n.state = 'offered')::int as waiting
       from standing_done d join case_notices n on n.done_id = d.id where d.rule_id = ? group by d.does order by d.does`,
    [rule],
  );
  expect(counts).toEqual([
    { does: "instead", count: MANY - PER_HOUR, letters: 0, waiting: MANY - PER_HOUR },
    { does: "send", count: PER_HOUR, letters: PER_HOUR, waiting: 0 },
  ]);
  const [sent] = await query<{ jobs: number; letters: number }>(
    em(),
    `select (select count(distinct data->>'message')::int from pgboss.job where name = 'send') as jobs,
            (select count(*)::int from messages where kind = 'automatic' and direction = 'out') as letters`,
  );
  expect(sent).toEqual({ jobs: PER_HOUR, letters: PER_HOUR });
  const row = (await listRules(em(), lead(), at(MANY))).rules[0];
  expect(row).toMatchObject({ isOver: true, mode: "send", offWhy: null });
  expect(row?.switchedOnAt).not.toBeNull();
  expect(await rulesToLookAt(em(), lead(), at(MANY))).toBe(1);
}, 600_000);

test("a process that dies in the middle leaves nothing half done, and the message is answered once by the next", async () => {
  await query(em(), "delete from standing_rules");
  const rule = await ruleOn({ tags: ["storm"] });
  const one = await testCase(em());
  const found = async () => {
    const [row] = await query<{ letters: number; done: number; jobs: number; tagged: boolean }>(
      em(),
      `select (select count(*)::int from messages where case_id = c.id and direction = 'out') as letters,
              (select count(*)::int from standing_done where rule_id = ?) as done,
              (select count(*)::int from pgboss.job j join messages o on o.id = (j.data->>'message')::int where j.name = 'send' and o.case_id = c.id) as jobs,
              cardinality(c.tags) > 0 as tagged
         from cases c where c.id = ?`,
      [rule, one.id],
    );
    return row;
  };
  // Its connection is ended by the server, when all is written and nothing is kept yet.
  const dying = em().transactional(async (inner) => {
    await answerByRules(inner, one.message, now);
    const [{ pid } = { pid: 0 }] = await query<{ pid: number }>(inner, "select pg_backend_pid() as pid");
    await query(em(), "select pg_terminate_backend(?)", [pid]);
    await query(inner, "select 1");
  });
  await expect(dying).rejects.toThrow();
  expect(await found()).toEqual({ letters: 0, done: 0, jobs: 0, tagged: false });
  await answerByRules(em(), one.message, now);
  await answerByRules(em(), one.message, now);
  expect(await found()).toEqual({ letters: 1, done: 1, jobs: 1, tagged: true });
});
