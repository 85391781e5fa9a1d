import type { EntityManager } from "@mikro-orm/postgresql";
import type { Said } from "#core/standing/decide";
import { isAskedOf, keyOfOccasion, type Broken, type Occasion, type Silent } from "#core/standing/occasion";
import { Case } from "../db/entities/cases";
import { Message } from "../db/entities/messages";
import { StandingDone, type StandingAnswer } from "../db/entities/standing";
import { query } from "../db/sql";
import { log } from "../log";
import { loggable } from "../told";
import { t } from "../words";
import { askOf, deciding, rulesOn, type Asking } from "./asking";
import type { IncomingRow } from "./incoming";
import { latestOf } from "./latest";

const HOUR_MS = 60 * 60_000;
/** So many cases are looked at in one go. */
const AT_ONCE = 500;

/** Cases that are silent, and since when: the customer since our latest letter, or we since their oldest message without an answer. */
const SILENT: Record<Silent, string> = {
  customer: `select c.id, greatest(
        (select max(s.at) from case_states s where s.case_id = c.id),
        (select max(o.at) from messages o where o.case_id = c.id and o.direction = 'out' and o.kind = 'message' and o.state <> 'called back')) as since
      from cases c where c.status = 'waiting on the customer' and c.joined_to_id is null and c.channel <> 'chat'`,
  us: `select c.id, c.waiting_since as since from cases c
        where c.status in ('new', 'open', 'waiting on a colleague') and c.joined_to_id is null and c.channel <> 'chat' and c.waiting_since is not null`,
};

interface SilentCase {
  id: number;
  since: Date;
}

/**
 * Does what rules say of silences that have lasted long enough, each once, whoever looks. What fails on one case is logged
 * and tried again at the next look.
 * @returns how many cases were asked about
 */
export async function answerSilences(em: EntityManager, now: Date): Promise<number> {
  let asked = 0;
  for (const who of ["customer", "us"] as const) {
    const rules = (await rulesOn(em, now)).filter((one) => isOf(one, who));
    if (rules.length === 0) continue;
    for (const { id, since } of await silentCases(em, who, rules, now)) {
      try {
        await deciding(em.fork(), now, (asking) => answerSilence(asking, { of: who, id, since }));
      } catch (error) {
        log.error({ event: "a silence was not answered", case: id, error: loggable(error) });
      }
      asked += 1;
    }
  }
  return asked;
}

function isOf({ trigger }: StandingAnswer, of: Silent): boolean {
  return trigger?.on === "silence" && trigger.of === of;
}

function hoursOf({ trigger }: StandingAnswer): number {
  return trigger?.on === "silence" ? trigger.hours : 0;
}

/** Cases whose silence began after a rule was switched on, is long enough for it, and of which it was not asked. */
async function silentCases(
  em: EntityManager,
  of: Silent,
  rules: StandingAnswer[],
  now: Date,
): Promise<SilentCase[]> {
  const found = await query<{ id: number; since: string }>(
    em,
    `select s.id, s.since from (${SILENT[of]}) s
      where exists (select 1 from unnest(?::int[], ?::timestamptz[], ?::timestamptz[]) r (rule, on_since, until)
        where s.since >= r.on_since and s.since <= r.until
          and not exists (select 1 from standing_done d where d.rule_id = r.rule and d.case_id = s.id
            and d.occasion = 'silence ' || to_char(s.since at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')))
      order by s.since limit ${AT_ONCE}`,
    [
      rules.map((one) => one.id),
      rules.map((one) => one.switchedOnAt?.toISOString() ?? null),
      rules.map((one) => new Date(now.getTime() - hoursOf(one) * HOUR_MS).toISOString()),
    ],
  );
  return found.map(({ id, since }) => ({ id, since: new Date(since) }));
}

async function answerSilence(asking: Asking, { of, id, since }: SilentCase & { of: Silent }): Promise<void> {
  const { em, now } = asking;
  // Somebody may have written meanwhile, or another process have asked.
  const [still] = await query<{ since: string | null }>(
    em,
    `select s.since from (${SILENT[of]}) s where s.id = ?`,
    [id],
  );
  if (still?.since == null || new Date(still.since).getTime() !== since.getTime()) return;
  const key = keyOfOccasion({ on: "silence", of, since: since.getTime(), at: now.getTime(), before: [] });
  const done = await em.find(StandingDone, { case: id, occasion: key }, { populate: ["rule"] });
  const before = done.flatMap((one): Broken[] =>
    ["send", "prepare", "instead"].includes(one.does)
      ? [{ hours: hoursOf(one.rule), at: one.at.getTime() }]
      : [],
  );
  const rules = asking.rules.filter((one) => isOf(one, of) && !done.some(({ rule }) => rule.id === one.id));
  const occasion: Occasion & { on: "silence" } = {
    on: "silence",
    of,
    since: since.getTime(),
    at: now.getTime(),
    before,
  };
  const row = await latestOf(em, id);
  // Those whose time has not come yet are asked later: nothing is kept of them now.
  const due = rules.filter((one) => isDueFor(one, occasion));
  if (!row || due.length === 0) return;
  const { said } = await askOf(asking, { row, rules: due, occasion });
  await passOver(em, due, { said, row, key }, now);
}

function isDueFor(
  { trigger, switchedOnAt }: StandingAnswer,
  occasion: Occasion & { on: "silence" },
): boolean {
  const isSince = (switchedOnAt?.getTime() ?? Infinity) <= occasion.since;
  return isSince && trigger?.on === "silence" && isAskedOf(trigger, occasion).fits;
}

/** Where a rule ended the asking, those after it that were to be asked as early are not asked of this silence any more. */
async function passOver(
  em: EntityManager,
  due: StandingAnswer[],
  { said, row, key }: { said: Said[]; row: IncomingRow; key: string },
  now: Date,
): Promise<void> {
  const last = due.find((one) => one.id === said.at(-1)?.rule);
  const over = due.filter((one) => !said.some(({ rule }) => rule === one.id));
  for (const rule of over.filter((one) => last && hoursOf(one) <= hoursOf(last))) {
    const [message, subject] = [em.getReference(Message, row.id), em.getReference(Case, row.case_id)];
    const why = t("anEarlierRuleEndedTheAsking", { name: last?.name ?? "" });
    em.create(StandingDone, {
      rule,
      message,
      case: subject,
      occasion: key,
      sender: "",
      does: "passes",
      why,
      at: now,
    });
  }
  await em.flush();
}
