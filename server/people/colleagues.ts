import type { EntityManager } from "@mikro-orm/postgresql";
import { OURS } from "../cases/ours";
import { holding, query } from "../db/sql";

/** Somebody whom a case can be given to. */
export interface Colleague {
  id: number;
  name: string;
  team: string;
  /** How many cases that are ours are theirs already. */
  cases: number;
}

/** A team that a case can be given to. */
export interface OtherTeam {
  id: number;
  name: string;
  /** How many cases of theirs are nobody's. */
  cases: number;
}

/** Teams by what is typed of their names. */
export async function findTeams(em: EntityManager, text: string): Promise<OtherTeam[]> {
  return query<OtherTeam>(
    em,
    `select t.id, t.name, (select count(*)::int from cases c where c.team_id = t.id and c.assignee_id is null
                              and c.status in (${OURS})) as cases
       from teams t where t.name ilike ? order by t.name limit ${MOST_FOUND}`,
    [holding(text.trim())],
  );
}

/** Most that are offered at once. */
const MOST_FOUND = 20;

/** Those who work here, by what is typed of their name or team; those of a team first. @param team id */
export async function findColleagues(em: EntityManager, team: number, text: string): Promise<Colleague[]> {
  const like = holding(text.trim());
  return query<Colleague>(
    em,
    `select p.id, p.name, t.name as team,
            (select count(*)::int from cases c where c.assignee_id = p.id and c.status in (${OURS})) as cases
       from people p join teams t on t.id = p.team_id
      where p.active and p.left_at is null and (p.name ilike ? or t.name ilike ?)
      order by p.team_id <> ?, p.name limit ${MOST_FOUND}`,
    [like, like, team],
  );
}
