import type { EntityManager } from "@mikro-orm/postgresql";
import { Team } from "../db/entities/people";
import { environment } from "../environment";
import { hasCases } from "../house/house";
import type { Viewer } from "../people/viewer";

/** What a list says that no case ever came to. */
export interface Beginning {
  /** Address of the viewer's team. */
  address: string;
  /** Whether customers are played in the simulated outside. */
  simulated: boolean;
  /** Whether the viewer sets up how mail comes in. */
  isLead: boolean;
}

/** What there is to do before the first case; null once there was one. */
export async function beginning(em: EntityManager, viewer: Viewer): Promise<Beginning | null> {
  if (await hasCases(em)) return null;
  const team = await em.findOneOrFail(Team, { id: viewer.teamId });
  return {
    address: team.mailbox,
    simulated: environment().standins.on,
    isLead: viewer.role === "lead",
  };
}
