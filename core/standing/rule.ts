import * as z from "zod/mini";
import { conditionSchema } from "../conditions/condition";
import type { Trigger } from "./occasion";
import { t } from "../words/standing";

/** Whether a rule sends by itself, or prepares a draft for a person. */
export const ruleModes = ["send", "prepare"] as const;
export type RuleMode = (typeof ruleModes)[number];

const names = z._default(
  z.array(z.string().check(z.minLength(1), z.maxLength(320))).check(z.maxLength(200)),
  [],
);
const id = z.union([z.string().check(z.minLength(1), z.maxLength(200)), z.int()]);
const instant = z.iso.datetime({ offset: true, ...t.error("anInstantWithItsOffset") });

/** A rule as its file holds it. Lists that are empty stand for any; a rule without a condition is for all that comes in there. */
export const standingRuleSchema = z.strictObject({
  id,
  name: z._default(z.string().check(z.maxLength(200)), ""),
  channels: names,
  /** Addresses, in any case. */
  mailboxes: names,
  when: z.optional(z.nullable(conditionSchema)),
  /** Id of the reply. */
  reply: z.string().check(z.minLength(1), z.maxLength(200)),
  mode: z.enum(ruleModes),
  /** ISO 8601; what came before is none of its business. Null or left out: it is off. */
  switched_on_at: z.optional(z.nullable(instant)),
  /** 0 for as often as somebody writes. */
  once_per_sender_hours: z._default(z.number().check(z.minimum(0), z.maximum(24 * 366)), 24),
  /** So many are sent in any hour at most. */
  per_hour: z._default(z.int().check(z.minimum(0), z.maximum(1_000_000)), 60),
  /** Whether no later rule is asked after it. */
  stop: z._default(z.boolean(), true),
});
export type StandingRule = z.infer<typeof standingRuleSchema>;
export type RuleId = StandingRule["id"];

/** A rule as it is asked: files hold only those that are asked when a message comes in. */
export interface AskedRule extends StandingRule {
  /** Left out for the arrival of a message. */
  trigger?: Trigger;
}

/** The rules of a house, in their order, and the addresses that are its own. */
export const standingRulesSchema = z
  .strictObject({
    own_addresses: names,
    rules: z.array(standingRuleSchema).check(z.maxLength(1000)),
  })
  .check((context) => {
    const seen = new Set<RuleId>();
    for (const [index, rule] of context.value.rules.entries()) {
      if (seen.has(rule.id))
        context.issues.push({
          ...{ code: "custom", path: ["rules", index, "id"], input: rule.id },
          message: t("ruleIsTwice", { id: rule.id }),
        });
      seen.add(rule.id);
    }
  });
