import { z } from "zod";
import { findPeople } from "#server/answering/people";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/people";

const query = z.object({ q: z.string().max(200) });

/** People whom a letter may go to besides, by what is typed of them. */
export async function loader(args: Route.LoaderArgs) {
  const { em } = await signedIn(args);
  return actionResult(async () => ({ people: await findPeople(em, readQuery(args.request, query).q) }));
}
