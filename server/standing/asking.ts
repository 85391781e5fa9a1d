import type { EntityManager } from "@mikro-orm/postgresql";
import { re2Patterns } from "#core/conditions/re2";
import type { Counts } from "#core/standing/counts";
import { decide, senderOf, type Decision } from "#core/standing/decide";
import { ownAddresses } from "#core/standing/loop";
import type { Incoming } from "#core/standing/message";
import type { Occasion } from "#core/standing/occasion";
import type { RuleId } from "#core/standing/rule";
import { Mailbox } from "../db/entities/mailboxes";
import { StandingAnswer } from "../db/entities/standing";
import { query } from "../db/sql";
import { officeHours, settingsOf, type Settings } from "../house/settings";
import { carryOut, type Within } from "./carry-out";
import { withoutRules } from "./effects";
import { incomingOf, type IncomingRow } from "./incoming";
import { askForBest, withBest } from "./best";
import { ruleOf } from "./rule";

/** The advisory lock under which rules decide, one after the other: whatever process asks, their counts are right. */
const DECIDING = 7423;
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

/** What is asked in one transaction, which alone decides: all that its rules need to know is read once. */
export interface Asking extends Within {
  rules: StandingAnswer[];
  settings: Settings;
  /** Addresses of mailboxes, by id. */
  mailboxes: ReadonlyMap<number, string>;
}

/** What happened. */
export interface Asked {
  /** The message that came in; else the latest of the case. */
  row: IncomingRow;
  occasion: Occasion;
  /** Those that are asked of it, where not all are. */
  rules?: StandingAnswer[];
}

/**
 * Does something as the only one of all processes that decides, in one transaction: all of it is kept, or nothing. What it
 * changes asks no rules.
 */
export async function deciding<Result>(
  em: EntityManager,
  now: Date,
  work: (asking: Asking) => Promise<Result>,
): Promise<Result> {
  // Read within the transaction, settings would not be kept for the next.
  const settings = await settingsOf(em);
  return em.transactional(async (inner) => {
    await query(inner, "select pg_advisory_xact_lock(?)", [DECIDING]);
    await withoutRules(inner);
    const rules = await rulesOn(inner, now);
    const known = rules.length === 0 ? [] : await inner.find(Mailbox, {});
    const mailboxes = new Map(known.map((one) => [one.id, one.address]));
    return work({ em: inner, rules, settings, mailboxes, over: new Set(), now });
  });
}

/** Asks rules of what happened and does what they say. */
export async function askOf(asking: Asking, { row, occasion, ...asked }: Asked): Promise<Decision> {
  const { settings, now } = asking;
  // Of its own: what is written is compared with all that was read, and of a lot that is a lot.
  const em = asking.em.fork({ keepTransactionContext: true });
  const rules = asked.rules ?? asking.rules;
  const read = occasion.on === "arrival" ? row : asItStands(row);
  const known = incomingOf(read, officeHours(settings.clock));
  const [incoming = known] = askForBest(rules) ? await withBest(em, [known]) : [];
  const decision = decide(incoming, {
    rules: rules.map((rule) => ruleOf(rule, asking.mailboxes)),
    own: ownAddresses(settings.mailboxes),
    counts: await countsOf(em, incoming, now),
    patterns: re2Patterns,
    occasion,
  });
  for (const said of decision.said) {
    const rule = rules.find((one) => one.id === said.rule);
    const isKept = said.does !== "passes" || occasion.on === "silence";
    if (rule && isKept) await carryOut({ ...asking, em }, { rule, row, incoming, said, occasion });
  }
  return decision;
}

/** What rules read of a case as it stands, not as it stood when its message came. */
function asItStands(row: IncomingRow): IncomingRow {
  return { ...row, case: { ...row.case, state: row.state_now, topic: row.topic_now } };
}

/** What rules did before, as far as it limits what they do with a message. */
async function countsOf(em: EntityManager, message: Incoming, now: Date): Promise<Counts> {
  const [counts] = await query<{
    last: Record<string, string> | null;
    sent: Record<string, number> | null;
    thread: number;
  }>(
    em,
    `select (select jsonb_object_agg(rule_id, at) from (select rule_id, max(at) as at from standing_done
               where sender = ? and does not in ('held', 'passes') group by rule_id) l) as last,
            (select jsonb_object_agg(rule_id, count) from (select rule_id, count(*) from standing_done
               where does = 'send' and at > ? group by rule_id) s) as sent,
            (select count(*)::int from messages a where a.direction = 'out' and a.kind = 'automatic' and a.state <> 'called back'
               and not exists (select 1 from case_notices n where n.message_id = a.id and n."on" = 'silence')
               and a.case_id = (select case_id from messages where id = ?)) as thread`,
    [senderOf(message), new Date(now.getTime() - HOUR_MS), message.id],
  );
  const last = (rule: RuleId) => counts?.last?.[rule];
  return {
    lastOf: (rule) => (last(rule) === undefined ? null : new Date(last(rule) ?? 0).getTime()),
    sentWithinHour: (rule) => counts?.sent?.[rule] ?? 0,
    onThread: () => counts?.thread ?? 0,
  };
}
