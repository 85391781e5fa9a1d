import { LockMode, type EntityManager } from "@mikro-orm/postgresql";
import type { ColleagueInput, Invitation } from "#core/forms/people";
import { PasswordLink, Person, Team, type Role } from "../db/entities/people";
import { named, query } from "../db/sql";
import { Conflict, NotFound, Unusable } from "../errors";
import { notify } from "../events/notify";
import { findHouse } from "../house/house";
import { lackingDetails } from "../house/signatures";
import { ensureOwnShelf } from "../replies/shelves";
import { makeLink, withdrawLinks, type MadeLink } from "../people/links";
import { endSessionsOf } from "../people/sessions";
import { requireRole, type Viewer } from "../people/viewer";
import { t } from "../words";

/** A colleague as the list of people shows them. Times are ISO 8601 instants. */
export interface ColleagueRow {
  id: number;
  name: string;
  email: string;
  role: Role;
  team: string;
  furtherTeams: string[];
  /** `invited` until they have chosen a password; `left` when they were sent away. */
  state: "here" | "invited" | "left";
  /** When they were last seen; null for never. */
  seen: string | null;
  /** What signatures and replies print of colleagues and they lack. */
  lacks: string[];
}

/** Everyone: those who are here by name, then those who left. @throws NotAllowed unless lead */
export async function listColleagues(em: EntityManager, viewer: Viewer): Promise<ColleagueRow[]> {
  requireRole(viewer, "lead");
  const people = await em.find(
    Person,
    {},
    { populate: ["team", "furtherTeams"], orderBy: { active: "desc", name: "asc" } },
  );
  const seen = await query<{ id: number; at: string }>(
    em,
    "select person_id as id, max(seen_at) as at from sessions group by person_id",
  );
  const lacking = await lackingDetails(em, people);
  return people.map((person) => {
    const at = seen.find((one) => one.id === person.id)?.at;
    return {
      id: person.id,
      name: person.name,
      email: person.email,
      role: person.role,
      team: person.team.name,
      furtherTeams: person.furtherTeams.map((team) => team.name).sort(),
      state: stateOf(person),
      seen: at === undefined ? null : new Date(at).toISOString(),
      lacks: person.active ? (lacking.lacks.get(person.id) ?? []) : [],
    };
  });
}

function stateOf({ active, passwordHash }: Person): ColleagueRow["state"] {
  return !active ? "left" : passwordHash == null ? "invited" : "here";
}

/** What a colleague would leave behind. */
export interface Belongings {
  /** Cases that are theirs and not closed. */
  cases: number;
  drafts: number;
  /** Replies on their own shelf. */
  own: number;
  /** Shared replies that they own, and so look after at their time. */
  owned: number;
}

/** A colleague as their page shows them. */
export interface Colleague extends ColleagueInput {
  id: number;
  state: ColleagueRow["state"];
  /** Until when their link is good; null without one. ISO 8601 instant. */
  linkUntil: string | null;
  belongings: Belongings;
  /** Whether nobody else could set up the house. */
  isLastLead: boolean;
}

/** A colleague, for the page where a lead changes them. @throws NotAllowed unless lead; NotFound */
export async function readColleague(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  now: Date,
): Promise<Colleague> {
  requireRole(viewer, "lead");
  const person = await em.findOne(Person, { id }, { populate: ["furtherTeams"] });
  if (!person) throw new NotFound(t("thereIsNoSuchColleague"));
  const link = await em.findOne(PasswordLink, { person: id, usedAt: null, expiresAt: { $gt: now } });
  const { name, firstName, email, role, title, department, phone } = person;
  return {
    id,
    name,
    firstName,
    email,
    role,
    title: title ?? null,
    department: department ?? null,
    phone: phone ?? null,
    team: person.team.id,
    furtherTeams: person.furtherTeams.getItems().map((team) => team.id),
    state: stateOf(person),
    linkUntil: link?.expiresAt.toISOString() ?? null,
    belongings: await belongingsOf(em, id),
    isLastLead: person.role === "lead" && person.active && (await otherLeads(em, id)) === 0,
  };
}

async function belongingsOf(em: EntityManager, person: number): Promise<Belongings> {
  const [row] = await query<Belongings>(
    em,
    ...named(
      `select (select count(*)::int from cases where assignee_id = :person and status <> 'settled') as cases,
              (select count(*)::int from drafts where person_id = :person) as drafts,
              (select count(*)::int from replies r join shelves s on s.id = r.shelf_id
                where s.audience = 'owner' and s.owner_id = :person) as own,
              (select count(*)::int from replies r join shelves s on s.id = r.shelf_id
                where s.audience <> 'owner' and r.owner_id = :person and r.state <> 'retired') as owned`,
      { person },
    ),
  );
  return row ?? { cases: 0, drafts: 0, own: 0, owned: 0 };
}

/** How many others can set up the house: leads who are here and have a password. */
async function otherLeads(em: EntityManager, but: number): Promise<number> {
  return em.count(Person, { role: "lead", active: true, passwordHash: { $ne: null }, id: { $ne: but } });
}

/** What is done to the leads is done one after the other, so that one always stays. */
async function holdLeads(em: EntityManager): Promise<void> {
  await em.find(Person, { role: "lead" }, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true });
}

const LAST_LEAD = "They are the only lead; make somebody else a lead first";

/**
 * Invites a colleague: they are one from now on, and sign in once they have chosen a password by the link.
 * @param base where people reach the program
 * @returns their id and the link, which nothing shows again
 * @throws NotAllowed unless lead; Conflict where the address is somebody's; Unusable where the team is gone
 */
export async function invite(
  em: EntityManager,
  viewer: Viewer,
  input: Invitation,
  base: string,
  now: Date,
): Promise<{ id: number; link: MadeLink }> {
  requireRole(viewer, "lead");
  return em.transactional(async (inner) => {
    const person = await addPerson(inner, input);
    return { id: person.id, link: await makeLink(inner, person, "invited", { by: viewer.id, base, now }) };
  });
}

/**
 * Adds a person without a password, with a shelf of their own. To be called in a transaction.
 * @throws Conflict where the address is somebody's; Unusable where the team is gone
 */
export async function addPerson(em: EntityManager, input: Invitation): Promise<Person> {
  await refuseTaken(em, input.email, null);
  const team = await em.findOne(Team, { id: input.team });
  if (!team) throw new Unusable(t("thatTeamDoesNotExistAny"), "team");
  const { timeZone } = await findHouse(em);
  const person = em.create(Person, {
    email: input.email,
    passwordHash: null,
    name: input.name,
    firstName: input.firstName,
    title: null,
    department: null,
    phone: null,
    role: input.role,
    timeZone,
    team,
  });
  await em.flush();
  await ensureOwnShelf(em, person);
  return person;
}

async function refuseTaken(em: EntityManager, email: string, but: number | null): Promise<void> {
  const known = await em.findOne(Person, { email, ...(but === null ? {} : { id: { $ne: but } }) });
  if (!known) return;
  throw new Unusable(
    known.active
      ? t("knownSignsInWithThatAddress", { known: known.name })
      : t("knownSignedInWithThatAddress", { known: known.name }),
    "email",
  );
}

/**
 * Gives a colleague another link to choose a password by. Their old password is good no more, and wherever they are signed
 * in they are no longer. Who left is back.
 * @throws NotAllowed unless lead; NotFound; Unusable for the viewer themselves, who change their password on their own page
 */
export async function resetPassword(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  base: string,
  now: Date,
): Promise<MadeLink> {
  requireRole(viewer, "lead");
  if (id === viewer.id) throw new Unusable(t("yourOwnPasswordIsChangedOn"));
  return em.transactional(async (inner) => {
    const person = await inner.findOne(Person, { id }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (!person) throw new NotFound(t("thereIsNoSuchColleague"));
    const purpose = person.passwordHash == null || !person.active ? "invited" : "reset";
    person.active = true;
    person.leftAt = null;
    person.passwordHash = null;
    await inner.flush();
    await endSessionsOf(inner, id);
    return makeLink(inner, person, purpose, { by: viewer.id, base, now });
  });
}

/**
 * Changes a colleague: name, address, role, teams and what letters print of them.
 * @throws NotAllowed unless lead; NotFound; Unusable, also where nobody would be lead any more
 */
export async function saveColleague(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  input: ColleagueInput,
): Promise<void> {
  requireRole(viewer, "lead");
  const { team, furtherTeams, ...rest } = input;
  await em.transactional(async (inner) => {
    await holdLeads(inner);
    const person = await inner.findOne(Person, { id }, { populate: ["furtherTeams"], refresh: true });
    if (!person) throw new NotFound(t("thereIsNoSuchColleague"));
    await refuseTaken(inner, input.email, id);
    if (person.role === "lead" && input.role !== "lead" && (await otherLeads(inner, id)) === 0)
      throw new Unusable(LAST_LEAD, "role");
    const wanted = new Set(furtherTeams.filter((one) => one !== team));
    const teams = await inner.find(Team, { id: { $in: [team, ...wanted] } });
    const own = teams.find((one) => one.id === team);
    if (!own) throw new Unusable(t("thatTeamDoesNotExistAny"), "team");
    if (teams.length !== wanted.size + 1) throw new Unusable(t("oneOfTheseTeamsDoesNot"), "furtherTeams");
    Object.assign(person, rest);
    person.team = own;
    person.furtherTeams.set(teams.filter((one) => one !== own));
  });
}

/** What went to the successor. */
export type HandedOver = Belongings;

/**
 * Sends a colleague away: they sign in no more. Their cases, drafts, own replies and the replies that they look after go to a
 * colleague; their name stays on what they wrote.
 * @throws NotAllowed unless lead; NotFound; Unusable for the viewer themselves, the only lead, or a successor who is not here; Conflict where they left already
 */
export async function sendAway(
  em: EntityManager,
  viewer: Viewer,
  id: number,
  successorId: number,
  now: Date,
): Promise<HandedOver> {
  requireRole(viewer, "lead");
  if (id === viewer.id) throw new Unusable(t("youCannotSendYourselfAwayAnother"));
  if (id === successorId) throw new Unusable(t("chooseSomebodyElse"), "successor");
  return em.transactional(async (inner) => {
    await holdLeads(inner);
    const person = await inner.findOne(
      Person,
      { id },
      { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true },
    );
    if (!person) throw new NotFound(t("thereIsNoSuchColleague"));
    if (!person.active) throw new Conflict(t("personHasLeftAlready", { person: person.name }));
    const successor = await inner.findOne(Person, { id: successorId, active: true });
    if (!successor) throw new Unusable(t("chooseSomebodyWhoIsHere"), "successor");
    if (person.role === "lead" && (await otherLeads(inner, id)) === 0) throw new Unusable(LAST_LEAD);
    const handed = await belongingsOf(inner, id);
    person.active = false;
    person.leftAt = now;
    await inner.flush();
    await endSessionsOf(inner, id);
    await withdrawLinks(inner, id);
    await ensureOwnShelf(inner, successor);
    const values = { person: id, successor: successorId, by: viewer.id, now };
    for (const statement of HANDING_OVER) await query(inner, ...named(statement, values));
    await notify(inner, { case: null, kind: "queue" });
    await notify(inner, { case: null, kind: "shelf" });
    return handed;
  });
}

/** In their order: what is the person's becomes the successor's. Drafts for a case that both had one for become one. */
const HANDING_OVER = [
  `with moved as (update cases set assignee_id = :successor, updated_at = :now
     where assignee_id = :person and status <> 'settled' returning id)
   insert into case_events (case_id, person_id, kind, data, at)
     select id, :by, 'handed over', jsonb_build_object('from', :person::int, 'to', :successor::int), :now from moved`,
  // The successor's own words come first, the others' after them.
  `update slips s set draft_id = theirs.id, uid = s.uid || '-' || :person::text,
          position = s.position + 1 + coalesce((select max(position) from slips where draft_id = theirs.id), -1)
     from drafts old join drafts theirs on theirs.case_id = old.case_id and theirs.person_id = :successor
    where s.draft_id = old.id and old.person_id = :person`,
  `update attachments a set draft_id = theirs.id
     from drafts old join drafts theirs on theirs.case_id = old.case_id and theirs.person_id = :successor
    where a.draft_id = old.id and old.person_id = :person`,
  `update drafts theirs set version = theirs.version + 1, writer = null, updated_at = :now
     from drafts old
    where old.case_id = theirs.case_id and theirs.person_id = :successor and old.person_id = :person`,
  `delete from drafts old using drafts theirs
    where theirs.case_id = old.case_id and theirs.person_id = :successor and old.person_id = :person`,
  `update drafts set person_id = :successor, version = version + 1, writer = null where person_id = :person`,
  `update replies r set owner_id = :successor, updated_at = :now,
          shelf_id = case when s.audience = 'owner' then (select id from shelves where audience = 'owner' and owner_id = :successor limit 1) else r.shelf_id end
     from shelves s
    where s.id = r.shelf_id and (r.owner_id = :person or (s.audience = 'owner' and s.owner_id = :person))`,
  `delete from case_presence where person_id = :person`,
];
