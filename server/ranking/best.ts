import type { EntityManager } from "@mikro-orm/postgresql";
import { STALE_VARIANT } from "../replies/stale";
import { prepared } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { usableReplies } from "../access/usable";
import { askedBy, houseRanker } from "./house-ranker";
import { inquiriesOf } from "./inquiries";
import { keptBest, type Best, type BestReply } from "./kept";

/**
 * The best reply for each case that the viewer may use on a channel, by case number; what was found out before is kept
 * until the case's message or the library changes.
 * Cases are left out where ranking knows nothing yet or nothing was asked.
 * @param cases with the channel that they are to be answered on
 */
export async function bestReplies(
  em: EntityManager,
  viewer: Viewer,
  cases: { number: number; channel: string }[],
): Promise<Record<number, Best>> {
  const best: Record<number, Best> = {};
  const states = await statesOf(
    em,
    cases.map((one) => one.number),
  );
  const database = em.config.get("clientUrl") ?? "";
  const keys = new Map(
    cases.map(({ number, channel }) => [
      number,
      [database, viewer.id, viewer.teams.join(), channel, number, states.get(number) ?? ""].join(" "),
    ]),
  );
  const keyOf = (number: number) => keys.get(number) ?? "";
  const unknown = cases.filter(({ number }) => !keptBest.has(keyOf(number)) && !underWay.has(keyOf(number)));
  if (unknown.length > 0) {
    const ranking = rankInSlices(em, viewer, unknown, keyOf);
    const settled = ranking.finally(() => {
      for (const { number } of unknown) underWay.delete(keyOf(number));
    });
    // Whoever asked awaits it below.
    settled.catch(() => undefined);
    for (const { number } of unknown) underWay.set(keyOf(number), settled);
  }
  await Promise.all(new Set(cases.flatMap(({ number }) => underWay.get(keyOf(number)) ?? [])));
  for (const { number } of cases) {
    const known = keptBest.get(keyOf(number));
    if (known) best[number] = known;
  }
  return best;
}

/** What is being found out just now, by what was asked and by whom: however many ask meanwhile, it is asked once. */
const underWay = new Map<string, Promise<void>>();
/** So many cases are ranked at once: what was found out is kept, though ranking takes too long for the rest. */
const SLICE = 8;

async function rankInSlices(
  em: EntityManager,
  viewer: Viewer,
  cases: { number: number; channel: string }[],
  keyOf: (number: number) => string,
): Promise<void> {
  const usable = new Map<string, Set<string>>();
  for (const channel of new Set(cases.map((one) => one.channel)))
    usable.set(channel, (await usableReplies(em, viewer, channel)).answers);
  for (let from = 0; from < cases.length; from += SLICE) {
    const found = await rankAnew(em, viewer, cases.slice(from, from + SLICE), usable);
    if (found === null) return;
    for (const [number, one] of found) keptBest.set(keyOf(number), one);
  }
}

/** What the ranking of cases rests on, as a text that changes with it: their latest message, topic and booking. */
async function statesOf(em: EntityManager, numbers: number[]): Promise<Map<number, string>> {
  const rows = await prepared<{ number: number; state: string }>(
    em,
    `select c.number, concat_ws(' ', m.id, c.topic, c.booking_reference,
            (select k.fetched_at from case_lookups k where k.case_id = c.id and k.source = 'bookings')) as state
       from cases c join lateral (select m.id from messages m where m.case_id = c.id and m.direction = 'in' order by m.at desc, m.id desc limit 1) m on true
      where c.number = any(?)`,
    [numbers],
  );
  return new Map(rows.map((row) => [row.number, row.state]));
}

/** @returns null while ranking knows nothing yet */
async function rankAnew(
  em: EntityManager,
  viewer: Viewer,
  cases: { number: number; channel: string }[],
  usable: ReadonlyMap<string, Set<string>>,
): Promise<Map<number, Best> | null> {
  const best = new Map<number, Best>();
  const inquiries = await inquiriesOf(
    em,
    cases.map((one) => one.number),
  );
  const asked = cases.flatMap(({ number, channel }) => {
    const inquiry = inquiries.get(number);
    const among = usable.get(channel) ?? new Set<string>();
    return inquiry ? [{ number, about: askedBy(viewer, { ...inquiry, channel }, { top: 1, among }) }] : [];
  });
  const rankings = await houseRanker(em).rank(asked.map(({ about }) => about));
  if (rankings === null) return null;
  const found = await shown(
    em,
    rankings.flatMap(({ fits }) => fits.map((one) => one.id)),
  );
  for (const [index, ranking] of rankings.entries()) {
    const number = asked[index]?.number;
    const [first] = ranking.fits;
    const reply = found.get(first?.id ?? "");
    if (number === undefined) continue;
    best.set(
      number,
      first && reply && !ranking.nothingFits
        ? { reply: { ...reply, fit: first.fit, why: first.why.join(", ") } }
        : { reply: null },
    );
  }
  return best;
}

async function shown(
  em: EntityManager,
  keys: string[],
): Promise<Map<string, Omit<BestReply, "fit" | "why">>> {
  const rows = await prepared<Omit<BestReply, "fit" | "why">>(
    em,
    `select r.key, r.title, s.mark, not exists (select 1 from jsonb_object_keys(v.blanks))
              and not exists (select 1 from reply_variants t where t.version_id = v.id and ${STALE_VARIANT}) as ready
       from replies r join shelves s on s.id = r.shelf_id join reply_versions v on v.id = r.current_version_id where r.key = any(?)`,
    [[...new Set(keys)]],
  );
  return new Map(rows.map((row) => [row.key, row]));
}
