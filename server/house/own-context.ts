import type { EntityManager } from "@mikro-orm/postgresql";
import { contextSchema, type Context } from "#core/tokens/context";
import { Person } from "../db/entities/people";
import { ownTokensOf, settingsOf, teamDetails, type OwnTokens } from "./settings";
import type { Viewer } from "../people/viewer";

/** What signatures and stationery read: the viewer as agent, and the house. No case. */
export async function ownContext(
  em: EntityManager,
  viewer: Viewer,
  now: Date,
): Promise<{ context: Context; own: OwnTokens }> {
  const settings = await settingsOf(em);
  const { house } = settings;
  const own = ownTokensOf(settings, now);
  const person = await em.findOneOrFail(Person, { id: viewer.id });
  const team = teamDetails(settings, viewer.teamId);
  const context = contextSchema.parse({
    case: {},
    customer: {},
    organisation: {},
    booking: {},
    agent: {
      name: person.name,
      first_name: person.firstName,
      title: person.title ?? null,
      department: person.department ?? null,
      team: team.name,
      email: person.email,
      phone: person.phone ?? null,
    },
    house: { name: house.name, ...own.facts },
    written: { ...own.written, ...team.written },
    now: now.toISOString(),
    time_zone: house.timeZone,
  });
  return { context, own };
}
