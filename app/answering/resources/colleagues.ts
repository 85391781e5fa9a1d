import { z } from "zod";
import { findColleagues, findTeams } from "#server/people/colleagues";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/colleagues";

const query = z.object({ q: z.string().max(200) });

/** Colleagues and teams whom a case may be given to, by what is typed. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => {
    const { q } = readQuery(args.request, query);
    const [people, teams] = await Promise.all([findColleagues(em, viewer.teamId, q), findTeams(em, q)]);
    return { people, teams };
  });
}
