import { z } from "zod";
import { findCases } from "#server/cases/find";
import { idInPath } from "#server/edge";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/cases";

const query = z.object({ q: z.string().max(200) });

/** Other cases, by what is typed of them. */
export async function loader(args: Route.LoaderArgs) {
  const { em } = await signedIn(args);
  return actionResult(async () => ({
    cases: await findCases(em, idInPath.parse(args.params.number), readQuery(args.request, query).q),
  }));
}
