import type { EntityManager } from "@mikro-orm/postgresql";
import type { TeamInput } from "#core/forms/people";
import { Team } from "../db/entities/people";
import { query } from "../db/sql";
import { NotFound, Unusable } from "../errors";
import { firstLanguage } from "../house/house";
import { doStep } from "../house/steps";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** A team as the setup shows it. */
export interface TeamRow {
  id: number;
  name: string;
  /** Address that the team's mail comes to and goes from. */
  mailbox: string;
  /** Of its name. */
  language: string;
  /** Its name in other languages, by their tags. */
  names: Record<string, string>;
  /** Minutes within which a message is to be answered. */
  answerWithin: number;
  /** Colleagues of it who are here, those who are in it besides included. */
  people: number;
  /** All its cases. */
  cases: number;
}

/** Every team, by name. */
export async function listTeams(em: EntityManager): Promise<TeamRow[]> {
  return query<TeamRow>(
    em,
    `select t.id, t.name, t.mailbox, t.language, t.names, t.answer_within as "answerWithin",
            (select count(*)::int from people p where p.active and (p.team_id = t.id
               or exists (select 1 from person_teams pt where pt.person_id = p.id and pt.team_id = t.id))) as people,
            (select count(*)::int from cases c where c.team_id = t.id) as cases
       from teams t order by t.name`,
  );
}

/**
 * Makes a team, or changes one: its letters come from its address from then on.
 * @param id null for a new one
 * @returns its id
 * @throws NotAllowed unless lead; NotFound; Unusable where another has the name or the address
 */
export async function saveTeam(
  em: EntityManager,
  viewer: Viewer,
  id: number | null,
  input: TeamInput,
  now: Date,
): Promise<number> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    await doStep(inner, viewer, "team", now);
    const others = await inner.find(Team, id === null ? {} : { id: { $ne: id } });
    if (others.some((one) => one.name.toLowerCase() === input.name.toLowerCase()))
      throw new Unusable(t("anotherTeamIsCalledThat"), "name");
    const owner = others.find((one) => one.mailbox.toLowerCase() === input.mailbox);
    if (owner) throw new Unusable(t("thatIsTheAddressOfOwner", { owner: owner.name }), "mailbox");
    if (id === null) {
      const made = inner.create(Team, { language: await firstLanguage(inner), ...input });
      await inner.flush();
      return made.id;
    }
    const team = await inner.findOne(Team, { id });
    if (!team) throw new NotFound(t("thereIsNoSuchTeam"));
    Object.assign(team, input);
    return id;
  });
}

/** Removes a team that nobody is of and that never had a case. @throws NotAllowed unless lead; NotFound; Unusable */
export async function removeTeam(em: EntityManager, viewer: Viewer, id: number): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const team = await inner.findOne(Team, { id });
    if (!team) throw new NotFound(t("thereIsNoSuchTeam"));
    const [held] = await query<{ people: number; cases: number; shelves: number }>(
      inner,
      `select (select count(*)::int from people p where p.team_id = ? or exists (select 1 from person_teams pt where pt.person_id = p.id and pt.team_id = ?)) as people,
              (select count(*)::int from cases where team_id = ?) as cases,
              (select count(*)::int from shelf_teams where team_id = ?) as shelves`,
      [id, id, id, id],
    );
    if (!held) throw new Error("Counting what a team holds yielded no row");
    if (held.people > 0) throw new Unusable(t("colleaguesAreOfTeamThoseWho", { team: team.name }));
    if (held.cases > 0) throw new Unusable(t("teamHasCasesAndTheirRecord", { team: team.name }));
    if (held.shelves > 0) throw new Unusable(t("shelvesAreForTeamSayFirst", { team: team.name }));
    inner.remove(team);
  });
}
