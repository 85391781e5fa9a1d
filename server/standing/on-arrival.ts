import type { EntityManager } from "@mikro-orm/postgresql";
import type { Message } from "../db/entities/messages";
import { query } from "../db/sql";
import { queue } from "../queue/boss";
import { askOf, deciding } from "./asking";
import { INCOMING, INCOMING_FROM, type IncomingRow } from "./incoming";
import { withdrawSilences } from "./withdraw";

/**
 * Queues what rules say of a message that has come in, in the caller's transaction; nothing where no rule is on. What rules
 * were about to say of the customer's silence is not said any more. Writes what the unit of work holds.
 */
export async function askRules(em: EntityManager, message: Message, now: Date): Promise<void> {
  // What was just made has no id before.
  await em.flush();
  await withdrawSilences(em, message.case.id, now);
  const [row] = await query<{ any: boolean }>(
    em,
    `select exists (select 1 from standing_rules where switched_on_at is not null) as any`,
  );
  if (row?.any) await queue(em, "standing", { message: message.id });
}

/**
 * Does what the rules say of messages that have come in, of each once, whoever asks and however often: all of it is kept in
 * one transaction with the letters and their delivery, so that a process that dies in the middle leaves nothing half done.
 * @param messages ids; those of which rules were asked before are left out
 */
export async function answerByRules(
  em: EntityManager,
  messages: number | readonly number[],
  now: Date,
): Promise<void> {
  await deciding(em, now, async (asking) => {
    const rules = asking.rules.filter(({ trigger }) => (trigger?.on ?? "arrival") === "arrival");
    if (rules.length === 0) return;
    const seen = new Set<number>();
    for (const row of await arrivals(asking.em, [messages].flat())) {
      // What was done about an earlier one may have changed its case. Whatever became of a message meanwhile, there is nothing to answer.
      const [still] = seen.has(row.case_id) ? await arrivals(asking.em, [row.id]) : [row];
      seen.add(row.case_id);
      const occasion = { on: "arrival" as const, at: new Date(row.at).getTime() };
      if (still) await askOf(asking, { row: still, rules, occasion });
    }
  });
}

/** Messages of which no rule was asked when they came, in the order in which they did; their cases are locked. */
async function arrivals(em: EntityManager, messages: number[]): Promise<IncomingRow[]> {
  const rows = await query<IncomingRow>(
    em,
    `select ${INCOMING} from ${INCOMING_FROM} where m.id = any(?) and m.direction = 'in'
        and not exists (select 1 from standing_done d where d.message_id = m.id and d.occasion = 'arrival') order by m.id`,
    [messages],
  );
  if (rows.length === 0) return rows;
  // In the order in which all lock them.
  await query(em, "select id from cases where id = any(?) order by id for update", [
    rows.map((row) => row.case_id),
  ]);
  return rows;
}
