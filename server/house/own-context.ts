import type { EntityManager } from "@mikro-orm/postgresql";
import { contextSchema, type Context } from "#core/tokens/context";
import { Person } from "../db/entities/people";
import { findHouse, ownTokens, type OwnTokens } from "../house";
import type { Viewer } from "../people/viewer";

/** What signatures and stationery read: the viewer as agent, and the house. No case. */
export async function ownContext(
  em: EntityManager,
  viewer: Viewer,
  now: Date,
): Promise<{ context: Context; own: OwnTokens }> {
  const house = await findHouse(em);
  const own = await ownTokens(em, now);
  const person = await em.findOneOrFail(Person, { id: viewer.id });
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
      email: person.email,
      phone: person.phone ?? null,
    },
    house: { name: house.name, ...own.facts },
    now: now.toISOString(),
    time_zone: house.timeZone,
  });
  return { context, own };
}
