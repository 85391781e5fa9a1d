import { z } from "zod";
import { idInPath } from "#server/edge";
import { asSent } from "#server/standing/marks";
import { signedIn } from "#server/web/context";
import { actionResult } from "#server/web/results";
import type { Route } from "./+types/as-sent";

const params = z.object({ id: idInPath, message: idInPath });

/** What a rule would send for a message. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(() => {
    const { id, message } = params.parse(args.params);
    return asSent(em, viewer, id, message, now);
  });
}
