import type { EntityManager } from "@mikro-orm/postgresql";
import { BOOKINGS } from "#core/tokens/catalogue";
import type { Case } from "../db/entities/cases";
import { prepared } from "../db/sql";
import type { Settings } from "../house/settings";
import { isOld } from "./look-up";

/** An outside system, as a case knows it. Times are ISO 8601 instants. */
export interface SourceAsked {
  key: string;
  name: string;
  /** What it is asked by, as it was found in the messages; null where none is. */
  reference: string | null;
  /** Whether it has answered yet. */
  asked: boolean;
  /** Whether something is known of it. */
  found: boolean;
  problem: string | null;
  /** When it said what is known; null where nothing is. */
  readAt: string | null;
  /** Whether that is so long ago that it is to be asked anew. */
  old: boolean;
}

interface Row {
  source: string;
  reference: string;
  problem: string | null;
  found: boolean;
  fetchedAt: string | null;
  readAt: string | null;
}

/** What outside systems were asked for a case, in the house's order. */
export async function sourcesOf(
  em: EntityManager,
  subject: Pick<Case, "id" | "bookingReference">,
  sources: Settings["sources"],
  now: Date,
): Promise<SourceAsked[]> {
  if (sources.length === 0) return [];
  const rows = await prepared<Row>(
    em,
    `select source, reference, problem, data is not null as found, fetched_at as "fetchedAt", read_at as "readAt"
       from case_lookups where case_id = ?`,
    [subject.id],
  );
  return sources.map(({ key, name, cacheMinutes }) => {
    const row = rows.find((one) => one.source === key);
    const reference = row?.reference ?? (key === BOOKINGS ? (subject.bookingReference ?? null) : null);
    const fetchedAt = row?.fetchedAt == null ? null : new Date(row.fetchedAt);
    return {
      ...{ key, name, reference, asked: fetchedAt !== null, problem: row?.problem ?? null },
      found: row?.found ?? false,
      readAt: row?.readAt == null ? null : new Date(row.readAt).toISOString(),
      old: reference !== null && isOld(fetchedAt, cacheMinutes, now),
    };
  });
}
