import type { EntityManager } from "@mikro-orm/postgresql";
import { House } from "../db/entities/people";

/** The house's settings, to change them or to hold them still; pages read `house/settings.ts`. @throws Error when the database was never seeded */
export async function findHouse(em: EntityManager): Promise<House> {
  return em.findOneOrFail(House, { id: 1 });
}

/** A case's number as people write it. */
export function caseNumber(house: Pick<House, "casePrefix">, number: number): string {
  return `${house.casePrefix}-${number}`;
}
