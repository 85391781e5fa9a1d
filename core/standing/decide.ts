import { evaluate, type Values } from "../conditions/evaluate";
import type { PatternEngine } from "../conditions/patterns";
import type { Detail } from "../tokens/context";
import { valueOf } from "../tokens/values";
import { isAmong } from "../text/among";
import { t } from "../words/standing";
import type { Counts, Done } from "./counts";
import { whyNever } from "./loop";
import { addressIn, detailsIn, headerOf, threadOf, type Incoming } from "./message";
import { ARRIVAL, beganAt, isAskedOf, type Occasion } from "./occasion";
import type { AskedRule, RuleId, RuleMode, StandingRule } from "./rule";

const HOUR_MS = 60 * 60_000;

/** So many automatic answers a thread may have: whoever answers them by a program is not answered for ever. */
export const MOST_ON_THREAD = 3;

/** What one rule says of a message. */
export interface Said {
  rule: RuleId;
  /**
   * It answers it: sent, or prepared for a person; `instead` where it would send and may not just now. It is for it and
   * something forbids it: `held`. It is not for it: `passes`.
   */
  does: RuleMode | "instead" | "held" | "passes";
  why: string;
}

/** What the rules do with a message: what each says that was asked, in their order. */
export interface Decision {
  /** The first that answers; null for none. What is prepared because too much was sent is no answer. */
  answers: RuleId | null;
  said: Said[];
  /** What to note of it in the counts. */
  done: Done[];
}

/** What decisions rest on beside the message. */
export interface Standing {
  rules: readonly AskedRule[];
  /** As `ownAddresses` has them. */
  own: ReadonlySet<string>;
  counts: Counts;
  patterns: PatternEngine;
  /** What happened; left out for the arrival of the message. */
  occasion?: Occasion;
}

/**
 * What standing answers do with a message that came in, or, when something happens to a case, with its latest message. Pure:
 * it changes no counts; what is to be noted is in `done`.
 * Each rule is asked in turn; one that is for the message ends the asking where it says so, also when it may not answer:
 * nobody hears from a later rule what an earlier one may not say again.
 */
export function decide(message: Incoming, standing: Standing): Decision {
  const { rules, own, counts, patterns } = standing;
  const decision: Decision = { answers: null, said: [], done: [] };
  const occasion = standing.occasion ?? { on: "arrival", at: Date.parse(message.at) };
  const { at } = occasion;
  const values = valuesOfMessage(message, patterns, new Date(at).toISOString());
  const sender = senderOf(message);
  // A silence is answered once: nobody goes on with it by a program.
  const thread = occasion.on === "silence" ? null : threadOf(message);
  let never: string | null | undefined;
  for (const rule of rules) {
    const fit = fitOf(rule, message, occasion, values);
    if (!fit.fits) {
      decision.said.push({ rule: rule.id, does: "passes", why: fit.why });
      continue;
    }
    never ??= whyNever(message, own) ?? "";
    const answered = decision.done.filter((one) => one.sent).length;
    const said =
      never === ""
        ? limited(rule, { at, sender, thread, answered, counts, why: fit.why })
        : { does: "held" as const, why: never };
    decision.said.push({ rule: rule.id, ...said });
    if (said.does !== "held")
      decision.done.push({ rule: rule.id, sender, thread, at, sent: said.does === "send" });
    if (said.does === "send" || said.does === "prepare") decision.answers ??= rule.id;
    if (rule.stop) break;
  }
  return decision;
}

interface Limits {
  at: number;
  sender: string;
  thread: string | null;
  /** How many other rules have sent for this message. */
  answered: number;
  counts: Counts;
  /** Why the rule is for it. */
  why: string;
}

function limited(
  rule: StandingRule,
  { at, sender, thread, answered, counts, why }: Limits,
): Pick<Said, "does" | "why"> {
  const last = counts.lastOf(rule.id, sender);
  const hours = rule.once_per_sender_hours;
  if (last !== null && at - last < hours * HOUR_MS)
    return { does: "held", why: t("answeredThisSenderBefore", { sender, count: hours }) };
  if (thread !== null) {
    const before = counts.onThread(thread) + answered;
    if (before >= MOST_ON_THREAD) return { does: "held", why: t("enoughOnThisThread", { count: before }) };
  }
  if (rule.mode === "send" && counts.sentWithinHour(rule.id, at) >= rule.per_hour)
    return { does: "instead", why: t("moreThanInAnHour", { count: rule.per_hour }) };
  return { does: rule.mode, why };
}

/** Whom an answer would go to: where the message asks for answers, else its sender; as limits compare them. */
export function senderOf(message: Incoming): string {
  return addressIn(message.from) || addressIn(headerOf(message, "reply-to")[0] ?? "");
}

function fitOf(
  rule: AskedRule,
  message: Incoming,
  occasion: Occasion,
  values: Values,
): { fits: boolean; why: string } {
  const no = (why: string) => ({ fits: false, why });
  if (rule.switched_on_at === undefined || rule.switched_on_at === null) return no(t("ruleIsOff"));
  if (beganAt(occasion) < Date.parse(rule.switched_on_at))
    return no(t(occasion.on === "arrival" ? "itCameBeforeThat" : "itBeganBeforeThat"));
  const asked = isAskedOf(rule.trigger ?? ARRIVAL, occasion);
  return asked.fits ? reaches(rule, message, values) : asked;
}

/** Whether a rule is for a message, be it on or off. @returns with why, in words */
function reaches(
  rule: Pick<StandingRule, "channels" | "mailboxes" | "when">,
  message: Incoming,
  values: Values,
): { fits: boolean; why: string } {
  const no = (why: string) => ({ fits: false, why });
  if (!isAmong(rule.channels, message.channel))
    return no(t("notOnThisChannel", { channel: message.channel }));
  if (rule.mailboxes.length > 0) {
    const mailbox = message.mailbox == null ? null : addressIn(message.mailbox);
    if (mailbox === null) return no(t("notAtAnyMailbox"));
    if (!rule.mailboxes.some((one) => addressIn(one) === mailbox))
      return no(t("notAtThisMailbox", { mailbox }));
  }
  if (rule.when === undefined || rule.when === null) return { fits: true, why: t("itIsForAllThere") };
  const { holds, seen, problems } = evaluate(rule.when, values);
  if (holds) return { fits: true, why: t("itIsForThat", { seen: seen.join("; ") }) };
  return no([t("itDoesNotHold"), ...problems, ...seen].join("; "));
}

/** The values that conditions of rules read: those of the message, and what is known of case, customer and the like. */
export function valuesOfMessage(message: Incoming, patterns: PatternEngine, now = message.at): Values {
  const to = Array.isArray(message.to) ? message.to : [message.to];
  const groups: Record<string, Readonly<Record<string, Detail | undefined>>> = {
    message: {
      ...message.message,
      subject: message.subject,
      body: message.body,
      from: addressIn(message.from),
      to: to.map(addressIn).join(", "),
      channel: message.channel,
    },
    case: { channel: message.channel, ...detailsIn(message.case) },
    customer: detailsIn(message.customer),
    organisation: message.organisation ?? {},
    booking: message.booking ?? {},
  };
  return {
    patterns,
    now,
    value(name) {
      const dot = name.indexOf(".");
      const [group, key] = [name.slice(0, dot), name.slice(dot + 1)];
      const details = Object.hasOwn(groups, group) ? groups[group] : undefined;
      const known = details && Object.hasOwn(details, key) ? details[key] : undefined;
      return valueOf(known, group === "message" ? "long_text" : null, t("itIsNotKnown"));
    },
  };
}

/** What a decision is told as, a line a rule. @param name of a rule */
export function whyInWords(decision: Decision, name: (rule: RuleId) => string): string[] {
  if (decision.said.length === 0) return [t("noRuleIsForIt")];
  return decision.said.map(({ rule, why }) => t("ruleSays", { name: name(rule), why }));
}
