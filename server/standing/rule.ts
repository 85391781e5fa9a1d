import { ARRIVAL } from "#core/standing/occasion";
import type { AskedRule } from "#core/standing/rule";
import type { StandingAnswer } from "../db/entities/standing";
import { digestOf } from "../digest";

/** A rule as decisions read it. @param rule with its reply populated @param mailboxes addresses, by id */
export function ruleOf(rule: StandingAnswer, mailboxes: ReadonlyMap<number, string>): AskedRule {
  return {
    ...{ id: rule.id, name: rule.name, channels: rule.channels, when: rule.when ?? null },
    // One that is gone narrows it still: nothing comes there.
    mailboxes: rule.mailboxes.map((id) => mailboxes.get(id) ?? `mailbox-${id}@invalid`),
    reply: rule.reply.key,
    mode: rule.mode,
    switched_on_at: rule.switchedOnAt?.toISOString() ?? null,
    once_per_sender_hours: rule.oncePerSenderHours,
    per_hour: rule.perHour,
    stop: rule.stop,
    trigger: rule.trigger ?? ARRIVAL,
  };
}

/** Stands for what a rule answers and with what: a rehearsal of another one says nothing of it. */
export function ruleDigest(rule: StandingAnswer): string {
  const { trigger, channels, mailboxes, when, reply, oncePerSenderHours, perHour, stop, effects } = rule;
  const limits = [oncePerSenderHours, perHour, stop];
  const read = [trigger ?? ARRIVAL, channels, mailboxes, when ?? null, reply.key, ...limits, effects];
  return digestOf(Buffer.from(JSON.stringify(read, inOrder)));
}

/** A database keeps the parts of a condition in another order than a form. */
function inOrder(_: string, value: unknown): unknown {
  if (typeof value !== "object" || value === null || Array.isArray(value)) return value;
  return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
}
