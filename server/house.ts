import type { EntityManager } from "@mikro-orm/postgresql";
import type { OwnToken } from "#core/tokens/catalogue";
import type { Detail } from "#core/tokens/context";
import { CaseField } from "./db/entities/cases";
import { House } from "./db/entities/people";
import { query } from "./db/sql";

/** The house's settings. @throws Error when the database was never seeded */
export async function findHouse(em: EntityManager): Promise<House> {
  return em.findOneOrFail(House, { id: 1 });
}

/** What the house defined for itself, as tokens, and the facts' values that hold now. */
export interface OwnTokens {
  caseFields: OwnToken[];
  houseFacts: OwnToken[];
  facts: Record<string, Detail>;
}

/** Reads case fields and house facts. @param now decides which value of a fact holds */
export async function ownTokens(em: EntityManager, now: Date): Promise<OwnTokens> {
  const fields = await em.find(CaseField, {}, { orderBy: { position: "asc", key: "asc" } });
  const facts = await query<{ key: string; label: string; type: OwnToken["type"]; value: Detail }>(
    em,
    `select distinct on (f.key) f.key, f.label, f.type, v.value
       from house_facts f join house_fact_values v on v.fact_id = f.id
      where v.valid_from <= ? order by f.key, v.valid_from desc`,
    [now],
  );
  return {
    caseFields: fields.map(({ key, label, type, example }) => ({ key, label, type, example })),
    houseFacts: facts.map(({ key, label, type, value }) => ({ key, label, type, example: value })),
    facts: Object.fromEntries(facts.map(({ key, value }) => [key, value])),
  };
}

/** A case's number as people write it. */
export function caseNumber(house: Pick<House, "casePrefix">, number: number): string {
  return `${house.casePrefix}-${number}`;
}
