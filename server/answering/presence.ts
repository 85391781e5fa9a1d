import type { EntityManager } from "@mikro-orm/postgresql";
import { Presence } from "../db/entities/cases";
import { notifyCase } from "../events/notify";
import { seeNotes } from "../notes/notes";
import { named, prepared, query } from "../db/sql";

/** A colleague on a case. */
export interface Other {
  name: string;
  /** Has it open just now; else has begun an answer. */
  here: boolean;
}

const HERE = "interval '45 seconds'";

/** Colleagues who have a case open or began an answer on it: the statement, by case and viewer. */
export const OTHERS = `select p.name, bool_or(x.here) as here from people p join (
        select person_id, true as here from case_presence where case_id = :case and seen_at > now() - ${HERE}
        union all select person_id, false from drafts where case_id = :case) x on x.person_id = p.id
      where p.id <> :person group by p.name order by p.name`;

/** Colleagues who have a case open or began an answer on it. */
export async function others(em: EntityManager, caseId: number, viewerId: number): Promise<Other[]> {
  return prepared<Other>(em, ...named(OTHERS, { case: caseId, person: viewerId }));
}

/** Notes that a person has a case open; colleagues are told when they came. */
export async function arrive(
  em: EntityManager,
  caseId: number,
  number: number,
  personId: number,
): Promise<void> {
  const [row] = await query<{ fresh: boolean }>(
    em,
    `with before as (select seen_at from case_presence where case_id = ? and person_id = ?),
          upserted as (insert into case_presence (case_id, person_id, seen_at) values (?, ?, now())
            on conflict (case_id, person_id) do update set seen_at = excluded.seen_at returning 1)
     select coalesce((select seen_at < now() - ${HERE} from before), true) as fresh from upserted`,
    [caseId, personId, caseId, personId],
  );
  await seeNotes(em, caseId, personId);
  if (row?.fresh) await notifyCase(em, number, "presence");
}

/** Notes that a person closed a case. */
export async function leave(
  em: EntityManager,
  caseId: number,
  number: number,
  personId: number,
): Promise<void> {
  await em.nativeDelete(Presence, { case: caseId, person: personId });
  await notifyCase(em, number, "presence");
}
