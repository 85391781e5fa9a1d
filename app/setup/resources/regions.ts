import { z } from "zod";
import { holidayRegions } from "#server/house/answer-times";
import { readQuery } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/regions";

const query = z.object({ q: z.string().max(2) });

/** The regions of a country that have holidays of their own. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer } = await signedIn(args);
  return actionResult(() =>
    Promise.resolve({ regions: holidayRegions(viewer, readQuery(args.request, query).q) }),
  );
}
