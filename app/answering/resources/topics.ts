import { z } from "zod";
import { findTopics } from "#server/cases/topics";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/topics";

const query = z.object({ q: z.string().max(100) });

/** Topics that cases have, by what is typed. */
export async function loader(args: Route.LoaderArgs) {
  const { em } = await signedIn(args);
  return actionResult(async () => ({ topics: await findTopics(em, readQuery(args.request, query).q) }));
}
