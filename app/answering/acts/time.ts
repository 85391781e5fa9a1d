import { countTime, timeSchema } from "#server/cases/time-spent";
import { idInPath } from "#server/edge";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/time";

/** Counts how long the viewer was at a case. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const told = await readBody(args.request, timeSchema);
    await countTime(em, viewer, idInPath.parse(args.params.number), told, now);
    return {};
  });
}
