import type { EntityManager } from "@mikro-orm/postgresql";
import { re2Patterns } from "#core/conditions/re2";
import type { Counts } from "#core/standing/counts";
import { decide, senderOf, type Decision } from "#core/standing/decide";
import { ownAddresses } from "#core/standing/loop";
import type { Incoming } from "#core/standing/message";
import type { Occasion } from "#core/standing/occasion";
import { Mailbox } from "../db/entities/mailboxes";
import { StandingAnswer } from "../db/entities/standing";
import { query } from "../db/sql";
import { officeHours, settingsOf } from "../house/settings";
import { carryOut } from "./carry-out";
import { incomingOf, type IncomingRow } from "./incoming";
import { askForBest, withBest } from "./best";
import { ruleOf } from "./rule";

/** The advisory lock under which rules decide, one after the other: whatever process asks, their counts are right. */
export const DECIDING = 7423;
const HOUR_MS = 60 * 60_000;

/** The rules that are on at an instant and have a reply, in their order. */
export function rulesOn(em: EntityManager, now: Date): Promise<StandingAnswer[]> {
  return em.find(
    StandingAnswer,
    {
      switchedOnAt: { $ne: null },
      reply: { state: "shelved" },
      $or: [{ until: null }, { until: { $gt: now } }],
    },
    { orderBy: { position: "asc", id: "asc" }, populate: ["reply", "switchedOnBy.team"] },
  );
}

/** What happened, and whom it is asked. */
export interface Asked {
  /** The message that came in; else the latest of the case. */
  row: IncomingRow;
  rules: StandingAnswer[];
  occasion: Occasion;
}

/** Asks rules of what happened and does what they say, in the caller's transaction, which holds the lock of deciding. */
export async function askOf(
  em: EntityManager,
  { row, rules, occasion }: Asked,
  now: Date,
): Promise<Decision> {
  const settings = await settingsOf(em);
  const mailboxes = await em.find(Mailbox, {});
  const addresses = new Map(mailboxes.map((one) => [one.id, one.address]));
  const read = occasion.on === "arrival" ? row : asItStands(row);
  const known = incomingOf(read, officeHours(settings.clock));
  const [incoming = known] = askForBest(rules) ? await withBest(em, [known]) : [];
  const decision = decide(incoming, {
    rules: rules.map((rule) => ruleOf(rule, addresses)),
    own: ownAddresses(settings.mailboxes),
    counts: await countsOf(em, incoming, now),
    patterns: re2Patterns,
    occasion,
  });
  for (const said of decision.said) {
    const rule = rules.find((one) => one.id === said.rule);
    const isKept = said.does !== "passes" || occasion.on === "silence";
    if (rule && isKept) await carryOut(em, { rule, row, incoming, said, occasion }, now);
  }
  return decision;
}

/** What rules read of a case as it stands, not as it stood when its message came. */
function asItStands(row: IncomingRow): IncomingRow {
  return { ...row, case: { ...row.case, state: row.state_now, topic: row.topic_now } };
}

/** What rules did before, as far as it limits what they do with a message. */
async function countsOf(em: EntityManager, message: Incoming, now: Date): Promise<Counts> {
  const sender = senderOf(message);
  const lasts = await query<{ rule: number; at: string }>(
    em,
    `select rule_id as rule, max(at) as at from standing_done where sender = ? and does not in ('held', 'passes') group by rule_id`,
    [sender],
  );
  const sent = await query<{ rule: number; count: number }>(
    em,
    `select rule_id as rule, count(*)::int as count from standing_done where does = 'send' and at > ? group by rule_id`,
    [new Date(now.getTime() - HOUR_MS)],
  );
  const [thread] = await query<{ count: number }>(
    em,
    `select count(*)::int as count from messages a where a.direction = 'out' and a.kind = 'automatic' and a.state <> 'called back'
        and not exists (select 1 from case_notices n where n.message_id = a.id and n."on" = 'silence')
        and a.case_id = (select case_id from messages where id = ?)`,
    [message.id],
  );
  const lastOf = new Map(lasts.map((one) => [one.rule, new Date(one.at).getTime()]));
  const sentBy = new Map(sent.map((one) => [one.rule, one.count]));
  return {
    lastOf: (rule) => lastOf.get(Number(rule)) ?? null,
    sentWithinHour: (rule) => sentBy.get(Number(rule)) ?? 0,
    onThread: () => thread?.count ?? 0,
  };
}
