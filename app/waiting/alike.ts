import { closeness } from "#core/ranking/fit-words";
import type { WaitingRow } from "#server/cases/waiting";
import type { Best, BestReply } from "#server/ranking/kept";

/** Cases that the same reply fits; null for those that no reply surely fits. */
export interface AlikeGroup {
  reply: BestReply | null;
  rows: WaitingRow[];
}

/**
 * Rows by the reply that fits them closely or likely: the most alike first, and in each the surest first, since they are
 * answered one after the other. The rest comes last, in the order of the list.
 */
export function inAlike(rows: WaitingRow[], best: Record<number, Best>): AlikeGroup[] {
  const sure = ({ number }: WaitingRow): BestReply | null => {
    const reply = best[number]?.reply ?? null;
    const fit = reply && closeness(reply.fit);
    return fit === "close" || fit === "likely" ? reply : null;
  };
  const groups = new Map<string | null, AlikeGroup>();
  for (const row of rows) {
    const reply = sure(row);
    const group = groups.get(reply?.key ?? null) ?? { reply, rows: [] };
    group.rows.push(row);
    groups.set(reply?.key ?? null, group);
  }
  return [...groups.values()]
    .map(({ reply, rows: alike }) => ({
      reply,
      rows: alike.toSorted((a, b) => (sure(b)?.fit ?? 0) - (sure(a)?.fit ?? 0)),
    }))
    .sort((a, b) => Number(a.reply === null) - Number(b.reply === null) || b.rows.length - a.rows.length);
}
