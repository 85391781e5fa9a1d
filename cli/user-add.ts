import { z } from "zod";
import { invitationSchema } from "#core/forms/people";
import { Team } from "#server/db/entities/people";
import { environment, ownAddress } from "#server/environment";
import { Unusable } from "#server/errors";
import { makeLink } from "#server/people/links";
import { addPerson } from "#server/staff/colleagues";
import { withDatabase } from "./database";
import { Failure } from "./failure";

/** What `shelf user add` takes. */
export interface NewUser {
  name: string;
  first?: string | undefined;
  email: string;
  role: "agent" | "curator" | "lead";
  team?: string | undefined;
}

/**
 * Adds a person and makes the link by which they choose a password; it is sent to them, too.
 * @returns one line of JSON
 * @throws Failure where the address is taken, or the team is unknown or not said among several
 */
export async function userAdd(input: NewUser): Promise<string> {
  return withDatabase(async (em) => {
    const teams = await em.find(Team, {}, { orderBy: { name: "asc" } });
    const named = input.team === undefined ? teams : teams.filter((one) => one.name === input.team);
    const [team] = named;
    if (!team || named.length > 1)
      throw new Failure(`--team is one of: ${teams.map((one) => one.name).join(", ")}`, 2);
    const read = z.safeParse(invitationSchema, {
      name: input.name,
      firstName: input.first ?? input.name.trim().split(/\s+/)[0],
      email: input.email,
      role: input.role,
      team: team.id,
    });
    if (!read.success) {
      const [issue] = read.error.issues;
      throw new Failure(`--${String(issue?.path[0] ?? "name")}: ${issue?.message ?? "is not usable"}`, 2);
    }
    const settings = environment();
    const base = settings.publicUrl ?? ownAddress(settings);
    try {
      return await em.transactional(async (inner) => {
        const person = await addPerson(inner, read.data);
        const link = await makeLink(inner, person, "invited", { by: null, base, now: new Date() });
        return JSON.stringify({ id: person.id, email: person.email, link: link.url, expires: link.expires });
      });
    } catch (error) {
      if (error instanceof Unusable) throw new Failure(error.message);
      throw error;
    }
  });
}
