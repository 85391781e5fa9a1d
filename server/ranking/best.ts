import type { EntityManager } from "@mikro-orm/postgresql";
import { query } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { usableAnswers } from "../replies/usable";
import { askedBy, houseRanker } from "./house-ranker";
import { inquiriesOf } from "./inquiries";

/** The reply that fits a case best, as far as ranking knows. */
export interface BestReply {
  key: string;
  title: string;
  mark: string;
  fit: number;
  why: string;
  /** Whether it can be sent as it is: it asks for nothing that only a person can know. */
  ready: boolean;
}

/** What the shelf has for a case: its best reply, or nothing that fits. */
export type Best = { reply: BestReply } | { reply: null };

/**
 * The best reply for each case that the viewer may use on its channel, by case number.
 * Cases are left out where ranking knows nothing yet or nothing was asked.
 */
export async function bestReplies(
  em: EntityManager,
  viewer: Viewer,
  cases: { number: number; channel: string }[],
): Promise<Record<number, Best>> {
  const inquiries = await inquiriesOf(
    em,
    cases.map((one) => one.number),
  );
  const usable = new Map<string, Set<string>>();
  for (const channel of new Set(cases.map((one) => one.channel)))
    usable.set(channel, await usableAnswers(em, viewer, channel));
  const asked = cases.flatMap(({ number, channel }) => {
    const inquiry = inquiries.get(number);
    const among = usable.get(channel) ?? new Set<string>();
    return inquiry ? [{ number, about: askedBy(viewer, inquiry, { top: 1, among }) }] : [];
  });
  const rankings = (await houseRanker(em).rank(asked.map(({ about }) => about))) ?? [];
  const found = await shown(
    em,
    rankings.flatMap(({ fits }) => fits.map((one) => one.id)),
  );
  const best: Record<number, Best> = {};
  for (const [index, ranking] of rankings.entries()) {
    const number = asked[index]?.number;
    const [first] = ranking.fits;
    const reply = found.get(first?.id ?? "");
    if (number === undefined) continue;
    best[number] =
      first && reply && !ranking.nothingFits
        ? { reply: { ...reply, fit: first.fit, why: first.why.join(", ") } }
        : { reply: null };
  }
  return best;
}

async function shown(
  em: EntityManager,
  keys: string[],
): Promise<Map<string, Omit<BestReply, "fit" | "why">>> {
  const rows = await query<Omit<BestReply, "fit" | "why">>(
    em,
    `select r.key, r.title, s.mark, not exists (select 1 from jsonb_object_keys(v.blanks)) as ready
       from replies r join shelves s on s.id = r.shelf_id join reply_versions v on v.id = r.current_version_id where r.key = any(?)`,
    [[...new Set(keys)]],
  );
  return new Map(rows.map((row) => [row.key, row]));
}
