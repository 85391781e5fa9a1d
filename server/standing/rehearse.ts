import type { EntityManager } from "@mikro-orm/postgresql";
import { re2Patterns } from "#core/conditions/re2";
import { valuesOfMessage } from "#core/standing/decide";
import { ownAddresses } from "#core/standing/loop";
import { rehearsal } from "#core/standing/rehearse";
import type { StandingRule } from "#core/standing/rule";
import { sideOf, sides, Tally, type Rehearsed, type Side, type Suggestion } from "#core/standing/tally";
import { Mailbox } from "../db/entities/mailboxes";
import { StandingAnswer } from "../db/entities/standing";
import { query } from "../db/sql";
import { caseNumber } from "../house/house";
import { officeHours, settingsOf, type Settings } from "../house/settings";
import { INCOMING, INCOMING_FROM, incomingOf, type IncomingRow } from "./incoming";
import { ruleDigest, ruleOf } from "./rule";
import { ruleById } from "./rules";

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

/** So many messages are read at once. */
const AT_ONCE = 1000;
/** Before all messages. */
const EVER = "1970-01-01T00:00:00.000Z";
const SHOWN = 600;

interface Row extends IncomingRow {
  customer_name: string;
  answered_by: string | null;
  answer: string | null;
  keys: string[] | null;
  titles: string[] | null;
}

const PAST = `select ${INCOMING}, cu.display_name as customer_name, l.name as answered_by, l.text as answer, l.keys, l.titles
   from ${INCOMING_FROM}
   left join lateral (
     select p.name, left(o.text, ${SHOWN}) as text,
            (select array_agg(r.key order by lr.position) from letter_replies lr join replies r on r.id = lr.reply_id and r.part = 'answer' where lr.letter_id = s.id) as keys,
            (select array_agg(r.title order by lr.position) from letter_replies lr join replies r on r.id = lr.reply_id and r.part = 'answer' where lr.letter_id = s.id) as titles
       from messages o left join sent_letters s on s.message_id = o.id left join people p on p.id = o.person_id
      where o.case_id = m.case_id and o.direction = 'out' and o.kind = 'message' and o.state <> 'called back' and o.at > m.at
      order by o.at, o.id limit 1) l on true
  where m.id = any(?) order by m.at, m.id`;

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
  const settings = await settingsOf(em);
  const hours = officeHours(settings.clock);
  const mailboxes = new Map((await em.find(Mailbox, {})).map((one) => [one.id, one.address]));
  const others = await em.find(
    StandingAnswer,
    { id: { $ne: id }, switchedOnAt: { $ne: null } },
    { populate: ["reply"] },
  );
  const alone = (one: StandingAnswer) => {
    const rules: StandingRule[] = [{ ...ruleOf(one, mailboxes), switched_on_at: EVER }];
    return rehearsal({ rules, own: ownAddresses(settings.mailboxes), patterns: re2Patterns });
  };
  const decide = alone(rule);
  const beside = others.map((one) => ({ name: one.name, decide: alone(one), count: 0 }));
  const marks = new Map(
    (
      await query<{ message: number; should: boolean }>(
        em,
        `select message_id as message, should from standing_marks where rule_id = ?`,
        [id],
      )
    ).map((one) => [one.message, one.should]),
  );
  const ids = await query<{ id: number }>(
    em,
    `select id from (select id, at from messages where direction = 'in' and kind <> 'pressed' order by at desc, id desc limit ?) m order by at, id`,
    [most],
  );
  const tally = new Tally<PastShown>();
  tell(0, ids.length);
  for (let from = 0; from < ids.length; from += AT_ONCE) {
    const batch = ids.slice(from, from + AT_ONCE).map((one) => one.id);
    for (const row of await query<Row>(em, PAST, [batch])) {
      const message = incomingOf(row, hours);
      const [said] = decide(message).said;
      const does = said?.does ?? "passes";
      const side = sideOf(does, { replies: row.keys ?? [], byHand: row.answer !== null }, rule.reply.key);
      tally.add(side, valuesOfMessage(message, re2Patterns), () =>
        shownOf(row, said?.why ?? "", marks, settings.house),
      );
      for (const other of beside)
        if (takes(other.decide(message).said[0]?.does) && takes(does)) other.count += 1;
    }
    tell(Math.min(ids.length, from + AT_ONCE), ids.length);
  }
  const wrong = await wrongOf(em, [...marks], (row) =>
    takes(alone(rule)(incomingOf(row, hours)).said[0]?.does),
  );
  const figures: Rehearsed = {
    ...tally.counts,
    at: now.toISOString(),
    messages: ids.length,
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

const takes = (does: string | undefined) => does === "send" || does === "prepare" || does === "instead";

/** How many of what somebody marked come out other than they should, wherever in the past they lie. */
async function wrongOf(
  em: EntityManager,
  marks: [message: number, should: boolean][],
  isTaken: (row: IncomingRow) => boolean,
): Promise<number> {
  if (marks.length === 0) return 0;
  const should = new Map(marks);
  const rows = await query<Row>(em, PAST, [[...should.keys()]]);
  return rows.filter((row) => isTaken(row) !== should.get(row.id)).length;
}

function shownOf(
  row: Row,
  why: string,
  marks: ReadonlyMap<number, boolean>,
  house: Settings["house"],
): PastShown {
  return {
    message: row.id,
    case: Number(row.case.number),
    label: caseNumber(house, Number(row.case.number)),
    customer: row.customer_name,
    at: new Date(row.at).toISOString(),
    words: row.body.slice(0, SHOWN),
    why,
    answer:
      row.answer === null
        ? null
        : { by: row.answered_by, titles: row.titles ?? [], words: row.answer.slice(0, SHOWN) },
    should: marks.get(row.id) ?? null,
  };
}
