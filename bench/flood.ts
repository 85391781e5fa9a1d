import type { EntityManager } from "@mikro-orm/postgresql";
import { startBoss, useBoss } from "#server/queue/boss";
import { Person } from "#server/db/entities/people";
import { StandingAnswer } from "#server/db/entities/standing";
import { query } from "#server/db/sql";
import { viewerOf } from "#server/people/viewer";
import { answerByRules } from "#server/standing/on-arrival";
import { switchRule } from "#server/standing/rules";
import { onDemoDatabase } from "./database";

const MESSAGES = 5000;
/** So many a job's process asks rules of at once. */
const AT_ONCE = 20;

/** As many customers, each with a case of one message that the demo's first rule answers. */
const FILL = `with people as (
    insert into customers (first_name, last_name, display_name, name_key, language)
      select 'Ana', 'Person' || n, 'Ana Person' || n, 'ana person' || n, 'en' from generate_series(1, ${MESSAGES}) n returning id),
  known as (
    insert into customer_addresses (customer_id, channel, address)
      select id, 'email', 'person' || id || '@example.org' from people returning customer_id, address),
  opened as (
    insert into cases (number, channel, subject, language, status, customer_id, team_id, opened_at, waiting_since, updated_at)
      select 1000000 + k.customer_id, 'email', 'boat', 'en', 'new', k.customer_id, (select min(id) from teams), now(), now(), now()
        from known k returning id, customer_id)
  insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, language, kind, at, "references")
    select o.id, 'in', 'email', 'received', k.address, 'desk@example.com', 'boat', 'Our sailing is late, I hear.', 'en', 'message', now(), '{}'
      from opened o join known k on k.customer_id = o.customer_id returning id`;

/** A rule that is on, when a great many customers write within a minute: it answers up to its limit and prepares the rest. */
export function benchFlood(): Promise<object> {
  return onDemoDatabase(async (em, url) => {
    const boss = await startBoss(url, "sender");
    useBoss(boss);
    process.env.DATABASE_URL = url;
    process.env.SESSION_SECRET ||= "for measuring only, and long enough for that";
    try {
      return await flooded(em);
    } finally {
      await boss.stop({ graceful: false });
    }
  }, new Date());
}

async function flooded(em: () => EntityManager): Promise<object> {
  const person = await em().findOneOrFail(Person, { role: "lead" }, { populate: ["team"] });
  const rule = await em().findOneOrFail(StandingAnswer, { reply: { key: "all-late" } });
  await switchRule(em(), viewerOf(person), rule.id, "send", new Date());
  const messages = await query<{ id: number }>(em(), FILL);
  await em().execute("analyze");
  const began = performance.now();
  const ids = messages.map(({ id }) => id);
  for (let at = 0; at < ids.length; at += AT_ONCE)
    await answerByRules(em(), ids.slice(at, at + AT_ONCE), new Date());
  const seconds = (performance.now() - began) / 1000;
  const did = await query<{ does: string; count: number }>(
    em(),
    "select does, count(*)::int as count from standing_done where rule_id = ? group by does order by does",
    [rule.id],
  );
  return {
    ...{ bench: "flood", messages: MESSAGES, seconds: Math.round(seconds * 10) / 10 },
    ...{ perSecond: Math.round(MESSAGES / seconds), did },
  };
}
