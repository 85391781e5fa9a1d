import type { EntityManager } from "@mikro-orm/postgresql";
import { OURS } from "../cases/ours";
import { named, query } from "../db/sql";
import { settingsOf } from "../house/settings";
import { includesRole, type Viewer } from "../people/viewer";

/** How a team did by a channel, and how it stands. */
export interface TimesOfTeam {
  team: string;
  channel: "email" | "chat" | "sms";
  /** Answers that somebody waited for and that had a time. */
  answered: number;
  /** Those of them that came after it. */
  late: number;
  /** Cases whose time has passed without an answer, and those whose time passes within the hour. */
  over: number;
  soon: number;
}

/** A day's answers. */
export interface TimesOfDay {
  /** Calendar date in the house's time zone. */
  day: string;
  inTime: number;
  late: number;
}

/** How often somebody stopped the time of a case without an answer. */
export interface StoppedBy {
  name: string;
  /** Set aside while its time ran, and settled so. */
  aside: number;
  settled: number;
  /** Those of them whose time had passed, or would have within the hour. */
  close: number;
  /** Those of them that were taken up again. */
  again: number;
}

/** What was answered too late, what is, and what stopped the clock. */
export interface TimesReport {
  teams: TimesOfTeam[];
  days: TimesOfDay[];
  /** Who stopped the clock without an answer; null for who may not see it. */
  stopped: StoppedBy[] | null;
}

/** Waits of letters that went. */
const ANSWERED = `waits w join messages m on m.id = w.message_id and m.state <> 'called back' where w.due is not null and w.at >= :from`;

/**
 * How answers kept their times over the last days, and how cases stand now. What was set aside as junk, or as nothing to
 * answer, counts for nothing; who set aside, and when, is told to leads.
 */
export async function timesReport(
  em: EntityManager,
  viewer: Viewer,
  days: number,
  now: Date,
): Promise<TimesReport> {
  const { house } = await settingsOf(em);
  const from = new Date(now.getTime() - days * 86_400_000);
  const values = { from, now, zone: house.timeZone };
  const [teams, byDay, stopped] = await Promise.all([
    query<TimesOfTeam>(
      em,
      ...named(
        `with past as (select w.team_id, w.channel, count(*)::int as answered, (count(*) filter (where w.at > w.due))::int as late
                         from ${ANSWERED} group by w.team_id, w.channel),
              now as (select c.team_id, c.channel, (count(*) filter (where c.answer_by < :now))::int as over,
                             (count(*) filter (where c.answer_by >= :now and c.answer_by < :now::timestamptz + interval '1 hour'))::int as soon
                        from cases c where c.status in (${OURS}) and c.answer_by < :now::timestamptz + interval '1 hour' group by c.team_id, c.channel)
         select t.name as team, coalesce(p.channel, n.channel) as channel, coalesce(p.answered, 0) as answered, coalesce(p.late, 0) as late,
                coalesce(n.over, 0) as over, coalesce(n.soon, 0) as soon
           from past p full join now n on n.team_id = p.team_id and n.channel = p.channel
           join teams t on t.id = coalesce(p.team_id, n.team_id) order by t.name, 2`,
        values,
      ),
    ),
    query<TimesOfDay>(
      em,
      ...named(
        `select to_char(w.at at time zone :zone, 'YYYY-MM-DD') as day, (count(*) filter (where w.at <= w.due))::int as "inTime",
                (count(*) filter (where w.at > w.due))::int as late from ${ANSWERED} group by 1 order by 1`,
        values,
      ),
    ),
    includesRole(viewer.role, "lead") ? stoppedBy(em, from) : null,
  ]);
  return { teams, days: byDay, stopped };
}

async function stoppedBy(em: EntityManager, from: Date): Promise<StoppedBy[]> {
  return query<StoppedBy>(
    em,
    ...named(
      `with stops as (
         select ch.person_id, ch.case_id, ch.at, ch.undone_at, ch.data->'after'->0->>'status' as status,
                (ch.data->'before'->0->>'answerBy')::timestamptz as due
           from case_changes ch
          where ch.kind = 'state' and ch.at >= :from and ch.data->'before'->0->>'answerBy' is not null
            and ch.data->'after'->0->>'status' in ('set aside', 'settled'))
       select p.name, (count(*) filter (where s.status = 'set aside'))::int as aside, (count(*) filter (where s.status = 'settled'))::int as settled,
              (count(*) filter (where s.due < s.at + interval '1 hour'))::int as close,
              (count(*) filter (where s.undone_at is not null or exists (
                 select 1 from case_states i where i.case_id = s.case_id and i.at > s.at and i.status in (${OURS}))))::int as again
         from stops s join people p on p.id = s.person_id group by p.id, p.name order by close desc, p.name`,
      { from },
    ),
  );
}
