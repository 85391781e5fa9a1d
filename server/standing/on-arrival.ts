import type { EntityManager } from "@mikro-orm/postgresql";
import { re2Patterns } from "#core/conditions/re2";
import { episodes, type Counts } from "#core/standing/counts";
import { decide, senderOf, type Said } from "#core/standing/decide";
import { ownAddresses } from "#core/standing/loop";
import type { Incoming } from "#core/standing/message";
import { CaseEvent, type Case } from "../db/entities/cases";
import { Mailbox } from "../db/entities/mailboxes";
import { Message } from "../db/entities/messages";
import { CaseNotice } from "../db/entities/notices";
import { Person } from "../db/entities/people";
import { StandingAnswer, StandingDone } from "../db/entities/standing";
import { query } from "../db/sql";
import { notifyCase } from "../events/notify";
import { officeHours, settingsOf } from "../house/settings";
import { log } from "../log";
import { letterByItself } from "../notices/by-itself";
import { viewerOf } from "../people/viewer";
import { queue } from "../queue/boss";
import { scheduleDelivery } from "../sending/schedule";
import { t } from "../words";
import { INCOMING, INCOMING_FROM, incomingOf, type IncomingRow } from "./incoming";
import { ruleOf } from "./rule";

/** The advisory lock under which rules decide, one message after the other: whatever process asks, their counts are right. */
const DECIDING = 7423;
/** So often in a day a rule may come over its limit; then it is switched off. */
const MOST_OVER = 3;
const HOUR_MS = 60 * 60_000;

/** Queues what rules say of a message that has come in, in the caller's transaction; nothing where no rule is on. Writes what the unit of work holds. */
export async function askRules(em: EntityManager, message: Message): Promise<void> {
  const [row] = await query<{ any: boolean }>(
    em,
    `select exists (select 1 from standing_rules where switched_on_at is not null) as any`,
  );
  if (!row?.any) return;
  // What was just made has no id before.
  await em.flush();
  await queue(em, "standing", { message: message.id });
}

/**
 * Does what the rules say of a message that has come in, once, whoever asks and however often: all of it is kept in one
 * transaction with the letter and its delivery, so that a process that dies in the middle leaves nothing half done.
 */
export async function answerByRules(em: EntityManager, messageId: number, now: Date): Promise<void> {
  await em.transactional(async (inner) => {
    await query(inner, "select pg_advisory_xact_lock(?)", [DECIDING]);
    if ((await inner.count(StandingDone, { message: messageId })) > 0) return;
    const [row] = await query<IncomingRow>(
      inner,
      `select ${INCOMING} from ${INCOMING_FROM} where m.id = ? and m.direction = 'in'`,
      [messageId],
    );
    // Whatever became of it meanwhile, there is nothing to answer.
    if (!row) return;
    const rules = await inner.find(
      StandingAnswer,
      {
        switchedOnAt: { $ne: null },
        reply: { state: "shelved" },
        $or: [{ until: null }, { until: { $gt: now } }],
      },
      { orderBy: { position: "asc", id: "asc" }, populate: ["reply", "switchedOnBy.team"] },
    );
    if (rules.length === 0) return;
    const settings = await settingsOf(inner);
    const hours = officeHours(settings.clock);
    const mailboxes = await inner.find(Mailbox, {});
    const addresses = new Map(mailboxes.map((one) => [one.id, one.address]));
    const incoming = incomingOf(row, hours);
    const decision = decide(incoming, {
      rules: rules.map((rule) => ruleOf(rule, addresses)),
      own: ownAddresses(settings.mailboxes),
      counts: await countsOf(inner, incoming, now),
      patterns: re2Patterns,
    });
    for (const said of decision.said) {
      const rule = rules.find((one) => one.id === said.rule);
      if (rule && said.does !== "passes")
        await carryOut(inner, rule, incoming, { ...said, does: said.does }, now);
    }
  });
}

/** What rules did before, as far as it limits what they do with a message. */
async function countsOf(em: EntityManager, message: Incoming, now: Date): Promise<Counts> {
  const sender = senderOf(message);
  const lasts = await query<{ rule: number; at: string }>(
    em,
    `select rule_id as rule, max(at) as at from standing_done where sender = ? and does <> 'held' group by rule_id`,
    [sender],
  );
  const sent = await query<{ rule: number; count: number }>(
    em,
    `select rule_id as rule, count(*)::int as count from standing_done where does = 'send' and at > ? group by rule_id`,
    [new Date(now.getTime() - HOUR_MS)],
  );
  const [thread] = await query<{ count: number }>(
    em,
    `select count(*)::int as count from messages a where a.direction = 'out' and a.kind = 'automatic' and a.state <> 'called back'
        and a.case_id = (select case_id from messages where id = ?)`,
    [message.id],
  );
  const lastOf = new Map(lasts.map((one) => [one.rule, new Date(one.at).getTime()]));
  const sentBy = new Map(sent.map((one) => [one.rule, one.count]));
  return {
    lastOf: (rule) => lastOf.get(Number(rule)) ?? null,
    sentWithinHour: (rule) => sentBy.get(Number(rule)) ?? 0,
    onThread: () => thread?.count ?? 0,
  };
}

/** What a rule says that is for a message. */
interface ForIt extends Said {
  does: "send" | "prepare" | "instead" | "held";
}

async function carryOut(
  em: EntityManager,
  rule: StandingAnswer,
  incoming: Incoming,
  said: ForIt,
  now: Date,
): Promise<void> {
  const message = await em.findOneOrFail(
    Message,
    { id: Number(incoming.id) },
    { populate: ["case.customer"] },
  );
  const subject = message.case as Case;
  // Nobody answers on behalf of who is not with us any more.
  const person = rule.switchedOnBy?.leftAt == null ? rule.switchedOnBy : null;
  const done = em.create(StandingDone, {
    ...{ rule, message, case: subject, sender: senderOf(incoming), does: said.does, why: said.why, at: now },
  });
  if (said.does === "held" || person == null) {
    if (person == null) Object.assign(done, { does: "held", why: t("whoSwitchedItOnIsGone") });
    await em.flush();
    return;
  }
  const offered = em.create(CaseNotice, {
    ...{
      case: subject,
      notice: null,
      reply: rule.reply,
      done,
      on: "arrival" as const,
      message: null,
      at: now,
    },
    ...{ person, change: null, state: "offered" as const, why: said.does === "instead" ? said.why : null },
  });
  const told = (words: string) =>
    em.create(CaseEvent, { case: subject, person, kind: "notice", data: { words }, at: now });
  const { name } = rule;
  const { title } = rule.reply;
  if (said.does === "send") {
    const dueAt = new Date(now.getTime() + rule.delayMinutes * 60_000);
    const viewer = viewerOf(await em.findOneOrFail(Person, { id: person.id }, { populate: ["team"] }));
    const given = { subject, reply: rule.reply.key, kind: "automatic" as const, dueAt, now };
    const letter = await letterByItself(em, viewer, given);
    if (typeof letter === "string") {
      Object.assign(done, { does: "prepare", why: letter });
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
  if (said.does === "instead") await overLimit(em, rule, now);
  await notifyCase(em, subject.number, "message");
}

/** A rule came over its limit: three times within a day switch it off. */
async function overLimit(em: EntityManager, rule: StandingAnswer, now: Date): Promise<void> {
  const times = await query<{ at: string }>(
    em,
    `select at from standing_done where rule_id = ? and does = 'instead' and at > ? order by at`,
    [rule.id, new Date(now.getTime() - 24 * HOUR_MS)],
  );
  const over = episodes(times.map(({ at }) => new Date(at).getTime()));
  log.warn({ event: "standing answer over its limit", rule: rule.id, times: over });
  if (over < MOST_OVER) return;
  Object.assign(rule, { switchedOnAt: null, offWhy: t("cameOverItsLimit", { count: over }) });
  await em.flush();
}
