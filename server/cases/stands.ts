/** Of a case, as letters may say it: whose it is, how many seconds it took, and what is promised next. */
export interface Stands {
  owner: string | null;
  seconds: number;
  promised: string | null;
  /** A calendar date. */
  nextDate: string | null;
}

/** What is said of nobody's case that nobody has looked at. */
export const NOTHING_STANDS: Stands = { owner: null, seconds: 0, promised: null, nextDate: null };

const NEXT = "from promises p where p.case_id = c.id and p.outcome is null order by p.by, p.id limit 1";

/** The same of a case `c`, in SQL. */
export const STANDS = `jsonb_build_object(
  'owner', (select o.name from people o where o.id = c.assignee_id),
  'seconds', (select greatest(0, coalesce(sum(e.active_seconds), 0)) from time_entries e where e.case_id = c.id),
  'promised', (select p.words ${NEXT}), 'nextDate', (select to_char(p.by, 'YYYY-MM-DD') ${NEXT}))`;
