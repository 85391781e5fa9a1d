import type { EntityManager } from "@mikro-orm/postgresql";
import type { OwnDetails } from "#core/forms/people";
import { Person } from "../db/entities/people";
import { Unusable } from "../errors";
import { withdrawLinks } from "./links";
import { checkPassword, hashPassword, verifyPassword } from "./password";
import { endSessionsOf } from "./sessions";
import type { Viewer } from "./viewer";
import { t } from "../words";

/** What a person sees of themselves and may change. */
export async function readOwn(em: EntityManager, viewer: Viewer): Promise<OwnDetails & { email: string }> {
  const person = await em.findOneOrFail(Person, { id: viewer.id });
  const { email, name, firstName, title, department, phone, timeZone } = person;
  return {
    email,
    name,
    firstName,
    title: title ?? null,
    department: department ?? null,
    phone: phone ?? null,
    timeZone,
  };
}

/** Changes one's own details: letters print them from the next one on. */
export async function saveOwn(em: EntityManager, viewer: Viewer, details: OwnDetails): Promise<void> {
  const { name, firstName, title, department, phone, timeZone } = details;
  await em.nativeUpdate(Person, { id: viewer.id }, { name, firstName, title, department, phone, timeZone });
}

/**
 * Changes one's own password; wherever else one is signed in, one is no longer.
 * @param session the one that goes on
 * @throws Unusable where the old one is wrong or the new one is none
 */
export async function changePassword(
  em: EntityManager,
  viewer: Viewer,
  input: { old: string; password: string },
  session: number | null,
): Promise<void> {
  const person = await em.findOneOrFail(Person, { id: viewer.id });
  if (!(await verifyPassword(input.old, person.passwordHash ?? null)))
    throw new Unusable(t("thatIsNotYourPresentPassword"), "old");
  checkPassword(input.password, person);
  if (input.password === input.old) throw new Unusable(t("chooseAnotherPasswordThanThePresent"), "password");
  const hash = await hashPassword(input.password);
  await em.transactional(async (inner) => {
    await inner.nativeUpdate(Person, { id: viewer.id }, { passwordHash: hash, mustChangePassword: false });
    await withdrawLinks(inner, viewer.id);
    await endSessionsOf(inner, viewer.id, session);
  });
}
