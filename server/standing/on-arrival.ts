import type { EntityManager } from "@mikro-orm/postgresql";
import type { Message } from "../db/entities/messages";
import { StandingDone } from "../db/entities/standing";
import { query } from "../db/sql";
import { settingsOf } from "../house/settings";
import { queue } from "../queue/boss";
import { askOf, DECIDING, rulesOn } from "./asking";
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
 * Does what the rules say of a message that has come in, once, whoever asks and however often: all of it is kept in one
 * transaction with the letter and its delivery, so that a process that dies in the middle leaves nothing half done.
 */
export async function answerByRules(em: EntityManager, messageId: number, now: Date): Promise<void> {
  // Read within the transaction, settings would be read anew for each message.
  await settingsOf(em);
  await em.transactional(async (inner) => {
    await query(inner, "select pg_advisory_xact_lock(?)", [DECIDING]);
    if ((await inner.count(StandingDone, { message: messageId, occasion: "arrival" })) > 0) return;
    const rules = (await rulesOn(inner, now)).filter(
      ({ trigger }) => (trigger?.on ?? "arrival") === "arrival",
    );
    if (rules.length === 0) return;
    const [row] = await query<IncomingRow>(
      inner,
      `select ${INCOMING} from ${INCOMING_FROM} where m.id = ? and m.direction = 'in'`,
      [messageId],
    );
    // Whatever became of it meanwhile, there is nothing to answer.
    if (row)
      await askOf(inner, { row, rules, occasion: { on: "arrival", at: new Date(row.at).getTime() } }, now);
  });
}
