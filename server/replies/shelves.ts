import type { ShelfInput } from "#core/forms/library";
import type { EntityManager } from "@mikro-orm/postgresql";
import { Reply, Shelf } from "../db/entities/library";
import { Person, Team } from "../db/entities/people";
import { named, query } from "../db/sql";
import { Conflict, NotAllowed, Unusable } from "../errors";
import { requireRole, type Viewer } from "../people/viewer";
import { accessParameters, findShelf, mayPublish } from "../access/replies";
import { READABLE_REPLY, USABLE_SHELF } from "../db/access-rule";
import { freeShelfKey } from "./keys";
import { t } from "../words";

/** A shelf as lists show it. */
export interface ShelfRow {
  key: string;
  name: string;
  mark: string;
  audience: "everyone" | "teams" | "owner";
  teams: { id: number; name: string }[];
  /** How many replies of it the viewer may read, retired ones apart. */
  replies: number;
  mine: boolean;
  mayPublish: boolean;
  /** Whether the viewer takes replies from it; curators also keep the shelves of other teams. */
  usable: boolean;
}

/** The shelves that a viewer may read: shared ones in the house's order, then their own. */
export async function listShelves(em: EntityManager, viewer: Viewer): Promise<ShelfRow[]> {
  const rows = await query<Omit<ShelfRow, "mayPublish" | "mine"> & { owner_id: number | null }>(
    em,
    ...named(
      `select s.key, s.name, s.mark, s.audience, s.owner_id, ${USABLE_SHELF} as usable,
              coalesce((select jsonb_agg(jsonb_build_object('id', t.id, 'name', t.name) order by t.name)
                 from shelf_teams st join teams t on t.id = st.team_id where st.shelf_id = s.id), '[]') as teams,
              (select count(*)::int from replies r where r.shelf_id = s.id and r.state <> 'retired' and ${READABLE_REPLY}) as replies
         from shelves s
        where ${USABLE_SHELF} or (:curator and s.audience <> 'owner')
        order by (s.audience = 'owner'), s.position, s.name`,
      accessParameters(viewer),
    ),
  );
  return rows.map(({ owner_id: ownerId, ...row }) => ({
    ...row,
    mine: row.audience === "owner",
    mayPublish: mayPublish(viewer, { audience: row.audience, ownerId }),
  }));
}

/** Gives a person a shelf of their own, if they have none. */
export async function ensureOwnShelf(em: EntityManager, person: { id: number }): Promise<void> {
  if ((await em.count(Shelf, { audience: "owner", owner: person.id })) > 0) return;
  await em.upsert(
    Shelf,
    { key: `own-${person.id}`, name: "My own", mark: "M", audience: "owner", owner: person.id, position: 0 },
    { onConflictFields: ["key"], onConflictAction: "ignore" },
  );
}

/**
 * Makes a shared shelf, or changes one.
 * @param key of the shelf to change; null for a new one, which comes last
 * @returns its key
 * @throws NotAllowed; NotFound; Unusable where it is for teams and names none
 */
export async function saveShelf(
  em: EntityManager,
  viewer: Viewer,
  key: string | null,
  input: ShelfInput,
): Promise<string> {
  requireRole(viewer, "curator");
  if (input.audience === "teams" && input.teams.length === 0)
    throw new Unusable(t("sayForWhichTeamsTheShelf"));
  return em.transactional(async (inner) => {
    const teams = input.audience === "teams" ? await inner.find(Team, { id: { $in: input.teams } }) : [];
    if (input.audience === "teams" && teams.length !== new Set(input.teams).size)
      throw new Unusable(t("oneOfTheseTeamsDoesNot"));
    if (key === null) {
      const last = await inner.findOne(
        Shelf,
        { audience: { $ne: "owner" } },
        { orderBy: { position: "desc" } },
      );
      const shelf = inner.create(Shelf, {
        key: await freeShelfKey(inner, input.name),
        name: input.name,
        mark: input.mark,
        audience: input.audience,
        owner: null,
        position: (last?.position ?? 0) + 1,
      });
      shelf.teams.set(teams);
      return shelf.key;
    }
    const access = await findShelf(inner, viewer, key);
    if (access.audience === "owner") throw new NotAllowed(t("aShelfOfSomebodysOwnStays"));
    const shelf = await inner.findOneOrFail(Shelf, { id: access.id }, { populate: ["teams"] });
    shelf.name = input.name;
    shelf.mark = input.mark;
    shelf.audience = input.audience;
    shelf.teams.set(teams);
    return shelf.key;
  });
}

/** Puts the shared shelves into an order. @param keys all of them @throws NotAllowed; Conflict when others came or went */
export async function orderShelves(em: EntityManager, viewer: Viewer, keys: string[]): Promise<void> {
  requireRole(viewer, "curator");
  await em.transactional(async (inner) => {
    const shelves = await inner.find(Shelf, { audience: { $ne: "owner" } });
    if (shelves.length !== new Set(keys).size || shelves.some((shelf) => !keys.includes(shelf.key)))
      throw new Conflict(t("theShelvesWereChangedMeanwhileLoad"));
    for (const shelf of shelves) shelf.position = keys.indexOf(shelf.key);
  });
}

/** Takes an empty shelf away. @throws NotAllowed; NotFound; Unusable while replies stand on it, retired ones too */
export async function removeShelf(em: EntityManager, viewer: Viewer, key: string): Promise<void> {
  requireRole(viewer, "curator");
  const access = await findShelf(em, viewer, key);
  if (access.audience === "owner") throw new NotAllowed(t("aShelfOfSomebodysOwnStays2"));
  const held = await em.count(Reply, { shelf: access.id });
  if (held > 0) throw new Unusable(t("repliesStandOnIt", { count: held, shelf: access.name }));
  await em.nativeDelete(Shelf, { id: access.id });
}

/** Who may own a reply: everyone active, by name. */
export async function possibleOwners(em: EntityManager): Promise<{ id: number; name: string }[]> {
  const people = await em.find(Person, { active: true }, { orderBy: { name: "asc" } });
  return people.map(({ id, name }) => ({ id, name }));
}

/** Every team, by name. */
export async function allTeams(em: EntityManager): Promise<{ id: number; name: string }[]> {
  const teams = await em.find(Team, {}, { orderBy: { name: "asc" } });
  return teams.map(({ id, name }) => ({ id, name }));
}
