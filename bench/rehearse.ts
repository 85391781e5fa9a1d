import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { EntityManager } from "@mikro-orm/postgresql";
import { Person } from "#server/db/entities/people";
import { StandingAnswer } from "#server/db/entities/standing";
import { query } from "#server/db/sql";
import { viewerOf } from "#server/people/viewer";
import { beginRehearsal, rehearsalOf } from "#server/standing/rehearsals";
import { onDemoDatabase } from "./database";

const MESSAGES = 100_000;

/** A message on a case of its own, half of them answered by a person. */
const FILL = [
  "set session_replication_role = replica",
  `insert into customers (first_name, last_name, display_name, name_key, language)
     select 'Ana', 'Person' || n, 'Ana Person' || n, 'ana person' || n, 'en' from generate_series(1, 20000) n`,
  `insert into cases (number, channel, subject, language, status, customer_id, team_id, opened_at, updated_at)
     select 1000000 + n, 'email', 'about ' || n, 'en', 'settled', (select min(id) from customers where last_name = 'Person1') + n % 20000,
            (select min(id) from teams), now() - n * interval '1 minute', now() from generate_series(1, ${MESSAGES}) n`,
  `insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, at, "references")
     select c.id, 'in', 'email', 'received', 'person' || c.customer_id || '@example.org', 'desk@example.com', c.subject,
            repeat('Nobody on the quay could tell us when the ship would leave. ', 12) || case when c.id % 9 = 0 then 'We bring a bicycle.' else 'We bring a hat.' end,
            c.opened_at, '{}' from cases c where c.number > 1000000`,
  `insert into messages (case_id, direction, channel, state, from_address, to_address, subject, text, at, "references")
     select c.id, 'out', 'email', 'sent', 'desk@example.com', 'person@example.org', c.subject, repeat('It leaves at nine. ', 20), c.opened_at + interval '1 hour', '{}'
       from cases c where c.number > 1000000 and c.id % 2 = 0`,
  `insert into sent_letters (message_id, case_id, language, subject, slips, trace, checks)
     select m.id, m.case_id, 'en', '{"from":"thread"}', '[]', '[]', '[]' from messages m join cases c on c.id = m.case_id where c.number > 1000000 and m.direction = 'out'`,
  `insert into letter_replies (letter_id, reply_id, position, at) select l.id, r.id, 0, l.created_at from sent_letters l join replies r on r.key = case when l.case_id % 3 = 0 then 'bicycles' else 'cafe' end
      where l.slips = '[]'`,
  "set session_replication_role = origin",
  "analyze",
];

/** The most memory that a process ever had, in MB. */
function peakOf(pid: number | string): number {
  const kilobytes = /^VmHWM:\s+(\d+) kB/m.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1];
  return Math.round(Number(kilobytes) / 1024);
}

/** A rule tried on the latest 100,000 messages of a house, in its thread; and as many lines by the command. */
export async function benchRehearse(): Promise<object> {
  return {
    ...{ bench: "rehearse", messages: MESSAGES },
    thread: await onDemoDatabase(inThread, new Date()),
    command: await byCommand(),
  };
}

async function inThread(em: () => EntityManager, url: string): Promise<object> {
  process.env.DATABASE_URL = url;
  for (const sql of FILL) await em().execute(sql);
  const person = await em().findOneOrFail(Person, { role: "lead" }, { populate: ["team"] });
  const viewer = viewerOf(person);
  const [rule] = await em().find(StandingAnswer, {}, { orderBy: { position: "asc" } });
  if (!rule) throw new Error("The demo has no rule");
  await query(em(), "select 1");
  const before = process.memoryUsage().rss;
  let most = before;
  const began = performance.now();
  await beginRehearsal(em(), viewer, rule.id, MESSAGES);
  let longest = 0;
  for (
    let state = rehearsalOf(em(), viewer, rule.id);
    state.kind !== "done";
    state = rehearsalOf(em(), viewer, rule.id)
  ) {
    if (state.kind === "failed") throw new Error(state.problem);
    const asked = performance.now();
    await new Promise((resolve) => setTimeout(resolve, 20));
    longest = Math.max(longest, performance.now() - asked - 20);
    most = Math.max(most, process.memoryUsage().rss);
  }
  const found = rehearsalOf(em(), viewer, rule.id);
  return {
    seconds: Math.round((performance.now() - began) / 100) / 10,
    figures: found.kind === "done" ? found.rehearsal.figures : null,
    megabytes: Math.round((most - before) / 1024 / 1024),
    // How long whoever serves was held up at once.
    held: { unit: "ms", longest: Math.round(longest) },
  };
}

async function byCommand(): Promise<object> {
  const folder = mkdtempSync(join(tmpdir(), "plain-shelf-rehearse-"));
  const [rules, messages] = [join(folder, "rules.json"), join(folder, "messages.jsonl")];
  const when = { any: ["bicycle", "bike"].map((to) => ({ value: "message.body", is: "contains", to })) };
  const rule = { reply: "bicycles", mode: "send", switched_on_at: "2026-01-01T00:00:00Z", per_hour: 10_000 };
  writeFileSync(
    rules,
    JSON.stringify({
      own_addresses: ["desk@example.com"],
      rules: [
        { id: 1, name: "Bicycles", when, ...rule },
        {
          id: 2,
          name: "All",
          when: { value: "message.subject", is: "matches", to: "^(re: )?boat" },
          ...rule,
        },
      ],
    }),
  );
  const line = (n: number) =>
    JSON.stringify({
      ...{ id: n, at: new Date(Date.UTC(2026, 0, 2) + n * 60_000).toISOString(), channel: "email" },
      ...{ from: `person${n % 20_000}@example.org`, to: "desk@example.com", subject: `boat ${n}` },
      body: `${"Nobody on the quay could tell us when the ship would leave. ".repeat(12)}${n % 9 === 0 ? "A bicycle." : ""}`,
      headers: {
        "Content-Type": "text/plain",
        ...(n % 50 === 0 ? { "Auto-Submitted": "auto-replied" } : {}),
      },
    });
  writeFileSync(messages, Array.from({ length: MESSAGES }, (_, n) => line(n)).join("\n"));
  const began = performance.now();
  const child = spawn(
    process.execPath,
    ["--import", "tsx", "cli/main.ts", "rehearse", "--rules", rules, "--messages", messages],
    { stdio: ["ignore", "pipe", "inherit"] },
  );
  let lines = 0;
  child.stdout.on("data", (chunk: Buffer) => (lines += chunk.toString().split("\n").length - 1));
  let megabytes = 0;
  const watch = setInterval(() => {
    if (child.exitCode === null && child.pid !== undefined)
      megabytes = Math.max(megabytes, peakOf(child.pid));
  }, 50);
  const code = await new Promise((resolve) => child.once("close", resolve));
  clearInterval(watch);
  rmSync(folder, { recursive: true, force: true });
  if (code !== 0) throw new Error(`shelf rehearse ended with ${String(code)}`);
  return { seconds: Math.round((performance.now() - began) / 100) / 10, lines, megabytes };
}
