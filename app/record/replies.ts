import { z } from "zod";
import { findUsedReplies } from "#server/record/choices";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/replies";

const query = z.object({ q: z.string().max(200) });

/** Replies whose letters can be looked for, by what is typed. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  return actionResult(async () => ({
    replies: await findUsedReplies(em, viewer, readQuery(args.request, query).q),
  }));
}
