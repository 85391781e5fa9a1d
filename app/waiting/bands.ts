import type { WaitingRow } from "#server/cases/waiting";
import { nearDay } from "../ui/time";

const HOUR = 3_600_000;

export const bands = ["pastDue", "withinTheHour", "today", "later"] as const;
export type Band = (typeof bands)[number];

/** Where a due time stands on the ruler; today ends at midnight in the agent's zone. */
export function bandOf(answerBy: string | null, now: number, timeZone: string): Band {
  if (answerBy === null) return "later";
  const due = Date.parse(answerBy);
  if (due < now) return "pastDue";
  if (due - now <= HOUR) return "withinTheHour";
  return nearDay(due, now, timeZone) === "today" ? "today" : "later";
}

/** Rows under their bands, in the order of the ruler; bands without rows are left out. */
export function inBands(
  rows: WaitingRow[],
  now: number,
  timeZone: string,
): { band: Band; rows: WaitingRow[] }[] {
  return bands
    .map((band) => ({ band, rows: rows.filter((row) => bandOf(row.answerBy, now, timeZone) === band) }))
    .filter((group) => group.rows.length > 0);
}
