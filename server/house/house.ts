import type { EntityManager } from "@mikro-orm/postgresql";
import type { HouseInput } from "#core/forms/house";
import { Case } from "../db/entities/cases";
import { House, Person } from "../db/entities/people";
import { Unusable } from "../errors";
import { requireRole, type Viewer } from "../people/viewer";
import { doStep } from "./steps";
import { t } from "../words";

/** The house's settings, to change them or to hold them still; pages read `house/settings.ts`. @throws Error when the database was never seeded */
export async function findHouse(em: EntityManager): Promise<House> {
  return em.findOneOrFail(House, { id: 1 });
}

/** The language that the house writes in first, as a tag. */
export async function firstLanguage(em: EntityManager): Promise<string> {
  const [first = "en"] = (await findHouse(em)).languages;
  return first;
}

/** A case's number as people write it. */
export function caseNumber(house: Pick<House, "casePrefix">, number: number): string {
  return `${house.casePrefix}-${number}`;
}

/** The house, for the page where a lead changes it. @throws NotAllowed unless lead */
export async function readHouse(
  em: EntityManager,
  viewer: Viewer,
): Promise<HouseInput & { hasCases: boolean }> {
  requireRole(viewer, "lead");
  const { name, casePrefix, timeZone, languages, region } = await findHouse(em);
  return { name, casePrefix, timeZone, languages, region: region ?? null, hasCases: await hasCases(em) };
}

/**
 * Changes the house: letters print it from the next one on.
 * @throws NotAllowed unless lead; Unusable where cases have gone out under the old letters before their number
 */
export async function saveHouse(
  em: EntityManager,
  viewer: Viewer,
  input: HouseInput,
  now: Date,
): Promise<void> {
  requireRole(viewer, "lead");
  await em.transactional(async (inner) => {
    const house = await findHouse(inner);
    if (house.casePrefix !== input.casePrefix && (await hasCases(inner)))
      throw new Unusable(t("customersHaveLettersWithTheOld"), "casePrefix");
    const [language = "en"] = input.languages;
    // Whoever has the house's own zone goes along with it.
    await inner.nativeUpdate(Person, { timeZone: house.timeZone }, { timeZone: input.timeZone });
    Object.assign(house, input, { language: fullTag(language, input.region) });
    await inner.flush();
    await doStep(inner, viewer, "house", now);
  });
}

/** A language as the house writes it: with its region, where it says none itself and the house has one. */
function fullTag(language: string, region: string | null): string {
  return region === null || language.includes("-") ? language : `${language}-${region}`;
}

/** Whether a case ever came. */
export async function hasCases(em: EntityManager): Promise<boolean> {
  return (await em.findOne(Case, { id: { $gt: 0 } }, { fields: ["id"] })) !== null;
}
