import type { EntityManager } from "@mikro-orm/postgresql";
import { re2Patterns } from "#core/conditions/re2";
import type { Said } from "#core/standing/decide";
import { ownAddresses } from "#core/standing/loop";
import type { Incoming } from "#core/standing/message";
import { ARRIVAL, occasionOf, type Occasion, type Trigger } from "#core/standing/occasion";
import { rehearsal } from "#core/standing/rehearse";
import type { AskedRule } from "#core/standing/rule";
import { Mailbox } from "../db/entities/mailboxes";
import type { StandingAnswer } from "../db/entities/standing";
import { officeHours, settingsOf } from "../house/settings";
import { askForBest, withBest } from "./best";
import { incomingOf } from "./incoming";
import { readPast, type PastOccasion, type PastRow } from "./past";
import { ruleOf } from "./rule";

/** So many messages are read at once. */
const AT_ONCE = 1000;
/** Before all messages. */
const EVER = "1970-01-01T00:00:00.000Z";

/** Something of the past that a rule would have been asked of. */
interface Tried {
  row: PastRow;
  /** The message, with its case as it stood then. */
  asked: Incoming;
  occasion: Occasion;
}

/** Rules on the past: whether they would have been for it, had they been on. */
export interface Trial {
  /** What a rule says of one after the other, in order of time, with its limits and without other rules. */
  alone(rule: StandingAnswer): (asked: Incoming, occasion: Occasion) => Pick<Said, "does" | "why">;
  /** What happened in the past, as a rule would have been asked of it; a batch at a time, in order. */
  read(rule: StandingAnswer, past: readonly PastOccasion[]): AsyncGenerator<Tried[], void>;
  /** Messages by their ids, as the rule would be asked of them. */
  marked(rule: StandingAnswer, messages: readonly number[]): AsyncGenerator<Tried[], void>;
}

/** Whether a rule answers, or prepares an answer. */
export function takes(does: Said["does"]): boolean {
  return does === "send" || does === "prepare" || does === "instead";
}

/** @param rules all that will be tried, with their replies populated: what they ask for is found out */
export async function trialOf(em: EntityManager, rules: readonly StandingAnswer[]): Promise<Trial> {
  const settings = await settingsOf(em);
  const hours = officeHours(settings.clock);
  const own = ownAddresses(settings.mailboxes);
  const mailboxes = new Map((await em.find(Mailbox, {})).map((one) => [one.id, one.address]));
  const isAsked = askForBest(rules);
  async function* read(rule: StandingAnswer, past: readonly PastOccasion[]): AsyncGenerator<Tried[], void> {
    const trigger = rule.trigger ?? ARRIVAL;
    for (let from = 0; from < past.length; from += AT_ONCE) {
      const batch = past.slice(from, from + AT_ONCE);
      const rows = await readPast(em, batch, trigger.on === "silence");
      const messages = rows.map((row) => incomingOf(row, hours));
      const known = isAsked ? await withBest(em, messages) : messages;
      yield rows.flatMap((row, index) => {
        const [message, then] = [known[index], batch[index]];
        if (!message || !then) return [];
        const occasion = occasionOf(trigger, new Date(then.at).getTime(), then.into);
        return [{ row, asked: asItStood(message, occasion), occasion }];
      });
    }
  }
  return {
    alone(rule) {
      const asked: AskedRule[] = [{ ...ruleOf(rule, mailboxes), switched_on_at: EVER }];
      const decide = rehearsal({ rules: asked, own, patterns: re2Patterns });
      return (message, occasion) => decide(message, occasion).said[0] ?? { does: "passes", why: "" };
    },
    read,
    marked(rule, messages) {
      const into = intoOf(rule.trigger ?? ARRIVAL);
      return read(
        rule,
        messages.map((message) => ({ message, at: EVER, into })),
      );
    },
  };
}

/** Of a rule that is asked when a case comes into one of several: the first of them stands for all. */
function intoOf(trigger: Trigger): string | null {
  return trigger.on === "state" || trigger.on === "topic" ? (trigger.into[0] ?? null) : null;
}

/** A message with its case as it stood when something happened to that, and not as it stands today. */
function asItStood(message: Incoming, occasion: Occasion): Incoming {
  if (occasion.on === "arrival" || occasion.on === "owner") return message;
  const known = typeof message.case === "object" ? message.case : {};
  const then =
    occasion.on === "silence"
      ? { state: occasion.of === "customer" ? "waiting on the customer" : "open" }
      : { [occasion.on]: occasion.into };
  return { ...message, case: { ...known, ...then } };
}
