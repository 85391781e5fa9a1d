import type { EntityManager } from "@mikro-orm/postgresql";
import { testsOf, type Condition } from "#core/conditions/condition";
import { closeness } from "#core/ranking/fit-words";
import type { Incoming } from "#core/standing/message";
import type { StandingAnswer } from "../db/entities/standing";
import { query } from "../db/sql";
import type { Ranking } from "#core/ranking/inquiry";
import { houseRanker, Unanswered } from "../ranking/house-ranker";
import type { About } from "../ranking/protocol";
import { t } from "../words";

/** What rules may ask of the reply that fits a message best. */
const ASKED = ["message.best_reply", "message.best_fit"];

/** Whether any of some rules asks for it: ranking is asked for those alone. */
export function askForBest(rules: readonly Pick<StandingAnswer, "when">[]): boolean {
  return rules.some(({ when }) => when != null && testsOf(when).some(({ value }) => ASKED.includes(value)));
}

/** Keys of the replies that a condition compares the best one with. */
export function bestRepliesIn(when: Condition): string[] {
  return testsOf(when).flatMap(({ value, to }) =>
    value === "message.best_reply" && to !== undefined ? [to].flat().map(String) : [],
  );
}

/** Ranking knows nothing yet, or does not answer in time. */
export class NotKnownYet extends Error {}

async function ranked(em: EntityManager, asked: About[]): Promise<Ranking[]> {
  try {
    const rankings = await houseRanker(em).rank(asked);
    if (rankings !== null) return rankings;
  } catch (error) {
    if (!(error instanceof Unanswered)) throw error;
  }
  throw new NotKnownYet(t("rankingKnowsNothingYet"));
}

/**
 * Messages with the reply that fits each best among those on the shelves, whoever may use them, and how closely: as
 * `message.best_reply`, its key, and `message.best_fit`; neither where nothing fits.
 * @throws NotKnownYet while ranking knows nothing yet, or does not answer: whoever asks tries again
 */
export async function withBest(em: EntityManager, messages: readonly Incoming[]): Promise<Incoming[]> {
  const shelved = await query<{ key: string; channels: string[] }>(
    em,
    "select key, channels from replies where part = 'answer' and state = 'shelved'",
  );
  const on = new Map<string, Set<string>>();
  for (const { key, channels } of shelved)
    for (const channel of channels) on.set(channel, (on.get(channel) ?? new Set()).add(key));
  const asked = messages.map(({ channel, subject, body, message }) => {
    const language = message?.language;
    const reads = typeof language === "string" ? { reads: [language] } : {};
    const among = on.get(channel) ?? new Set<string>();
    return { inquiry: { channel, subject, body, ...reads }, asking: { top: 1, among } };
  });
  const rankings = await ranked(em, asked);
  return messages.map((message, index) => {
    const ranking = rankings[index];
    const first = ranking === undefined || ranking.nothingFits ? undefined : ranking.fits[0];
    const how = first ? closeness(first.fit) : null;
    if (!first || how === null) return message;
    return { ...message, message: { ...message.message, best_reply: first.id, best_fit: how } };
  });
}
