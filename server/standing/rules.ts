import type { EntityManager } from "@mikro-orm/postgresql";
import type { StandingInput } from "#core/forms/standing";
import { noticeChannels } from "#core/notices/notice";
import { ARRIVAL } from "#core/standing/occasion";
import type { RuleMode } from "#core/standing/rule";
import type { Rehearsed } from "#core/standing/tally";
import type { Blanks } from "#core/tokens/blanks";
import { blankLabel } from "#core/tokens/blanks";
import { Mailbox } from "../db/entities/mailboxes";
import { Reply } from "../db/entities/library";
import { tagsOf } from "../cases/tags";
import { topicsOf } from "../cases/topics";
import { Person, Team } from "../db/entities/people";
import { StandingAnswer } from "../db/entities/standing";
import { preparedOne, query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { caseNumber } from "../house/house";
import { ownTokensOf, settingsOf, type OwnTokens } from "../house/settings";
import { includesRole, requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";
import { bestRepliesIn } from "./best";
import { ruleDigest } from "./rule";

const HOUR_MS = 60 * 60_000;

/** A rule, as a lead reads and changes it. Times are ISO 8601 instants. */
export interface StandingRow extends StandingInput {
  id: number;
  /** Title of its reply. */
  title: string;
  /** Why it answers nothing whatever is set: its reply is on no shelf; null where it is. */
  idle: string | null;
  mode: RuleMode;
  switchedOnAt: string | null;
  /** When it switches itself off; null for not at all. */
  until: string | null;
  switchedOnBy: string | null;
  offWhy: string | null;
  /** Whether it came over its limit within the last hour, and prepares what it would send. */
  isOver: boolean;
  /** What its last rehearsal came to, and whether that was of the rule as it is. */
  rehearsed: (Rehearsed & { isOfThis: boolean }) | null;
  /** How many it answered or prepared in the last seven days. */
  lately: number;
}

/** All rules, in their order, and what they can be made of. */
export interface StandingAnswers {
  rules: StandingRow[];
  mailboxes: { id: number; address: string }[];
  /** Who is with the house, and its teams. */
  people: { id: number; name: string }[];
  teams: { id: number; name: string }[];
  topics: string[];
  tags: string[];
  /** Titles of the replies that rules ask for as the best. */
  titles: Record<string, string>;
  own: OwnTokens;
}

/** Reads all rules. @throws NotAllowed unless lead */
export async function listRules(em: EntityManager, viewer: Viewer, now: Date): Promise<StandingAnswers> {
  requireRole(viewer, "lead");
  const settings = await settingsOf(em);
  const rules = await em.find(
    StandingAnswer,
    {},
    { orderBy: { position: "asc", id: "asc" }, populate: ["reply", "switchedOnBy"] },
  );
  const lately = await query<{ rule: number; count: number; over: boolean }>(
    em,
    `select rule_id as rule, count(*)::int as count, bool_or(does = 'instead' and at > ?) as over
       from standing_done where does not in ('held', 'passes') and at > ? group by rule_id`,
    [new Date(now.getTime() - HOUR_MS), new Date(now.getTime() - 7 * 24 * HOUR_MS)],
  );
  const mailboxes = await em.find(Mailbox, {}, { orderBy: { address: "asc" } });
  const [people, teams] = [
    await em.find(Person, { leftAt: null }, { orderBy: { name: "asc" }, fields: ["name"] }),
    await em.find(Team, {}, { orderBy: { name: "asc" }, fields: ["name"] }),
  ];
  const asked = rules.flatMap(({ when }) => (when == null ? [] : bestRepliesIn(when)));
  const best = await em.find(Reply, { key: { $in: asked } }, { fields: ["key", "title"] });
  const named = ({ id, name }: { id: number; name: string }) => ({ id, name });
  return {
    rules: rules.map((rule) => ({
      id: rule.id,
      name: rule.name,
      reply: rule.reply.key,
      title: rule.reply.title,
      idle: rule.reply.state === "shelved" ? null : t("ruleWithoutReply"),
      channels: noticeChannels.filter((one) => rule.channels.includes(one)),
      mailboxes: rule.mailboxes,
      trigger: rule.trigger ?? ARRIVAL,
      when: rule.when ?? null,
      oncePerSenderHours: rule.oncePerSenderHours,
      perHour: rule.perHour,
      delayMinutes: rule.delayMinutes,
      stop: rule.stop,
      effects: rule.effects,
      until: rule.until?.toISOString() ?? null,
      mode: rule.mode,
      switchedOnAt: rule.switchedOnAt?.toISOString() ?? null,
      switchedOnBy: rule.switchedOnBy?.name ?? null,
      offWhy: rule.offWhy ?? null,
      rehearsed: rule.rehearsed
        ? { ...rule.rehearsed, isOfThis: rule.rehearsed.rule === ruleDigest(rule) }
        : null,
      lately: lately.find((one) => one.rule === rule.id)?.count ?? 0,
      isOver: rule.switchedOnAt != null && lately.some((one) => one.rule === rule.id && one.over),
    })),
    mailboxes: mailboxes.map(({ id, address }) => ({ id, address })),
    people: people.map(named),
    teams: teams.map(named),
    topics: await topicsOf(em),
    tags: await tagsOf(em),
    titles: Object.fromEntries(best.map(({ key, title }) => [key, title])),
    own: ownTokensOf(settings, now),
  };
}

/**
 * How many rules a lead is to look at: those that switched themselves off, and those that came over their limit within the
 * last hour. None for who is no lead.
 */
export async function rulesToLookAt(em: EntityManager, viewer: Viewer, now: Date): Promise<number> {
  if (!includesRole(viewer.role, "lead")) return 0;
  const { count } = await preparedOne<{ count: number }>(
    em,
    `select count(*)::int as count from standing_rules r where r.off_why is not null or r.switched_on_at is not null
        and exists (select 1 from standing_done d where d.rule_id = r.id and d.does = 'instead' and d.at > ?)`,
    [new Date(now.getTime() - HOUR_MS)],
  );
  return count;
}

/** @throws NotFound */
export async function ruleById(em: EntityManager, id: number): Promise<StandingAnswer> {
  const rule = await em.findOne(StandingAnswer, { id }, { populate: ["reply"] });
  if (!rule) throw new NotFound(t("thereIsNoSuchRule"));
  return rule;
}

/**
 * Keeps a rule. One that is on and answers other messages from now on, or with another reply, is switched off: it is to be
 * rehearsed as it is now.
 * @param id null for a new one, which is asked last and is off
 * @throws NotAllowed unless lead; NotFound; Unusable for a reply on no shelf, or a mailbox that there is not
 */
export async function saveRule(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  input: StandingInput,
): Promise<number> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const { reply: key, mailboxes, channels, trigger, ...rest } = input;
    const reply = await inner.findOne(Reply, { key, state: "shelved", part: "answer" });
    if (!reply) throw new Unusable(t("chooseAReplyOnTheShelf"), "reply");
    const to = [...new Set(mailboxes)];
    if ((await inner.count(Mailbox, { id: { $in: to } })) < to.length)
      throw new Unusable(t("thereIsNoSuchMailbox"), "mailboxes");
    const kept = { ...rest, trigger, channels: [...new Set(channels)], mailboxes: to, reply };
    if (id === null) {
      const made = inner.create(StandingAnswer, { ...kept, position: await inner.count(StandingAnswer, {}) });
      await inner.flush();
      return made.id;
    }
    const rule = await ruleById(inner, id);
    const before = ruleDigest(rule);
    Object.assign(rule, kept);
    if (ruleDigest(rule) !== before)
      Object.assign(rule, { switchedOnAt: null, switchedOnBy: null, offWhy: null });
    await inner.flush();
    return id;
  });
}

/** Switches rules off whose time is over. */
export async function endPast(em: EntityManager, now: Date): Promise<void> {
  const off = { switchedOnAt: null, switchedOnBy: null, until: null };
  await em.nativeUpdate(StandingAnswer, { until: { $lte: now } }, off);
}

/**
 * Switches a rule: off, on to prepare drafts, or on to send by itself. It answers what comes from now on.
 * @param until when it switches itself off; null for not at all
 * @throws NotAllowed unless lead; NotFound; Unusable where it was not rehearsed as it is, or its reply cannot go by itself
 */
export async function switchRule(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  to: RuleMode | "off",
  now: Date,
  until: Date | null = null,
): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const rule = await ruleById(inner, id);
    if (to === "off")
      Object.assign(rule, { switchedOnAt: null, switchedOnBy: null, offWhy: null, until: null });
    else {
      if (rule.reply.state !== "shelved") throw new Unusable(t("ruleWithoutReply"));
      if (rule.rehearsed?.rule !== ruleDigest(rule)) throw new Unusable(t("rehearseItFirst"));
      if (until !== null && until <= now) throw new Unusable(t("thatTimeIsOver"), "until");
      if (to === "send") await refuseBlanks(inner, rule.reply);
      const switchedOnBy = inner.getReference(Person, viewer.id);
      Object.assign(rule, { mode: to, switchedOnAt: now, switchedOnBy, offWhy: null, until });
    }
    await inner.flush();
  });
}

/** A reply that asks for what only a person knows goes by no rule. @throws Unusable */
async function refuseBlanks(em: EntityManager, reply: Reply): Promise<void> {
  const [row] = await query<{ blanks: Blanks }>(em, `select blanks from reply_versions where id = ?`, [
    reply.currentVersionId,
  ]);
  const blanks = row?.blanks ?? {};
  const asked = Object.keys(blanks).filter((name) => blanks[name]?.default === undefined);
  if (asked.length === 0) return;
  const names = asked.map((name) => blankLabel(name, blanks[name])).join(", ");
  throw new Unusable(t("replyAsksForBlanks", { title: reply.title, names }));
}

/** Takes a rule out, with the list of what it did; its letters stay. @throws NotAllowed unless lead; NotFound */
export async function removeRule(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  if ((await em.nativeDelete(StandingAnswer, { id })) === 0) throw new NotFound(t("thereIsNoSuchRule"));
}

/** Puts rules into the order in which they are asked. @throws NotAllowed unless lead */
export async function orderRules(em: EntityManager, viewer: Viewer, ids: number[]): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    for (const [position, id] of ids.entries())
      await inner.nativeUpdate(StandingAnswer, { id }, { position });
  });
}

/** What a rule did with a message. */
export interface RuleDid {
  id: number;
  message: number;
  case: number;
  label: string;
  customer: string;
  /** The beginning of what was asked. */
  words: string;
  does: "send" | "prepare" | "instead" | "held";
  why: string;
  /** ISO 8601 instant. */
  at: string;
  /** The letter while it can be called back; null else. */
  letter: number | null;
  dueAt: string | null;
}

/** So much of a message is told, in characters. */
export const WORDS_TOLD = 160;
/** So many of what a rule did are told. */
const MOST_TOLD = 100;

/** What a rule did lately, the latest first. @throws NotAllowed unless lead */
export async function whatRuleDid(em: EntityManager, viewer: Viewer, id: number): Promise<RuleDid[]> {
  requireRole(viewer, "lead");
  const { house } = await settingsOf(em);
  const rows = await query<Omit<RuleDid, "label">>(
    em,
    `select d.id, d.message_id as message, c.number as case, cu.display_name as customer, left(m.text, ${WORDS_TOLD}) as words, d.does, d.why, d.at,
            o.id as letter, o.due_at as "dueAt"
       from standing_done d join messages m on m.id = d.message_id join cases c on c.id = d.case_id join customers cu on cu.id = c.customer_id
       left join case_notices n on n.done_id = d.id and n.state = 'queued'
       left join messages o on o.id = n.message_id and o.state = 'due' and o.attempts = 0
      where d.rule_id = ? and d.does <> 'passes' order by d.at desc, d.id desc limit ${MOST_TOLD}`,
    [id],
  );
  const instant = (at: string) => new Date(at).toISOString();
  return rows.map((row) => ({
    ...row,
    label: caseNumber(house, row.case),
    at: instant(row.at),
    dueAt: row.dueAt === null ? null : instant(row.dueAt),
  }));
}
