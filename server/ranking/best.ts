import type { EntityManager } from "@mikro-orm/postgresql";
import { prepared } from "../db/sql";
import type { Viewer } from "../people/viewer";
import { answersOf, usableReplies } from "../access/usable";
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
      [database, viewer.id, viewer.teamId, channel, number, states.get(number) ?? ""].join(" "),
    ]),
  );
  const unknown = cases.filter(({ number }) => {
    const known = keptBest.get(keys.get(number) ?? "");
    if (known) best[number] = known;
    return !known;
  });
  const found = await rankAnew(em, viewer, unknown);
  for (const [number, one] of found) {
    best[number] = one;
    keptBest.set(keys.get(number) ?? "", one);
  }
  return best;
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

async function rankAnew(
  em: EntityManager,
  viewer: Viewer,
  cases: { number: number; channel: string }[],
): Promise<Map<number, Best>> {
  const best = new Map<number, Best>();
  if (cases.length === 0) return best;
  const inquiries = await inquiriesOf(
    em,
    cases.map((one) => one.number),
  );
  const usable = new Map<string, Set<string>>();
  for (const channel of new Set(cases.map((one) => one.channel)))
    usable.set(channel, answersOf(await usableReplies(em, viewer, channel)));
  const asked = cases.flatMap(({ number, channel }) => {
    const inquiry = inquiries.get(number);
    const among = usable.get(channel) ?? new Set<string>();
    return inquiry ? [{ number, about: askedBy(viewer, { ...inquiry, channel }, { top: 1, among }) }] : [];
  });
  const rankings = (await houseRanker(em).rank(asked.map(({ about }) => about))) ?? [];
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
    `select r.key, r.title, s.mark, not exists (select 1 from jsonb_object_keys(v.blanks)) as ready
       from replies r join shelves s on s.id = r.shelf_id join reply_versions v on v.id = r.current_version_id where r.key = any(?)`,
    [[...new Set(keys)]],
  );
  return new Map(rows.map((row) => [row.key, row]));
}
