import type { Loaded } from "@mikro-orm/postgresql";
import { roleName } from "#core/words/named";
import { NotAllowed } from "../errors";
import type { Person, Role } from "../db/entities/people";
import { t } from "../words";

/** Who is asking: what every server function needs to know of the person signed in. */
export interface Viewer {
  id: number;
  name: string;
  email: string;
  role: Role;
  teamId: number;
  teamName: string;
  /** Every team whose cases and shelves they have, the one that they are of first. */
  teams: number[];
  /** Whether the next thing they do is to choose a password of their own. */
  mustChangePassword: boolean;
  /** IANA zone. */
  timeZone: string;
}

/** What server functions need to know of a person whose team was loaded. @param further ids of teams that they are in besides */
export function viewerOf(person: Loaded<Person, "team">, further: number[] = []): Viewer {
  return {
    id: person.id,
    name: person.name,
    email: person.email,
    role: person.role,
    teamId: person.team.id,
    teamName: person.team.name,
    teams: [person.team.id, ...further],
    mustChangePassword: person.mustChangePassword,
    timeZone: person.timeZone,
  };
}

const rank: Record<Role, number> = { agent: 0, curator: 1, lead: 2 };

/** Whether a role includes another: a lead may what a curator may, a curator what an agent may. */
export function includesRole(role: Role, wanted: Role): boolean {
  return rank[role] >= rank[wanted];
}

/** Lets the viewer pass whose role includes the wanted one. @throws NotAllowed */
export function requireRole(viewer: Viewer, wanted: Role): void {
  if (!includesRole(viewer.role, wanted)) {
    throw new NotAllowed(t("thisIsForAWantedYou", { wanted: roleName(wanted), role: roleName(viewer.role) }));
  }
}
