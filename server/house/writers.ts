import type { EntityManager } from "@mikro-orm/postgresql";
import { agentDetails, type AgentDetail } from "#core/checks/agent-details";
import { Signature } from "../db/entities/library";
import { Person } from "../db/entities/people";
import { includesRole, type Viewer } from "../people/viewer";

/** Somebody who writes letters, as far as what stands around them is concerned. */
export interface Writer {
  id: number;
  name: string;
  /** Ids of the teams whose letters they write. */
  teams: number[];
  /** Details that letters may print and that nobody has filled in for them. */
  lacks: AgentDetail[];
  /** Whether they have a signature of their own. */
  signs: boolean;
}

/**
 * Who writes letters and is still here, by name: everybody for those who set up what stands around letters, else the viewer
 * alone.
 */
export async function listWriters(em: EntityManager, viewer: Viewer): Promise<Writer[]> {
  const all = includesRole(viewer.role, "curator");
  const people = await em.find(
    Person,
    { active: true, ...(all ? {} : { id: viewer.id }) },
    { populate: ["furtherTeams"], orderBy: { name: "asc" } },
  );
  const signatures = await em.find(Signature, { person: { $in: people.map(({ id }) => id) } });
  return people.map((person) => ({
    id: person.id,
    name: person.name,
    teams: [person.team.id, ...person.furtherTeams.map((team) => team.id)],
    lacks: agentDetails.filter((detail) => !person[detail]?.trim()),
    signs: signatures.some((one) => one.person?.id === person.id),
  }));
}
