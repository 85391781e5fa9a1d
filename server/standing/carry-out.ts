import type { EntityManager } from "@mikro-orm/postgresql";
import { episodes } from "#core/standing/counts";
import { senderOf, type Said } from "#core/standing/decide";
import { effectsOf } from "#core/standing/effects";
import type { Incoming } from "#core/standing/message";
import { keyOfOccasion, type Occasion } from "#core/standing/occasion";
import { lockedCases } from "../cases/recorded";
import { CaseEvent } from "../db/entities/cases";
import { CaseChange } from "../db/entities/changes";
import { Message } from "../db/entities/messages";
import { CaseNotice } from "../db/entities/notices";
import { Person } from "../db/entities/people";
import { Reply } from "../db/entities/library";
import { StandingAnswer, StandingDone } from "../db/entities/standing";
import { query } from "../db/sql";
import { notifyCase } from "../events/notify";
import { log } from "../log";
import { letterByItself } from "../notices/by-itself";
import { viewerOf } from "../people/viewer";
import { scheduleDelivery } from "../sending/schedule";
import { t } from "../words";
import { applyEffects } from "./effects";
import type { IncomingRow } from "./incoming";

/** So often in a day a rule may come over its limit; then it is switched off. */
const MOST_OVER = 3;
const HOUR_MS = 60 * 60_000;

/** The transaction in which rules are asked. */
export interface Within {
  em: EntityManager;
  /** Rules of which it was already looked at how often they came over their limits. */
  over: Set<number>;
  now: Date;
}

/** What a rule says of a message, and of what happened. */
export interface SaidOf {
  rule: StandingAnswer;
  row: IncomingRow;
  incoming: Incoming;
  said: Said;
  occasion: Occasion;
}

/** Does what a rule says, and keeps that it did: in the transaction in which it was asked. */
export async function carryOut(
  { em, over, now }: Within,
  { rule, row, incoming, said, occasion }: SaidOf,
): Promise<void> {
  const [subject] = await lockedCases(em, { id: row.case_id });
  // Whatever became of it meanwhile, there is nothing to answer.
  if (!subject) return;
  const message = em.getReference(Message, row.id);
  // Nobody answers on behalf of who is not with us any more.
  const onBehalf = rule.switchedOnBy?.leftAt == null ? rule.switchedOnBy : null;
  const done = em.create(StandingDone, {
    ...{ rule: em.getReference(StandingAnswer, rule.id), message, case: subject, sender: senderOf(incoming) },
    ...{ does: said.does, why: said.why, at: now, occasion: keyOfOccasion(occasion) },
  });
  if (said.does === "passes" || said.does === "held" || onBehalf == null) {
    if (onBehalf == null && said.does !== "passes")
      Object.assign(done, { does: "held", why: t("whoSwitchedItOnIsGone") });
    await em.flush();
    return;
  }
  const viewer = viewerOf(onBehalf);
  const person = em.getReference(Person, viewer.id);
  const offered = em.create(CaseNotice, {
    ...{
      case: subject,
      notice: null,
      reply: em.getReference(Reply, rule.reply.id),
      done,
      on: occasion.on,
      message: null,
      at: now,
    },
    ...{ person, change: null, state: "offered" as const, why: said.does === "instead" ? said.why : null },
  });
  const told = (words: string) =>
    em.create(CaseEvent, { case: subject, person, kind: "notice", data: { words }, at: now });
  const { name } = rule;
  const { title } = rule.reply;
  let { does } = said;
  if (does === "send") {
    const dueAt = new Date(now.getTime() + rule.delayMinutes * 60_000);
    const given = { subject, reply: rule.reply.key, kind: "automatic" as const, dueAt, now };
    const letter = await letterByItself(em, viewer, given);
    if (typeof letter === "string") {
      does = "prepare";
      Object.assign(done, { does, why: letter });
      Object.assign(offered, { state: "held", why: letter });
      told(t("ruleDidNotSend", { name, title, why: letter }));
    } else {
      Object.assign(offered, { state: "queued", message: letter });
      told(t("ruleAnswers", { name, title }));
      await em.flush();
      await scheduleDelivery(em, letter.id, dueAt);
    }
  } else told(t("rulePrepares", { name, title }));
  await em.flush();
  const change = await applyEffects(em, viewer, subject, effectsOf(rule.effects, does), now);
  if (change !== null) offered.change = em.getReference(CaseChange, change);
  await em.flush();
  if (does === "instead" && !over.has(rule.id)) {
    over.add(rule.id);
    await overLimit(em, rule, now);
  }
  await notifyCase(em, subject.number, "message");
}

/** A rule came over its limit: three times within a day switch it off. What lies no more than an hour apart is once. */
async function overLimit(em: EntityManager, rule: StandingAnswer, now: Date): Promise<void> {
  const [row] = await query<{ more: boolean }>(
    em,
    `select count(*) > 1 as more from (select 1 from standing_done where rule_id = ? and does = 'instead' and at > ? limit 2) d`,
    [rule.id, new Date(now.getTime() - HOUR_MS)],
  );
  if (row?.more) return;
  const times = await query<{ at: string }>(
    em,
    `select at from standing_done where rule_id = ? and does = 'instead' and at > ? order by at`,
    [rule.id, new Date(now.getTime() - 24 * HOUR_MS)],
  );
  const over = episodes(times.map(({ at }) => new Date(at).getTime()));
  log.warn({ event: "standing answer over its limit", rule: rule.id, times: over });
  if (over < MOST_OVER) return;
  const off = { switchedOnAt: null, offWhy: t("cameOverItsLimit", { count: over }) };
  await em.nativeUpdate(StandingAnswer, { id: rule.id }, off);
  // What is asked next in this transaction finds it off.
  Object.assign(rule, off);
}
