import { z } from "zod";
import { findColleagues } from "#server/people/colleagues";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/colleagues";

const query = z.object({ q: z.string().max(200) });

/** Colleagues whom a case may be given to, by what is typed. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => ({
    people: await findColleagues(em, viewer.teamId, readQuery(args.request, query).q),
  }));
}
