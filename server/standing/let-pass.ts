import type { EntityManager } from "@mikro-orm/postgresql";
import { query } from "../db/sql";
import { Unusable } from "../errors";
import { caseNumber } from "../house/house";
import { settingsOf } from "../house/settings";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";
import { NotKnownYet } from "./best";
import { ruleById, WORDS_TOLD, type RuleDid } from "./rules";
import { takes, trialOf } from "./trial";

/** A message that came while a rule was on, and with which it did nothing. */
export type LetPass = Pick<RuleDid, "message" | "case" | "label" | "customer" | "words" | "why" | "at">;

/** So many are told. */
const MOST_TOLD = 50;

/**
 * The latest messages that came since a rule was switched on, and with which it did nothing: it is not for them, or an
 * earlier rule ended the asking. Nothing is kept of those: why is found out anew, with what is known of each today.
 * @returns none for a rule that is off, or is not asked of what comes in
 * @throws NotAllowed unless lead; NotFound; Unusable where it asks for the best reply and ranking knows nothing yet
 */
export async function letPass(em: EntityManager, viewer: Viewer, id: number): Promise<LetPass[]> {
  requireRole(viewer, "lead");
  const rule = await ruleById(em, id);
  if (rule.switchedOnAt == null || (rule.trigger?.on ?? "arrival") !== "arrival") return [];
  const found = await query<{ message: number; at: string; ended: string | null }>(
    em,
    `select m.id as message, m.at,
            (select r.name from standing_done d join standing_rules r on r.id = d.rule_id
              where d.message_id = m.id and d.occasion = 'arrival' and r.stop and (r.position, r.id) < (?, ?)
              order by r.position, r.id limit 1) as ended
       from messages m
      where m.direction = 'in' and m.channel <> 'chat' and m.kind <> 'pressed' and m.at > ?
        and not exists (select 1 from standing_done d where d.message_id = m.id and d.rule_id = ?)
      order by m.at desc, m.id desc limit ${MOST_TOLD}`,
    [rule.position, rule.id, rule.switchedOnAt, rule.id],
  );
  const { house } = await settingsOf(em);
  const trial = await trialOf(em, [rule]);
  const told: LetPass[] = [];
  try {
    for await (const batch of trial.read(
      rule,
      found.map(({ message, at }) => ({ message, at, into: null })),
    )) {
      for (const { row, asked, occasion } of batch) {
        const ended = found.find(({ message }) => message === row.id)?.ended ?? null;
        // Each by itself: what is said of one limits none of the others.
        const { does, why } = trial.alone(rule)(asked, occasion);
        const number = Number(row.case.number);
        told.push({
          ...{ message: row.id, case: number, label: caseNumber(house, number) },
          ...{ customer: row.customer_name, words: row.body.slice(0, WORDS_TOLD) },
          why: does === "passes" ? why : whyThen(takes(does), ended, why),
          at: new Date(row.at).toISOString(),
        });
      }
    }
  } catch (error) {
    if (error instanceof NotKnownYet) throw new Unusable(error.message);
    throw error;
  }
  return told;
}

/** Why a rule did nothing with a message that it is for. */
function whyThen(isTaken: boolean, ended: string | null, why: string): string {
  if (ended !== null) return t("anEarlierRuleEndedTheAsking", { name: ended });
  return isTaken ? t("itWouldToday") : why;
}
