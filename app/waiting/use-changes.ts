import { useCallback, useEffect, useMemo, useState } from "react";
import { useRevalidator } from "react-router";
import type { ChangedRow, WaitingFilter, WaitingRow } from "#server/cases/waiting";
import type { DeskData } from "../ui/desk";
import { useRouteLoaderData } from "react-router";
import { useLive } from "../ui/use-live";

/** Counts and best replies are loaded behind the rows that changed, once for all that come until then. */
const BEHIND_MS = [15_000, 45_000] as const;

interface Viewer {
  id: number;
  name: string;
  teams: number[];
}

/** Whether a case is on a list with a filter; what was typed is left to the server. */
export function isListed(
  { row, list, team, assignee }: ChangedRow,
  filter: WaitingFilter,
  viewer: Viewer,
): boolean {
  return (
    list === filter.list &&
    (filter.whose !== "mine" || assignee === viewer.id) &&
    (filter.whose !== "nobody's" || assignee === null) &&
    (filter.whose === "mine" || filter.whose === "all" || viewer.teams.includes(team)) &&
    (filter.channel === null || row.channel === filter.channel) &&
    (filter.topic === null || row.topic === filter.topic)
  );
}

/** Rows with those that changed in their places: by the time left, or on the other lists by what happened last. */
export function withChanges(
  rows: WaitingRow[],
  changes: ReadonlyMap<number, WaitingRow | null>,
  list: WaitingFilter["list"],
): WaitingRow[] {
  if (changes.size === 0) return rows;
  const kept = rows.filter((row) => !changes.has(row.number));
  const added = [...changes.values()].filter((row) => row !== null);
  const time = (row: WaitingRow) =>
    list === "us"
      ? row.answerBy === null
        ? Infinity
        : Date.parse(row.answerBy)
      : -Date.parse(row.updatedAt);
  return [...kept, ...added].sort((a, b) => time(a) - time(b) || a.number - b.number);
}

/** The rows of a list as they are now: as they were loaded, with what the server tells of since. */
export function useChanges(rows: WaitingRow[], filter: WaitingFilter): WaitingRow[] {
  const viewer = useRouteLoaderData<DeskData>("ui/desk")?.viewer;
  const { revalidate } = useRevalidator();
  const [changes, setChanges] = useState<Changes>({ since: rows, ...NOTHING });
  const current = changes.since === rows ? changes : { since: rows, ...NOTHING };
  const onRow = useCallback(
    async (data: string) => {
      const { changedShape } = await import("./changed-shape");
      const read = changedShape.safeParse(JSON.parse(data));
      // What is searched for is found by the server alone.
      if (!read.success || !viewer || filter.text !== "") {
        void revalidate();
        return;
      }
      const { row } = read.data;
      const shown = { ...row, people: row.people.filter((name) => name !== viewer.name) };
      setChanges((before) => {
        const known = before.since === rows ? before : NOTHING;
        const listed = isListed(read.data, filter, viewer);
        return {
          since: rows,
          rows: new Map(known.rows).set(row.number, listed ? shown : null),
          // Where only somebody came to a case or left it, counts and best replies are as they were.
          isBehind: known.isBehind || !(listed && isAsLoaded(rows, row)),
        };
      });
    },
    [rows, filter, viewer, revalidate],
  );
  useLive(
    useMemo(
      () => ({ list: (data: string) => void onRow(data).catch(() => revalidate()) }),
      [onRow, revalidate],
    ),
  );
  const { isBehind } = current;
  useEffect(() => {
    if (!isBehind) return;
    // Not all screens at once.
    const wait = BEHIND_MS[0] + Math.random() * (BEHIND_MS[1] - BEHIND_MS[0]);
    const timer = setTimeout(() => void revalidate(), wait);
    return () => clearTimeout(timer);
  }, [isBehind, revalidate]);
  return useMemo(() => withChanges(rows, current.rows, filter.list), [rows, current.rows, filter.list]);
}

/** What was told since a list was loaded. */
interface Changes {
  since: WaitingRow[];
  rows: ReadonlyMap<number, WaitingRow | null>;
  /** Whether counts and best replies are older than the rows. */
  isBehind: boolean;
}

const NOTHING: Omit<Changes, "since"> = { rows: new Map(), isBehind: false };

/** Whether a case is as it was loaded, but for who is on it. */
export function isAsLoaded(rows: WaitingRow[], row: WaitingRow): boolean {
  const loaded = rows.find((one) => one.number === row.number);
  return loaded?.updatedAt === row.updatedAt && loaded.refused === row.refused;
}
