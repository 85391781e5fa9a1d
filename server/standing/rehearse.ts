import type { EntityManager } from "@mikro-orm/postgresql";
import { re2Patterns } from "#core/conditions/re2";
import { valuesOfMessage } from "#core/standing/decide";
import { sideOf, sides, Tally, type Rehearsed, type Side, type Suggestion } from "#core/standing/tally";
import { StandingAnswer } from "../db/entities/standing";
import { query } from "../db/sql";
import { caseNumber } from "../house/house";
import { settingsOf, type Settings } from "../house/settings";
import { houseRanker } from "../ranking/house-ranker";
import { askForBest } from "./best";
import { pastOccasions, SHOWN, type PastRow } from "./past";
import { ruleDigest } from "./rule";
import { ruleById } from "./rules";
import { takes, trialOf, type Trial } from "./trial";

/** A message of the past, as a rehearsal shows it. */
export interface PastShown {
  message: number;
  case: number;
  label: string;
  customer: string;
  /** ISO 8601 instant. */
  at: string;
  words: string;
  /** What the rule says of it, in words. */
  why: string;
  /** How a person answered; null where nobody did. */
  answer: { by: string | null; titles: string[]; words: string } | null;
  /** What somebody said that the rule should do. */
  should: boolean | null;
}

/** What a rehearsal found. */
export interface Rehearsal {
  figures: Rehearsed;
  /** The latest of each side. */
  shown: Partial<Record<Side, PastShown[]>>;
  suggestion: Suggestion | null;
  /** Rules that are on and are for the same messages, and for how many. */
  clashes: { name: string; count: number }[];
}

/**
 * Tries a rule on the latest messages that came in: what it would have done, and how people answered. Keeps its figures
 * with the rule.
 * @param most so many messages
 * @param tell how many of how many are read
 * @throws NotFound
 */
export async function rehearseRule(
  em: EntityManager,
  id: number,
  most: number,
  now: Date,
  tell: (read: number, of: number) => void,
): Promise<Rehearsal> {
  const began = performance.now();
  const rule = await ruleById(em, id);
  const digest = ruleDigest(rule);
  const others = await em.find(
    StandingAnswer,
    { id: { $ne: id }, switchedOnAt: { $ne: null } },
    { populate: ["reply"] },
  );
  if (askForBest([rule, ...others])) await houseRanker(em).ready();
  const trial = await trialOf(em, [rule, ...others]);
  const { house } = await settingsOf(em);
  const decide = trial.alone(rule);
  const beside = others.map((one) => ({ name: one.name, decide: trial.alone(one), count: 0 }));
  const marks = await marksOf(em, id);
  const past = await pastOccasions(em, rule.trigger ?? null, most, now);
  const tally = new Tally<PastShown>();
  tell(0, past.length);
  let read = 0;
  for await (const batch of trial.read(rule, past)) {
    for (const { row, asked, occasion } of batch) {
      const { does, why } = decide(asked, occasion);
      const side = sideOf(does, { replies: row.keys ?? [], byHand: row.answer !== null }, rule.reply.key);
      tally.add(side, valuesOfMessage(asked, re2Patterns), () =>
        shownOf(row, new Date(occasion.at), why, marks, house),
      );
      for (const other of beside)
        if (takes(other.decide(asked, occasion).does) && takes(does)) other.count += 1;
    }
    tell((read += batch.length), past.length);
  }
  const wrong = await wrongOf(trial, rule, marks);
  const figures: Rehearsed = {
    ...tally.counts,
    at: now.toISOString(),
    messages: past.length,
    wrong,
    milliseconds: Math.round(performance.now() - began),
    rule: digest,
  };
  await em.nativeUpdate(StandingAnswer, { id }, { rehearsed: figures });
  return {
    figures,
    shown: Object.fromEntries(sides.map((side) => [side, tally.latest(side)])),
    suggestion: tally.suggestion(),
    clashes: beside.filter(({ count }) => count > 0).map(({ name, count }) => ({ name, count })),
  };
}

/** What somebody said of messages, by their ids. */
async function marksOf(em: EntityManager, rule: number): Promise<Map<number, boolean>> {
  const marks = await query<{ message: number; should: boolean }>(
    em,
    `select message_id as message, should from standing_marks where rule_id = ?`,
    [rule],
  );
  return new Map(marks.map((one) => [one.message, one.should]));
}

/** How many of what somebody marked come out other than they should, wherever in the past they lie. */
async function wrongOf(
  trial: Trial,
  rule: StandingAnswer,
  marks: ReadonlyMap<number, boolean>,
): Promise<number> {
  let wrong = 0;
  for await (const batch of trial.marked(rule, [...marks.keys()]))
    for (const { row, asked, occasion } of batch)
      // Each by itself: what limits a rule says nothing of whether it should.
      if (takes(trial.alone(rule)(asked, occasion).does) !== marks.get(row.id)) wrong += 1;
  return wrong;
}

function shownOf(
  row: PastRow,
  at: Date,
  why: string,
  marks: ReadonlyMap<number, boolean>,
  house: Settings["house"],
): PastShown {
  return {
    message: row.id,
    case: Number(row.case.number),
    label: caseNumber(house, Number(row.case.number)),
    customer: row.customer_name,
    at: at.toISOString(),
    words: row.body.slice(0, SHOWN),
    why,
    answer:
      row.answer === null
        ? null
        : { by: row.answered_by, titles: row.titles ?? [], words: row.answer.slice(0, SHOWN) },
    should: marks.get(row.id) ?? null,
  };
}
